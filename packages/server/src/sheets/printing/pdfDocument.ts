import PDFDocument from 'pdfkit';
import { eastAsianPaths, fallbackPaths, housePaths } from '@visograph/typeface';
import { shape } from './shapedFont.ts';

export type PdfDocument = PDFKit.PDFDocument;

const fonts = [...housePaths, ...fallbackPaths, ...eastAsianPaths];

const registeredAs = (family: string, bold: boolean): string => `${family} ${bold ? 600 : 400}`;

/** The registered name of a font as the drawing asks for it: by a family, or by several of which the first counts. */
function fontName(asked: string, bold: boolean): string {
  const first = asked.split(',')[0]?.replace(/['"]/g, '').trim() ?? '';
  const known = fonts.find(({ family }) => family === first) ?? housePaths[0];
  return registeredAs(known?.family ?? first, bold);
}

const shaped = new WeakSet<object>();

/** The font that is set at present, made fit for the writer of drawings. */
function shapeOnce(document: PdfDocument): void {
  const { _font: font } = document as unknown as { _font: object };
  if (shaped.has(font)) return;
  shaped.add(font);
  shape(font);
}

/** Sets the font of a family, or of the first of several that is there; gives the name it is registered by. */
export function setFont(document: PdfDocument, family: string, bold: boolean): string {
  const name = fontName(family, bold);
  shapeOnce(document.font(name));
  return name;
}

/** A PDF (ISO 32000) with all fonts at hand; `finish` closes it and gives its bytes. */
export function beginPdf(
  title: string,
  options: { bufferPages?: boolean } = {},
): { document: PdfDocument; finish: () => Promise<Buffer> } {
  const document = new PDFDocument({
    ...options,
    autoFirstPage: false,
    info: { Title: title, Creator: 'Visograph', Producer: 'Visograph' },
    lang: 'en',
  });
  const parts: Buffer[] = [];
  document.on('data', (part: Buffer) => parts.push(part));
  const finished = new Promise<Buffer>((resolve, reject) => {
    document.on('end', () => resolve(Buffer.concat(parts)));
    document.on('error', reject);
  });
  for (const { family, weight, path } of fonts)
    document.registerFont(registeredAs(family, weight === 600), path);
  return {
    document,
    finish: () => {
      document.end();
      return finished;
    },
  };
}
