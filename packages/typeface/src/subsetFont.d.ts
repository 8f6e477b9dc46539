declare module 'subset-font' {
  /** The font with the glyphs that a text needs and nothing else. */
  export default function subsetFont(
    font: Buffer,
    text: string,
    options?: { targetFormat?: 'truetype' | 'woff2' },
  ): Promise<Buffer>;
}
