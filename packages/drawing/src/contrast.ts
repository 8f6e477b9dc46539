/** What graphics must stand out by to be seen (WCAG 2.2, 1.4.11). */
const leastForGraphics = 3;

/** Relative luminance of an sRGB colour "#RRGGBB", 0 to 1 (WCAG 2.2, after IEC 61966-2-1). */
export function luminance(colour: string): number {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map((at) => {
    const value = Number.parseInt(colour.slice(at, at + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

/** Contrast of two colours, 1 to 21. */
export function contrast(a: string, b: string): number {
  const [darker = 0, lighter = 0] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (lighter + 0.05) / (darker + 0.05);
}

/** Whether a line of a colour is hard to see on a ground: it needs an edge then. */
export const fades = (colour: string, ground: string): boolean =>
  /^#[0-9a-f]{6}$/i.test(colour) && contrast(colour, ground) < leastForGraphics;
