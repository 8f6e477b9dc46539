import Papa from 'papaparse';

/** The cells of a CSV text (RFC 4180; comma, semicolon or tab are told apart), all as text. */
export const csvRows = (text: string): string[][] =>
  Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: false }).data.map((row) =>
    row.map(String),
  );
