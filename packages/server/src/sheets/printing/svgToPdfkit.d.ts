declare module 'svg-to-pdfkit' {
  /** Draws an SVG document onto the current page. */
  export default function SVGtoPDF(
    document: PDFKit.PDFDocument,
    svg: string,
    x: number,
    y: number,
    options?: {
      width?: number;
      height?: number;
      preserveAspectRatio?: string;
      assumePt?: boolean;
      fontCallback?: (family: string, bold: boolean, italic: boolean) => string;
    },
  ): void;
}
