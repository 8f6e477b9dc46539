/** A binary heap of numbers by their key, smallest first; a number may be put in again with a smaller key. */
export class Heap {
  private readonly keys: number[] = [];
  private readonly items: number[] = [];

  get size(): number {
    return this.items.length;
  }

  push(key: number, item: number): void {
    let at = this.items.length;
    this.keys.push(key);
    this.items.push(item);
    while (at > 0) {
      const up = (at - 1) >> 1;
      if ((this.keys[up] ?? 0) <= key) break;
      this.swap(at, up);
      at = up;
    }
  }

  pop(): [key: number, item: number] | null {
    const [key, item] = [this.keys[0], this.items[0]];
    if (key === undefined || item === undefined) return null;
    const last = this.items.length - 1;
    this.swap(0, last);
    this.keys.pop();
    this.items.pop();
    let at = 0;
    for (;;) {
      const left = at * 2 + 1;
      const right = left + 1;
      let least = at;
      if (left < last && (this.keys[left] ?? 0) < (this.keys[least] ?? 0)) least = left;
      if (right < last && (this.keys[right] ?? 0) < (this.keys[least] ?? 0)) least = right;
      if (least === at) return [key, item];
      this.swap(at, least);
      at = least;
    }
  }

  private swap(a: number, b: number): void {
    [this.keys[a], this.keys[b]] = [this.keys[b] ?? 0, this.keys[a] ?? 0];
    [this.items[a], this.items[b]] = [this.items[b] ?? 0, this.items[a] ?? 0];
  }
}
