/** One piece of work after the other under each key; different keys do not wait for each other. */
export class Turns {
  private readonly last = new Map<string, Promise<unknown>>();

  take<T>(key: string, work: () => Promise<T>): Promise<T> {
    const before = this.last.get(key) ?? Promise.resolve();
    const turn = before.then(work, work);
    const settled = turn.catch(() => undefined);
    this.last.set(key, settled);
    void settled.then(() => {
      if (this.last.get(key) === settled) this.last.delete(key);
    });
    return turn;
  }
}
