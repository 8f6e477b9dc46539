import { SaxesParser } from 'saxes';
import type { Readable } from 'node:stream';
import { fromBufferPromise } from 'yauzl';
import { unreadable } from './unreadable.ts';

/** What a workbook (ISO/IEC 29500) may hold, all of its sheets together. */
export const workbookLimits = {
  /** Bytes once unpacked. */
  unpacked: 200 * 1024 * 1024,
  /** Bytes that one packed byte may become, for parts of more than a megabyte. */
  ratio: 250,
  parts: 2000,
  columns: 200,
  cells: 4_000_000,
  mergedRanges: 20_000,
  mergedCells: 1_000_000,
};
const small = 1024 * 1024;

const columnOf = (reference: string): number =>
  [...(/^[A-Z]{1,3}/.exec(reference)?.[0] ?? '')].reduce(
    (sum, letter) => sum * 26 + letter.charCodeAt(0) - 64,
    0,
  );
const rowOf = (reference: string): number => Number(/\d+$/.exec(reference)?.[0] ?? 0);

/** The cells of a range such as B2:D9. */
function areaOf(range: string): number {
  const [from = '', to = from] = range.split(':');
  return (columnOf(to) - columnOf(from) + 1) * (rowOf(to) - rowOf(from) + 1);
}

interface Count {
  cells: number;
  mergedRanges: number;
  mergedCells: number;
}
const told = (count: number): string => count.toLocaleString('en').replaceAll(',', ' ');

/** Counts what a sheet holds while it streams past, without keeping any of it. @throws Refusal beyond a limit */
class SheetGuard {
  private readonly parser = new SaxesParser();
  private cell = '';

  constructor(
    private readonly count: Count,
    private readonly mostRows: number,
  ) {
    this.parser.on('opentag', ({ name, attributes }) => this.take(name.replace(/^.*:/, ''), attributes));
    this.parser.on('doctype', () => {
      throw unreadable('The workbook holds declarations of its own (DOCTYPE), which no workbook needs.');
    });
  }

  private take(name: string, attributes: Readonly<Record<string, string>>): void {
    if (name === 'c') this.takeCell(attributes['r'] ?? '');
    else if ((name === 'v' || name === 'is') && columnOf(this.cell) > workbookLimits.columns)
      throw unreadable(
        `The cell ${this.cell} holds something; at most ${workbookLimits.columns} columns are taken. Delete what stands to the right of the list.`,
      );
    else if (name === 'mergeCell') this.takeMerged(attributes['ref'] ?? '');
  }

  private takeCell(reference: string): void {
    this.cell = reference;
    if (++this.count.cells > workbookLimits.cells)
      throw unreadable(`It has more than ${told(workbookLimits.cells)} cells. Split it and take the parts.`);
    if (rowOf(reference) > this.mostRows)
      throw unreadable(
        `The cell ${reference} stands below row ${told(this.mostRows)}, the last that is taken. Split it, or delete what stands below the list.`,
      );
  }

  private takeMerged(range: string): void {
    this.count.mergedCells += areaOf(range);
    if (++this.count.mergedRanges > workbookLimits.mergedRanges)
      throw unreadable(
        `It has more than ${told(workbookLimits.mergedRanges)} merged ranges. Unmerge the cells of the list.`,
      );
    if (this.count.mergedCells > workbookLimits.mergedCells)
      throw unreadable(
        `The merged range ${range} makes more than ${told(workbookLimits.mergedCells)} cells of one. Unmerge the cells of the list.`,
      );
  }

  async read(stream: AsyncIterable<Buffer>): Promise<void> {
    const decoder = new TextDecoder();
    for await (const chunk of stream) this.parser.write(decoder.decode(chunk, { stream: true }));
    this.parser.write(decoder.decode()).close();
  }
}

/** The bytes of a part as they are unpacked. @throws Refusal beyond what the parts together may have */
async function* counted(
  stream: Readable,
  { packed, before }: { packed: number; before: number },
): AsyncGenerator<Buffer> {
  let size = 0;
  for await (const chunk of stream) {
    const part = chunk as Buffer;
    size += part.length;
    if (before + size > workbookLimits.unpacked)
      throw unreadable(
        `Unpacked it has more than ${workbookLimits.unpacked / 1024 / 1024} MB. Split it and take the parts.`,
      );
    if (size > small && size > packed * workbookLimits.ratio)
      throw unreadable(
        `A part of it becomes more than ${workbookLimits.ratio} times as large when it is unpacked, as no list does.`,
      );
    yield part;
  }
}

/**
 * Unpacks a workbook once, keeping nothing, and refuses what would take more memory or time to read than a list may.
 *
 * @throws Refusal with the limit and the place; whatever is wrong with the archive
 */
export async function guardWorkbook(bytes: Uint8Array, mostRows: number): Promise<void> {
  const count: Count = { cells: 0, mergedRanges: 0, mergedCells: 0 };
  let [parts, unpacked] = [0, 0];
  const archive = await fromBufferPromise(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
  for await (const entry of archive.eachEntry()) {
    if (++parts > workbookLimits.parts)
      throw unreadable(`It has more than ${told(workbookLimits.parts)} parts, as no workbook does.`);
    if (entry.fileName.endsWith('/')) continue;
    const chunks = counted(await archive.openReadStreamPromise(entry), {
      packed: entry.compressedSize,
      before: unpacked,
    });
    if (/(^|\/)worksheets\/[^/]*\.xml$/i.test(entry.fileName))
      await new SheetGuard(count, mostRows).read(chunks);
    else for await (const _chunk of chunks);
    unpacked += entry.uncompressedSize;
  }
}
