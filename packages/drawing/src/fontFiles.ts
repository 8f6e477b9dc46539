/** The shipped font files, as module paths: served to the browser and carried inside exported drawings. */
export const fontFiles = [
  {
    family: 'Atkinson Hyperlegible Next',
    weight: 400,
    file: '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf',
  },
  {
    family: 'Atkinson Hyperlegible Next',
    weight: 600,
    file: '@expo-google-fonts/atkinson-hyperlegible-next/600SemiBold/AtkinsonHyperlegibleNext_600SemiBold.ttf',
  },
  {
    family: 'Atkinson Hyperlegible Mono',
    weight: 400,
    file: '@expo-google-fonts/atkinson-hyperlegible-mono/400Regular/AtkinsonHyperlegibleMono_400Regular.ttf',
  },
  {
    family: 'Atkinson Hyperlegible Mono',
    weight: 600,
    file: '@expo-google-fonts/atkinson-hyperlegible-mono/600SemiBold/AtkinsonHyperlegibleMono_600SemiBold.ttf',
  },
] as const;
