import { create, update, type Change } from '../change/change.ts';
import { applyChanges } from '../change/apply.ts';
import { kinds, type Kind, type Rows } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';

/** What is wrong in a file, and where: a JSONPath (RFC 9535) such as `$.devices[3].rack`. */
export interface FileProblem {
  path: string;
  message: string;
}

/** Fields of a row that a file calls otherwise. */
const fileNames: Record<string, string> = {
  placeId: 'place',
  rackId: 'rack',
  modelId: 'model',
  typeId: 'type',
  aPortId: 'a',
  bPortId: 'b',
  parentId: 'path',
  deviceId: 'device',
  scopeId: 'scope',
  vrfId: 'vrf',
  vlanId: 'vlan',
  vlanNumberingId: 'vlanNumbering',
  untaggedVid: 'untagged',
  taggedVids: 'tagged',
  voiceVid: 'voice',
  viaPortId: 'out',
  leadsToId: 'leadsTo',
};
const enough = 500;

/**
 * Rows read from a file so far, on top of a network: so that later parts can refer to earlier ones by name. The
 * changes are judged together at the end.
 */
export class Staging {
  readonly problems: FileProblem[] = [];
  private readonly changes: Change[] = [];
  private readonly paths = new Map<string, string>();
  private staged: Network;
  private pending: { kind: Kind; row: Rows[Kind] }[] = [];

  constructor(private readonly base: Network) {
    this.staged = base;
  }

  /** The network with all rows staged so far. */
  get network(): Network {
    if (this.pending.length > 0) {
      const draft = this.staged.passingDraft();
      for (const { kind, row } of this.pending) draft.put(kind, row);
      this.staged = draft.finish();
      this.pending = [];
    }
    return this.staged;
  }

  problem(path: string, message: string): void {
    if (this.problems.length < enough) this.problems.push({ path, message });
  }

  /** Stages a row: created when it is new, updated where it differs. A row may come once in a file. */
  put<K extends Kind>(kind: K, row: Rows[K], path: string): void {
    const earlier = this.paths.get(row.id);
    if (earlier !== undefined) {
      this.problem(
        path,
        `The ${kinds[kind].one} ${kinds[kind].nameOf(row)} stands in the file twice, first at ${earlier}. Keep one of the two.`,
      );
      return;
    }
    this.paths.set(row.id, path);
    const existing = this.base.get(kind, row.id);
    const change = existing === null ? create(kind, row) : update(kind, existing, row);
    if (change !== null) this.changes.push(change);
    this.pending.push({ kind, row });
  }

  finish(): { ok: true; changes: Change[]; network: Network } | { ok: false; problems: FileProblem[] } {
    if (this.problems.length > 0) return { ok: false, problems: this.problems };
    const applied = applyChanges(this.base, this.changes);
    if (applied.ok) return { ok: true, changes: applied.changes, network: applied.network };
    const problems = applied.problems.map((problem) => {
      const path = this.paths.get(problem.id) ?? '$';
      return {
        path: problem.field === null ? path : `${path}.${fileNames[problem.field] ?? problem.field}`,
        message: problem.message,
      };
    });
    return { ok: false, problems };
  }
}
