import type { Table } from '@visograph/core/report';
import { useEffect, type ReactNode } from 'react';
import { createPortal } from 'react-dom';
import { createGlobalStyle, styled } from 'styled-components';
import { mono } from '../theme/mono.ts';

/** While it is there, paper shows the table alone. */
const OnPaper = createGlobalStyle`
  @media print {
    @page { size: A4 landscape; margin: 12mm; }
    body > *:not([data-paper]) { display: none !important; }
    html, body { height: auto !important; overflow: visible !important; background: #fff !important; }
  }
  @media screen {
    [data-paper] { display: none; }
  }
`;
const Sheet = styled.div`
  color: #16202e;
  font-size: 9.5pt;
  h1 {
    font-size: 13pt;
    margin-bottom: 4mm;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  thead {
    display: table-header-group;
  }
  tr {
    break-inside: avoid;
  }
  th,
  td {
    text-align: left;
    font-weight: 400;
    padding: 1mm 2mm 1mm 0;
    border-bottom: 0.2mm solid #dad4c5;
    vertical-align: top;
  }
  th {
    color: #566273;
  }
  td {
    ${mono}
    overflow-wrap: anywhere;
  }
  .number {
    text-align: right;
  }
`;

/** The whole schedule laid out for paper, and the browser's print called for it. */
export function PrintTable({
  title,
  table,
  onDone,
}: {
  title: string;
  table: Table;
  onDone: () => void;
}): ReactNode {
  useEffect(() => {
    window.addEventListener('afterprint', onDone, { once: true });
    const waiting = requestAnimationFrame(() => window.print());
    return () => {
      cancelAnimationFrame(waiting);
      window.removeEventListener('afterprint', onDone);
    };
  }, [onDone]);
  return createPortal(
    <div data-paper="">
      <OnPaper />
      <Sheet>
        <h1>{title}</h1>
        <table>
          <thead>
            <tr>
              {table.columns.map((column) => (
                <th key={column.key} className={column.numeric === true ? 'number' : undefined}>
                  {column.unit === undefined ? column.label : `${column.label} (${column.unit})`}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {table.rows.map((row, at) => (
              <tr key={`${table.ids[at] ?? ''}${at}`}>
                {table.columns.map((column) => (
                  <td key={column.key} className={column.numeric === true ? 'number' : undefined}>
                    {row[column.key]}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Sheet>
    </div>,
    document.body,
  );
}
