import {
  applyChanges,
  recalledWhereTaken,
  type Change,
  type ChangeSet,
  type JournalEntry,
} from '@visograph/core/change';
import { newId, Network, type Problem } from '@visograph/core/model';
import { ApiError, call } from './api.ts';
import { callJob, hearOfJob, type JobNote } from './jobs.ts';
import { Presence, type Peer } from './presence.ts';

export type SaveState = 'loading' | 'saved' | 'saving' | 'offline' | 'signedOut';

export interface Notice {
  tone: 'bad' | 'ok';
  text: string;
}

/** What a project looks like in this window: the network with this window's own unsent edits applied. */
export interface View {
  network: Network;
  revision: number;
  save: SaveState;
  /** Edits not yet confirmed by the server. */
  waiting: number;
  notice: Notice | null;
  failed: string | null;
}

type Edit =
  | { form: 'changes'; id: string; changes: Change[]; sentence: string }
  | { form: 'undo' | 'redo'; id: string };

type LiveMessage =
  | { type: 'entry'; entry: JournalEntry }
  | { type: 'reload'; revision: number }
  | { type: 'moved'; base: number }
  | ({ type: 'peer' } & Peer)
  | { type: 'gone'; peer: string }
  | ({ type: 'job' } & JobNote);
/** With this the server closes a socket when the role of its person has changed. */
const accessChanged = 4001;
const retryAfter = [500, 1000, 2000, 4000];
export type Committed = { ok: true } | { ok: false; problems: Problem[] };

/**
 * Keeps a window in step with one line of history on the server: edits show at once and are sent one after the other; what others do
 * arrives over a socket. An edit the server refuses is taken back with its reason; one that cannot be sent waits,
 * also over a reload of the page.
 */
export class ProjectSync {
  private confirmed = Network.empty();
  private revision = 0;
  private queue: Edit[] = [];
  private view: View = {
    network: this.confirmed,
    revision: 0,
    save: 'loading',
    waiting: 0,
    notice: null,
    failed: null,
  };
  readonly presence = new Presence((text) => {
    if (this.socket?.readyState === WebSocket.OPEN) this.socket.send(text);
  });
  private readonly listeners = new Set<() => void>();
  private socket: WebSocket | null = null;
  private sending = false;
  private closed = false;
  private tries = 0;
  private readonly early: JournalEntry[] = [];
  private readonly storageKey: string;

  /** Waiting edits are kept for the person who made them, not for whoever signs in next. */
  constructor(
    readonly of: { projectId: string; line: string | null },
    accountId: string,
    private readonly onAccess: () => void = () => undefined,
  ) {
    const line = of.line === null ? '' : `.${of.line}`;
    this.storageKey = `visograph.waiting.${of.projectId}${line}.${accountId}`;
  }

  /** What every call says: of which project and line of history. */
  private get asked(): { params: { project: string }; query: { plan: string | undefined } } {
    return { params: { project: this.of.projectId }, query: { plan: this.of.line ?? undefined } };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly current = (): View => this.view;

  private show(part: Partial<View>): void {
    this.view = { ...this.view, ...part, waiting: this.queue.length };
    for (const listener of this.listeners) listener();
  }

  async open(): Promise<void> {
    this.closed = false;
    this.queue = this.restore();
    await this.load();
    if (!this.closed) this.connect();
    void this.send();
  }

  close(): void {
    this.closed = true;
    this.socket?.close();
  }

  private async load(): Promise<void> {
    const asked = this.revision;
    try {
      const reply = await call('GET /projects/:project/network', this.asked);
      // Overtaken by what the socket brought meanwhile. Below what was there before, the database was put back.
      if (reply.revision < this.revision && reply.revision >= asked) return;
      this.confirmed = Network.of(reply.rows);
      this.revision = reply.revision;
      this.tries = 0;
      this.refresh(this.queue.length > 0 ? 'saving' : 'saved');
    } catch (error) {
      if (error instanceof ApiError && error.status === 401) return this.show({ save: 'signedOut' });
      if (error instanceof ApiError && !error.transient) return this.show({ failed: error.detail });
      this.show({ save: 'offline' });
      await this.pause();
      if (!this.closed) await this.load();
    }
  }

  /** The confirmed network with the waiting edits on top. An edit that no longer fits is left to the server to refuse. */
  private refresh(save: SaveState): void {
    let network = this.confirmed;
    for (const edit of this.queue) {
      if (edit.form !== 'changes') continue;
      const applied = applyChanges(network, edit.changes);
      if (applied.ok) network = applied.network;
    }
    this.show({ network, revision: this.revision, save });
  }

  private connect(): void {
    const scheme = location.protocol === 'https:' ? 'wss' : 'ws';
    const { projectId, line } = this.of;
    const plan = line === null ? '' : `?plan=${line}`;
    const socket = new WebSocket(`${scheme}://${location.host}/api/v1/projects/${projectId}/live${plan}`);
    this.socket = socket;
    let opened = false;
    socket.onopen = () => {
      opened = true;
      this.presence.repeat();
      void this.load();
    };
    socket.onmessage = (event) => {
      const message = JSON.parse(String(event.data)) as LiveMessage;
      if (message.type === 'entry') this.take(message.entry);
      else if (message.type === 'peer') this.presence.take(message);
      else if (message.type === 'gone') this.presence.drop(message.peer);
      else if (message.type === 'job') hearOfJob(message);
      else void this.load();
    };
    socket.onclose = ({ code }) => {
      this.presence.clear();
      if (this.closed) return;
      // What one may see here has changed: whether, and as what, is asked anew.
      if (code === accessChanged) {
        this.onAccess();
        void this.load();
      }
      // A line that is refused does not say why.
      if (!opened) void this.judgeAccess();
      // A window that cannot hear the others does not say that all is saved and seen.
      if (opened || this.view.save === 'saved') this.show({ save: 'offline' });
      void this.pause().then(() => {
        if (!this.closed) this.connect();
      });
    };
  }

  /** Whether the person is signed in and belongs to the project still; what is shown follows. */
  private async judgeAccess(): Promise<void> {
    try {
      await call('GET /projects/:project/members', { params: this.asked.params });
    } catch (error) {
      if (!(error instanceof ApiError) || error.transient || this.closed) return;
      if (error.status === 401) return this.show({ save: 'signedOut' });
      this.onAccess();
      this.show({ failed: error.detail });
    }
  }

  /** Takes in an entry of the journal, in order; a gap is closed by loading anew. */
  private take(entry: JournalEntry): void {
    this.queue = this.queue.filter((edit) => edit.id !== entry.id);
    this.keep();
    if (entry.revision > this.revision + 1) {
      this.early.push(entry);
      void this.load().then(() => this.drain());
      return;
    }
    if (entry.revision === this.revision + 1) {
      const applied = applyChanges(this.confirmed, entry.changes);
      if (!applied.ok) return void this.load();
      this.confirmed = applied.network;
      this.revision = entry.revision;
    }
    this.refresh(this.queue.length > 0 ? 'saving' : 'saved');
  }

  private drain(): void {
    const waiting = this.early.splice(0).sort((a, b) => a.revision - b.revision);
    for (const entry of waiting) if (entry.revision > this.revision) this.take(entry);
  }

  /** Makes an edit: shown at once, then sent. Refused here with the reasons when it cannot be. */
  commit(set: ChangeSet): Committed {
    if (set.changes.length === 0) return { ok: true };
    const applied = applyChanges(this.view.network, set.changes);
    if (!applied.ok) return applied;
    if (applied.changes.length === 0) return { ok: true };
    this.queue.push({ form: 'changes', id: newId(), changes: applied.changes, sentence: set.sentence });
    this.keep();
    this.show({
      network: applied.network,
      save: this.view.save === 'offline' ? 'offline' : 'saving',
      notice: null,
    });
    void this.send();
    return { ok: true };
  }

  step(direction: 'undo' | 'redo'): void {
    this.queue.push({ form: direction, id: newId() });
    this.keep();
    this.show({ save: this.view.save === 'offline' ? 'offline' : 'saving', notice: null });
    void this.send();
  }

  dismiss(): void {
    this.show({ notice: null });
  }
  announce(notice: Notice): void {
    this.show({ notice });
  }

  /** Signed in again: everything that waited is sent. */
  async resume(): Promise<void> {
    await this.load();
    if (this.socket === null || this.socket.readyState > WebSocket.OPEN) this.connect();
    void this.send();
  }

  private async send(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    try {
      for (let edit = this.queue[0]; edit !== undefined && !this.closed; edit = this.queue[0]) {
        if (!(await this.sendOne(edit))) return;
      }
    } finally {
      this.sending = false;
    }
  }

  private async sent(edit: Edit): Promise<JournalEntry> {
    const { id } = edit;
    const entry =
      edit.form === 'changes'
        ? await callJob('POST /projects/:project/changes', {
            ...this.asked,
            body: { id, changes: edit.changes, sentence: edit.sentence },
          })
        : await callJob(`POST /projects/:project/${edit.form}`, { ...this.asked, body: { id } });
    return entry as JournalEntry;
  }

  /** True when the edit is settled, one way or the other. */
  private async sendOne(edit: Edit): Promise<boolean> {
    try {
      const entry = await this.sent(edit);
      this.tries = 0;
      this.take(entry);
      if (edit.form !== 'changes') this.show({ notice: { tone: 'ok', text: entry.sentence } });
      return true;
    } catch (error) {
      const failure = error instanceof ApiError ? error : new ApiError(0, String(error), []);
      if (failure.status === 401) {
        this.show({ save: 'signedOut' });
        return false;
      }
      if (failure.transient || failure.busy) {
        this.show({ save: failure.busy ? 'saving' : 'offline' });
        await this.pause();
        return !this.closed;
      }
      // What somebody else wrote meanwhile is there when the person is told to look at it.
      const taken = failure.problems.some((problem) => 'code' in problem && problem.code === 'duplicate');
      if (failure.status === 409 || taken) await this.load();
      const why = taken ? this.callOtherwise(edit) : failure.detail;
      if (why === null) return true;
      this.queue = this.queue.filter((other) => other.id !== edit.id);
      this.keep();
      this.refresh(this.queue.length > 0 ? 'saving' : 'saved');
      this.show({ notice: { tone: 'bad', text: why ?? failure.detail } });
      return true;
    }
  }

  /**
   * Counts proposed names and labels on that somebody else has taken meanwhile, so that the edit is sent once more:
   * nobody loses what they drew over a number that the application chose. Null when it is; else why it cannot be made.
   */
  private callOtherwise(edit: Edit): string | null | undefined {
    if (edit.form !== 'changes') return undefined;
    const { changes, recalled } = recalledWhereTaken(this.confirmed, edit.changes);
    const applied = applyChanges(this.confirmed, changes);
    // A name is the least of it where a port is taken too.
    if (!applied.ok) return applied.problems[0]?.message;
    if (recalled.length === 0) return undefined;
    edit.changes = changes;
    for (const { from, to } of recalled) edit.sentence = edit.sentence.replaceAll(from, to);
    this.keep();
    this.refresh('saving');
    const [first] = recalled;
    const others = recalled.length === 1 ? '' : `, and ${recalled.length - 1} more alike`;
    const text = `${first?.from ?? ''} was taken meanwhile: it is ${first?.to ?? ''} now${others}.`;
    this.show({ notice: { tone: 'ok', text } });
    return null;
  }

  private pause(): Promise<void> {
    const wait = retryAfter[Math.min(this.tries++, retryAfter.length - 1)] ?? 4000;
    return new Promise((resolve) => setTimeout(resolve, wait));
  }

  private keep(): void {
    if (this.queue.length === 0) sessionStorage.removeItem(this.storageKey);
    else sessionStorage.setItem(this.storageKey, JSON.stringify(this.queue));
  }
  private restore(): Edit[] {
    try {
      return JSON.parse(sessionStorage.getItem(this.storageKey) ?? '[]') as Edit[];
    } catch {
      return [];
    }
  }
}
