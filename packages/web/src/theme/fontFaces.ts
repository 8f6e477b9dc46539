import mono400 from '@expo-google-fonts/atkinson-hyperlegible-mono/400Regular/AtkinsonHyperlegibleMono_400Regular.ttf?url';
import mono600 from '@expo-google-fonts/atkinson-hyperlegible-mono/600SemiBold/AtkinsonHyperlegibleMono_600SemiBold.ttf?url';
import text400 from '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf?url';
import text600 from '@expo-google-fonts/atkinson-hyperlegible-next/600SemiBold/AtkinsonHyperlegibleNext_600SemiBold.ttf?url';
import arabic400 from '@expo-google-fonts/noto-sans-arabic/400Regular/NotoSansArabic_400Regular.ttf?url';
import arabic600 from '@expo-google-fonts/noto-sans-arabic/600SemiBold/NotoSansArabic_600SemiBold.ttf?url';
import hebrew400 from '@expo-google-fonts/noto-sans-hebrew/400Regular/NotoSansHebrew_400Regular.ttf?url';
import hebrew600 from '@expo-google-fonts/noto-sans-hebrew/600SemiBold/NotoSansHebrew_600SemiBold.ttf?url';
import math400 from '@expo-google-fonts/noto-sans-math/400Regular/NotoSansMath_400Regular.ttf?url';
import symbolsTwo400 from '@expo-google-fonts/noto-sans-symbols-2/400Regular/NotoSansSymbols2_400Regular.ttf?url';
import symbols400 from '@expo-google-fonts/noto-sans-symbols/400Regular/NotoSansSymbols_400Regular.ttf?url';
import symbols600 from '@expo-google-fonts/noto-sans-symbols/600SemiBold/NotoSansSymbols_600SemiBold.ttf?url';
import sans400 from '@expo-google-fonts/noto-sans/400Regular/NotoSans_400Regular.ttf?url';
import sans600 from '@expo-google-fonts/noto-sans/600SemiBold/NotoSans_600SemiBold.ttf?url';
import arabicText400 from '@expo-google-fonts/vazirmatn/400Regular/Vazirmatn_400Regular.ttf?url';
import arabicText600 from '@expo-google-fonts/vazirmatn/600SemiBold/Vazirmatn_600SemiBold.ttf?url';
import { fallbackFonts, houseFonts, houseRange, type FontFile } from '@visograph/drawing';

/** Where the build puts each shipped file. A bundler must read these names as they stand. */
const urls: Readonly<Record<string, string>> = {
  'AtkinsonHyperlegibleNext 400': text400,
  'AtkinsonHyperlegibleNext 600': text600,
  'AtkinsonHyperlegibleMono 400': mono400,
  'AtkinsonHyperlegibleMono 600': mono600,
  'NotoSans 400': sans400,
  'NotoSans 600': sans600,
  'NotoSansHebrew 400': hebrew400,
  'NotoSansHebrew 600': hebrew600,
  'Vazirmatn 400': arabicText400,
  'Vazirmatn 600': arabicText600,
  'NotoSansArabic 400': arabic400,
  'NotoSansArabic 600': arabic600,
  'NotoSansSymbols 400': symbols400,
  'NotoSansSymbols 600': symbols600,
  'NotoSansMath 400': math400,
  'NotoSansMath 600': math400,
  'NotoSansSymbols2 400': symbolsTwo400,
  'NotoSansSymbols2 600': symbolsTwo400,
};

const face = (family: string, { family: own, weight }: FontFile, range: string): string =>
  `@font-face{font-family:'${family}';font-weight:${weight};font-display:block;unicode-range:${range};src:url(${urls[`${own.replaceAll(' ', '')} ${weight}`] ?? ''}) format('truetype')}`;

const families = [...new Set(houseFonts.map(({ family }) => family))];

/**
 * The rules of the shipped fonts. What stands in for a script goes behind the names of the house fonts and is fetched
 * when a character of its range is shown; of rules of one name the last is asked first, which is the house itself.
 */
export const fontFaces = [
  ...[...fallbackFonts].reverse().flatMap((font) => families.map((family) => face(family, font, font.range))),
  ...houseFonts.map((font) => face(font.family, font, houseRange)),
].join('');
