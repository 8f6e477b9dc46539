import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** What a reader of PDF finds in a file; sizes in points. */
export interface ReadPdf {
  pages: { text: string; width: number; height: number }[];
  bookmarks: string[];
  /** From page to page within the file, counted from 0. */
  links: { from: number; to: number }[];
}

export async function readPdf(bytes: Uint8Array): Promise<ReadPdf> {
  const document = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  const pages: ReadPdf['pages'] = [];
  const links: ReadPdf['links'] = [];
  for (let number = 1; number <= document.numPages; number++) {
    const page = await document.getPage(number);
    const { items } = await page.getTextContent();
    const [, , width = 0, height = 0] = page.view;
    for (const { dest } of (await page.getAnnotations()) as { dest?: string }[]) {
      const [target] = (dest === undefined ? null : await document.getDestination(dest)) ?? [];
      if (target !== undefined) links.push({ from: number - 1, to: await document.getPageIndex(target) });
    }
    pages.push({ text: items.map((item) => ('str' in item ? item.str : '')).join(' '), width, height });
  }
  const outline = (await document.getOutline()) as { title: string }[] | null;
  return { pages, bookmarks: (outline ?? []).map((one) => one.title), links };
}
