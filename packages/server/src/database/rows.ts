import type { Lane, schemas } from '@visograph/api';
import { columnsOf, kindNames, type CablingRules, type Kind } from '@visograph/core/model';
import { Model, type RelationMappings } from 'objection';
import type { z } from 'zod';

export type MemberRole = 'owner' | 'editor' | 'reader';

export class Account extends Model {
  declare id: string;
  declare email: string;
  declare name: string;
  declare passwordHash: string;
  static override get tableName(): string {
    return 'account';
  }
}

export class Membership extends Model {
  declare projectId: string;
  declare accountId: string;
  declare role: MemberRole;
  /** The newest revision that the member has seen. */
  declare seen: number | null;
  declare account?: Account;
  static override get tableName(): string {
    return 'membership';
  }
  static override get idColumn(): string[] {
    return ['projectId', 'accountId'];
  }
  static override get relationMappings(): RelationMappings {
    return {
      account: {
        relation: Model.BelongsToOneRelation,
        modelClass: Account,
        join: { from: 'membership.accountId', to: 'account.id' },
      },
    };
  }
}

/** Asks somebody into a project, by a link whose key is known to them alone. */
export class Invitation extends Model {
  declare id: string;
  declare projectId: string;
  declare email: string;
  declare role: MemberRole;
  declare keyHash: string;
  declare madeBy: string;
  declare until: Date;
  static override get tableName(): string {
    return 'invitation';
  }
}

export class PasswordReset extends Model {
  declare accountId: string;
  declare keyHash: string;
  declare until: Date;
  static override get tableName(): string {
    return 'passwordReset';
  }
  static override get idColumn(): string {
    return 'accountId';
  }
}

export class ProjectRow extends Model {
  declare id: string;
  declare name: string;
  declare labelDigits: number;
  declare revision: number;
  declare cabling: CablingRules;
  declare symbols: Record<string, string>;
  declare archivedAt: Date | null;
  declare deletedAt: Date | null;
  static override get tableName(): string {
    return 'project';
  }
  static override get jsonAttributes(): string[] {
    return jsonFieldsOf('project');
  }
}

/** A plan: a line of history over as built. */
export class LineRow extends Model {
  declare id: string;
  declare projectId: string;
  declare name: string;
  declare purpose: string | null;
  declare revision: number;
  declare madeBy: string;
  declare madeAt: Date;
  declare thrownAwayAt: Date | null;
  declare thrownAwayBy: string | null;
  static override get tableName(): string {
    return 'line';
  }
}

export class ChangeSetRow extends Model {
  declare id: string;
  declare projectId: string;
  declare revision: number;
  declare authorId: string | null;
  declare author: string;
  declare at: Date;
  /** The plan; null: as built. */
  declare lineId: string | null;
  /** The revision of as built that an entry of a plan was made over. */
  declare base: number | null;
  declare sentence: string;
  declare changes: unknown;
  declare undoes: number | null;
  declare redoes: number | null;
  static override get tableName(): string {
    return 'changeSet';
  }
  static override get jsonAttributes(): string[] {
    return ['changes'];
  }
}

/** A piece of work outside the web process; the large columns `input` and `result` are read by name. */
export class JobRow extends Model {
  declare id: string;
  declare accountId: string;
  declare projectId: string | null;
  declare call: string;
  declare lane: Lane;
  declare asked: { params: Record<string, string>; query: Record<string, string> };
  declare input: Buffer | null;
  /** Held: the person has another one before it. Writing: it can no longer be stopped. */
  declare state: 'held' | 'queued' | 'running' | 'writing' | 'done' | 'failed' | 'cancelled';
  /** The server whose process does it, as its sessions name themselves. */
  declare server: string | null;
  declare tries: number;
  declare done: number;
  declare of: number;
  declare refusal: z.infer<typeof schemas.problemDocument> | null;
  declare result: Buffer | null;
  declare resultType: string | null;
  declare resultName: string | null;
  declare madeAt: Date;
  declare endedAt: Date | null;
  static override get tableName(): string {
    return 'job';
  }
  static override get jsonAttributes(): string[] {
    return ['asked', 'refusal'];
  }
}

/** The fields of a kind, which are its columns. */
export const fieldsOf = (kind: Kind): string[] => columnsOf(kind).map(({ field }) => field);

/** Fields kept as jsonb: plain data inside a row. */
export const jsonFieldsOf = (kind: Kind): string[] =>
  columnsOf(kind)
    .filter(({ storage }) => storage === 'json')
    .map(({ field }) => field);

const rowClass = (kind: Kind): typeof Model =>
  class extends Model {
    static override get tableName(): string {
      return kind;
    }
    static override get jsonAttributes(): string[] {
      return jsonFieldsOf(kind);
    }
  };

/** The Objection model of each kind's table. */
const rowClasses: ReadonlyMap<Kind, typeof Model> = new Map(
  kindNames.map((kind) => [kind, kind === 'project' ? ProjectRow : rowClass(kind)]),
);
export function rowClassOf(kind: Kind): typeof Model {
  const found = rowClasses.get(kind);
  if (found === undefined) throw new Error(`There is no table of the kind ${kind}.`);
  return found;
}

/** A name as the tables have it. */
export const snake = (name: string): string =>
  name.replaceAll(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);
