import { kinds, type CablingRules, type Kind } from '@visograph/core';
import { Model, type RelationMappings } from 'objection';

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

export class ProjectRow extends Model {
  declare id: string;
  declare name: string;
  declare labelDigits: number;
  declare revision: number;
  declare cabling: CablingRules;
  declare symbols: Record<string, string>;
  static override get tableName(): string {
    return 'project';
  }
  static override get jsonAttributes(): string[] {
    return ['cabling', 'symbols'];
  }
}

export class ChangeSetRow extends Model {
  declare id: string;
  declare projectId: string;
  declare revision: number;
  declare authorId: string | null;
  declare author: string;
  declare at: Date;
  declare state: 'as built';
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

/** Fields kept as jsonb: plain data inside a row. */
export const jsonFields: Partial<Record<Kind, readonly string[]>> = {
  project: ['cabling', 'symbols'],
  portProfile: ['taggedVids'],
  port: ['taggedVids', 'ospf', 'spanningTree'],
  prefix: ['ranges'],
  bgpSession: ['families'],
  siteTemplate: ['parts'],
  rack: ['feeds'],
  model: [
    'portGroups',
    'ends',
    'stockLengthsM',
    'stockPricesMinor',
    'slots',
    'licences',
    'optics',
    'opticStrands',
  ],
  device: ['extra', 'spanningTree'],
  sheet: ['show', 'faded', 'locked', 'reading', 'templates', 'page', 'views', 'groups'],
  sheetLink: ['aLabel', 'bLabel', 'middleLabel', 'bends', 'show'],
  mark: ['points'],
  kit: ['contents'],
};

const rowClass = (kind: Kind): typeof Model =>
  class extends Model {
    static override get tableName(): string {
      return kind;
    }
    static override get jsonAttributes(): string[] {
      return [...(jsonFields[kind] ?? [])];
    }
  };

/** The Objection model of each kind's table. */
export const rowClasses: Record<Kind, typeof Model> = {
  project: ProjectRow,
  vlanGroup: rowClass('vlanGroup'),
  vrf: rowClass('vrf'),
  vlan: rowClass('vlan'),
  portProfile: rowClass('portProfile'),
  place: rowClass('place'),
  rack: rowClass('rack'),
  model: rowClass('model'),
  device: rowClass('device'),
  module: rowClass('module'),
  port: rowClass('port'),
  cable: rowClass('cable'),
  leg: rowClass('leg'),
  circuit: rowClass('circuit'),
  pathway: rowClass('pathway'),
  prefix: rowClass('prefix'),
  address: rowClass('address'),
  route: rowClass('route'),
  bgpSession: rowClass('bgpSession'),
  redundancy: rowClass('redundancy'),
  siteTemplate: rowClass('siteTemplate'),
  sheet: rowClass('sheet'),
  sheetItem: rowClass('sheetItem'),
  sheetLink: rowClass('sheetLink'),
  mark: rowClass('mark'),
  kit: rowClass('kit'),
};

/** The fields of a kind, which are its columns. */
export const fieldsOf = (kind: Kind): string[] => Object.keys(kinds[kind].schema.shape);
