/** How a text is set: plain or strong, in the face for words or for names and numbers. */
export type FontFace = 'text' | 'textStrong' | 'mono' | 'monoStrong';
/** Width of a text in the shipped font at a size, in sheet units. */
export type TextMeasure = (text: string, face: FontFace, size: number) => number;
