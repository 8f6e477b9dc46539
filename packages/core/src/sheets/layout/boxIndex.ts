import { overlap, type Box } from '../scene/scene.ts';

// Taken once: where globals are intercepted, as in tests, each look-up costs more than what is computed.
const { floor } = Math;

const cell = 160;

/** Boxes by where they are, so that what a box meets is found without looking at all of them. */
export class BoxIndex<T> {
  private readonly cells = new Map<number, { box: Box; of: T }[]>();

  private *keys({ x, y, width, height }: Box): Generator<number> {
    const [left, right] = [floor(x / cell), floor((x + width) / cell)];
    const [top, bottom] = [floor(y / cell), floor((y + height) / cell)];
    for (let row = top; row <= bottom; row++)
      for (let column = left; column <= right; column++) yield (row + 20_000) * 40_000 + column + 20_000;
  }

  add(box: Box, of: T): void {
    for (const key of this.keys(box)) {
      const there = this.cells.get(key);
      if (there === undefined) this.cells.set(key, [{ box, of }]);
      else there.push({ box, of });
    }
  }

  /** Whether any box that is counted meets this one. */
  meets(box: Box, counts: (of: T) => boolean = () => true): boolean {
    for (const key of this.keys(box))
      for (const one of this.cells.get(key) ?? []) if (overlap(one.box, box) && counts(one.of)) return true;
    return false;
  }
}
