/** Somebody else's window, as it tells itself. */
export interface Peer {
  peer: string;
  name: string;
  sheetId: string | null;
  at: { x: number; y: number } | null;
  /** Plates and marks selected there. */
  selection: string[];
}
export type Here = Pick<Peer, 'sheetId' | 'at' | 'selection'>;

const pause = 60;
/** A window that says nothing for so long is taken for gone. */
const silent = 60_000;

/** Where the other people are on the sheets. Kept apart from the network: pointers move many times a second. */
export class Presence {
  private peers: readonly Peer[] = [];
  private readonly seen = new Map<string, number>();
  private readonly listeners = new Set<() => void>();
  private sent = 0;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private last = '';

  constructor(private readonly say: (text: string) => void) {}

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly current = (): readonly Peer[] => this.peers;

  private show(peers: readonly Peer[]): void {
    const now = Date.now();
    this.peers = peers.filter((one) => now - (this.seen.get(one.peer) ?? 0) < silent);
    for (const listener of this.listeners) listener();
  }

  take(peer: Peer): void {
    this.seen.set(peer.peer, Date.now());
    const others = this.peers.filter((one) => one.peer !== peer.peer);
    this.show([...others, peer]);
  }
  drop(id: string): void {
    this.show(this.peers.filter((one) => one.peer !== id));
  }
  clear(): void {
    this.show([]);
  }

  /** Says again where this window is: over a line that was opened after it had been said. */
  repeat(): void {
    if (this.last !== '' && this.timer === null) this.say(this.last);
  }

  /** Tells the others where this window is; a few times a second at most, the latest always. */
  tell(here: Here): void {
    const text = JSON.stringify({ type: 'here', ...here, selection: here.selection.slice(0, 6) });
    if (text === this.last) return;
    this.last = text;
    if (this.timer !== null) return;
    const wait = Math.max(0, pause - (Date.now() - this.sent));
    this.timer = setTimeout(() => {
      this.timer = null;
      this.sent = Date.now();
      this.say(this.last);
    }, wait);
  }
}
