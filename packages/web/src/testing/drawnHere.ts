/** What jsdom has not of what draws sheets: a worker, whose code runs here, one message after another. */
class Here {
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: unknown = null;
  private ended = false;
  postMessage(data: unknown): void {
    setTimeout(() => void this.work(data), 0);
  }
  terminate(): void {
    this.ended = true;
  }
  private async work(data: unknown): Promise<void> {
    await import('../sheets/drawWorker.ts');
    if (this.ended) return;
    const before = self.postMessage;
    const answers: unknown[] = [];
    Object.assign(self, { postMessage: (answer: unknown) => answers.push(answer) });
    self.onmessage?.(new MessageEvent('message', { data }));
    Object.assign(self, { postMessage: before });
    for (const answer of answers) if (!this.hasEnded()) this.onmessage?.({ data: answer });
  }
  private hasEnded(): boolean {
    return this.ended;
  }
}

export const drawnHere = (): void => void Object.assign(globalThis, { Worker: Here });
