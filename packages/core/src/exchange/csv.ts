import Papa from 'papaparse';

/** The separator of a heading line: whichever of comma, semicolon and tab stands in it most often. */
function separator(text: string): string {
  const heading = /^[^\r\n]*/.exec(text)?.[0] ?? '';
  const count = (one: string): number => heading.split(one).length;
  return [',', ';', '\t'].reduce((best, one) => (count(one) > count(best) ? one : best));
}

/** The cells of a CSV text (RFC 4180, or separated by semicolons or tabs), all as text. */
export function csvRows(text: string): string[][] {
  const plain = text.replace(/^\uFEFF/, '');
  const { data } = Papa.parse<string[]>(plain, { delimiter: separator(plain), skipEmptyLines: false });
  const rows = data.map((row) => row.map(String));
  // Empty rows between others stay, so that rows keep their numbers; those at the end say nothing.
  while (rows.at(-1)?.every((cell) => cell.trim() === '') === true) rows.pop();
  return rows;
}
