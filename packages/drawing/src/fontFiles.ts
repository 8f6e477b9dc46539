/** One font file: of which family and weight, and its module path. */
export interface FontFile {
  family: string;
  weight: 400 | 600;
  file: string;
}

/** A family that stands in where the house fonts lack a character. */
export interface FallbackFont extends FontFile {
  /** Where it is asked, as `unicode-range` of CSS: a browser fetches it for these characters only. */
  range: string;
}

const cuts = { 400: '400Regular', 600: '600SemiBold' } as const;
const weights = [400, 600] as const;

const files = (family: string, name: string, stem: string): FontFile[] =>
  weights.map((weight) => ({
    family,
    weight,
    file: `@expo-google-fonts/${name}/${cuts[weight]}/${stem}_${cuts[weight]}.ttf`,
  }));

const fallback = (family: string, name: string, stem: string, range: string): FallbackFont[] =>
  files(family, name, stem).map((font) => ({ ...font, range }));

/** A family of one weight serves for both. */
const oneWeight = (family: string, name: string, stem: string, range: string): FallbackFont[] => {
  const file = `@expo-google-fonts/${name}/${cuts[400]}/${stem}_${cuts[400]}.ttf`;
  return weights.map((weight) => ({ family, weight, file, range }));
};

/** Where the house fonts are asked: not for Greek, of which they have a few letters as signs. */
export const houseRange = 'U+0000-036F, U+0400-10FFFF';

/** The fonts of the house: what nearly every text is set in. */
export const houseFonts: readonly FontFile[] = [
  ...files('Atkinson Hyperlegible Next', 'atkinson-hyperlegible-next', 'AtkinsonHyperlegibleNext'),
  ...files('Atkinson Hyperlegible Mono', 'atkinson-hyperlegible-mono', 'AtkinsonHyperlegibleMono'),
];

/**
 * What the house fonts have not, in the order in which they are asked: Greek, Cyrillic and more of Latin, Hebrew,
 * Arabic, symbols, arrows and signs of mathematics.
 */
export const fallbackFonts: readonly FallbackFont[] = [
  ...fallback(
    'Noto Sans',
    'noto-sans',
    'NotoSans',
    'U+00A0-058F, U+0900-097F, U+10FB, U+1AB0-1AFF, U+1C80-1CFF, U+1D00-1FFF, U+2000-218F, U+25CC, U+2C60-2C7F, U+2DE0-2E7F, U+A640-A7FF, U+A8E0-A8FF, U+A92E, U+AB30-AB6F, U+FB00-FB06, U+FE00-FE2F, U+FFFC-FFFD, U+10780-107BF, U+1DF00-1DF2F',
  ),
  ...fallback('Noto Sans Hebrew', 'noto-sans-hebrew', 'NotoSansHebrew', 'U+0590-05FF, U+20AA, U+FB1D-FB4F'),
  // Its letters are whole, so that they can be read back from a PDF; the next draws their dots by themselves.
  ...fallback('Vazirmatn', 'vazirmatn', 'Vazirmatn', 'U+0600-06FF, U+2000-206F, U+FB50-FDFF, U+FE70-FEFF'),
  ...fallback(
    'Noto Sans Arabic',
    'noto-sans-arabic',
    'NotoSansArabic',
    'U+0600-06FF, U+0750-077F, U+0870-08FF, U+FB50-FDFF, U+FE70-FEFF, U+10EC0-10EFF',
  ),
  ...fallback(
    'Noto Sans Symbols',
    'noto-sans-symbols',
    'NotoSansSymbols',
    'U+2000-206F, U+20D0-20FF, U+2100-2BFF, U+1F100-1F1FF, U+1F546-1F6FF, U+1F700-1F77F',
  ),
  ...oneWeight(
    'Noto Sans Math',
    'noto-sans-math',
    'NotoSansMath',
    'U+2030-2070, U+20D0-20FF, U+2100-2BFF, U+3012, U+3030, U+FF5B-FF5D, U+1D400-1D7FF, U+1EE00-1EEFF, U+1F780-1F7FF',
  ),
  ...oneWeight(
    'Noto Sans Symbols 2',
    'noto-sans-symbols-2',
    'NotoSansSymbols2',
    'U+2022-206F, U+2190-2BFF, U+4DC0-4DFF, U+FFF9-FFFB, U+10100-101FF, U+102E0-102FF, U+10E60-10E7F, U+1D2C0-1D37F, U+1F000-1FBFF',
  ),
];

const eastAsian =
  'U+1100-11FF, U+2E80-A4CF, U+A960-A97F, U+AC00-D7FF, U+F900-FAFF, U+FE30-FE4F, U+FF00-FFEF, U+20000-3FFFF';

/**
 * Chinese, Japanese and Korean: large, so added by `npm run fonts:east-asian` where somebody needs them. Characters
 * that these languages share are drawn as mainland Chinese texts have them.
 */
export const eastAsianFonts: readonly FallbackFont[] = [
  ...fallback('Noto Sans SC', 'noto-sans-sc', 'NotoSansSC', eastAsian),
  ...fallback('Noto Sans KR', 'noto-sans-kr', 'NotoSansKR', eastAsian),
];
