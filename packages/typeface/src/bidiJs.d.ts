declare module 'bidi-js' {
  interface Levels {
    /** The embedding level of each UTF-16 unit. */
    levels: Uint8Array;
  }
  interface Bidi {
    getEmbeddingLevels(text: string, direction?: 'ltr' | 'rtl'): Levels;
    getMirroredCharacter(character: string): string | null;
    getBidiCharTypeName(character: string): string;
  }
  /** The Unicode Bidirectional Algorithm (UAX 9). */
  export default function bidiFactory(): Bidi;
}
