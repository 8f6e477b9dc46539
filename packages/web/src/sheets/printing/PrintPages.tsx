import { useEffect, type ReactNode } from 'react';
import { createPortal } from 'react-dom';
import { createGlobalStyle } from 'styled-components';

export interface PaperPages {
  widthMm: number;
  heightMm: number;
  marginMm: number;
  pages: string[];
}

const OnPaper = createGlobalStyle<{ $paper: PaperPages }>`
  @media print {
    @page {
      size: ${({ $paper }) => `${$paper.widthMm}mm ${$paper.heightMm}mm`};
      margin: ${({ $paper }) => $paper.marginMm}mm;
    }
    body > *:not([data-paper]) { display: none !important; }
    [data-paper] > div { overflow: hidden; }
    [data-paper] svg { display: block; width: 100%; height: 100%; }
    html, body { height: auto !important; min-height: 0 !important; margin: 0 !important; overflow: visible !important; background: #fff !important; }
  }
  @media screen {
    [data-paper] { display: none; }
  }
`;

/** The pages of a sheet laid out for paper, and the browser's print called for them. */
export function PrintPages({ paper, onDone }: { paper: PaperPages; onDone: () => void }): ReactNode {
  useEffect(() => {
    const done = (): void => onDone();
    window.addEventListener('afterprint', done);
    const timer = setTimeout(() => window.print(), 150);
    return () => {
      clearTimeout(timer);
      window.removeEventListener('afterprint', done);
    };
  }, [onDone]);
  const width = paper.widthMm - 2 * paper.marginMm;
  const height = paper.heightMm - 2 * paper.marginMm;
  return createPortal(
    <div data-paper="">
      <OnPaper $paper={paper} />
      {paper.pages.map((page, at) => (
        <div
          key={at}
          style={{
            width: `${width}mm`,
            height: `${height - 0.5}mm`,
            breakAfter: at === paper.pages.length - 1 ? 'auto' : 'page',
          }}
          // Our own server made it: every text in it is escaped, and pictures are shown as pictures.
          dangerouslySetInnerHTML={{ __html: page.replace(/^<\?xml[^>]*\?>/, '') }}
        />
      ))}
    </div>,
    document.body,
  );
}
