import { lastVid } from '../model/values/vids.ts';

const words = Math.ceil((lastVid + 1) / 32);

/** A set of VLAN numbers, 0 for untagged frames, as bits: to be joined and compared for thousands at once. */
export class VidSet {
  private constructor(private readonly bits: Uint32Array) {}

  static of(vids: Iterable<number>): VidSet {
    const set = new VidSet(new Uint32Array(words));
    for (const vid of vids) set.add(vid);
    return set;
  }

  /** All numbers, with or without the untagged frames. */
  static all(untagged: boolean): VidSet {
    const set = new VidSet(new Uint32Array(words).fill(0xffffffff));
    for (let vid = lastVid + 1; vid < words * 32; vid++) set.delete(vid);
    if (!untagged) set.delete(0);
    return set;
  }

  has(vid: number): boolean {
    return (((this.bits[vid >> 5] ?? 0) >>> (vid & 31)) & 1) === 1;
  }
  add(vid: number): void {
    this.bits[vid >> 5] = (this.bits[vid >> 5] ?? 0) | (1 << (vid & 31));
  }
  delete(vid: number): void {
    this.bits[vid >> 5] = (this.bits[vid >> 5] ?? 0) & ~(1 << (vid & 31));
  }
  addAll(other: VidSet): void {
    for (let at = 0; at < words; at++) this.bits[at] = (this.bits[at] ?? 0) | (other.bits[at] ?? 0);
  }
  and(other: VidSet): VidSet {
    return new VidSet(this.bits.map((word, at) => word & (other.bits[at] ?? 0)));
  }

  each(visit: (vid: number) => void): void {
    for (let at = 0; at < words; at++) {
      let word = this.bits[at] ?? 0;
      while (word !== 0) {
        const low = 31 - Math.clz32(word & -word);
        visit(at * 32 + low);
        word &= word - 1;
      }
    }
  }

  list(): number[] {
    const found: number[] = [];
    this.each((vid) => found.push(vid));
    return found;
  }
}
