import { inForce } from '../../lens/inForce.ts';
import { derived } from '../../model/network/derived.ts';
import {
  requirementKinds,
  type Requirement,
  type RequirementKind,
} from '../../model/kinds/review/requirement.ts';
import type { Network } from '../../model/network/network.ts';
import { placeOfRow } from '../placeOf.ts';
import { askedFacts, type AskedFact } from './facts.ts';

/** A row of which facts are asked for. */
export interface Asking {
  kind: RequirementKind;
  id: string;
  placeId: string | null;
  /** Keys of the facts that are asked for and not there, as the facts are listed. */
  missing: string[];
  /** Keys of those that are asked for, there or not. */
  asked: string[];
}
/** How many facts are asked for, and how many are there. */
export interface Share {
  asked: number;
  met: number;
}
export interface Completeness extends Share {
  /** Every row of which anything is asked for. */
  rows: readonly Asking[];
  /** Those of which something is missing. */
  gaps: readonly Asking[];
  /** By place, inner places counted with the outer ones; null: what stands nowhere. */
  places: ReadonlyMap<string | null, Share>;
}

const appliesTo = (requirement: Requirement, row: object): boolean => {
  const facts = new Map<string, unknown>(Object.entries(row));
  const [role, status] = [facts.get('role'), facts.get('status')];
  if (status === 'retired') return false;
  if (requirement.role !== 'any' && requirement.role !== role) return false;
  return requirement.status === 'any' || status === undefined || requirement.status === status;
};

/** The places from a place outwards. */
function outwards(network: Network, placeId: string | null): string[] {
  const found: string[] = [];
  for (
    let place = network.get('place', placeId);
    place !== null;
    place = network.get('place', place.parentId)
  ) {
    if (found.includes(place.id)) break;
    found.push(place.id);
  }
  return found;
}

/** The facts that are asked for of a kind, as they are listed, each with the requirements that ask for it. */
const askedOf = <K extends RequirementKind>(
  network: Network,
  kind: K,
): { fact: AskedFact<K>; by: Requirement[] }[] =>
  askedFacts[kind]
    .map((fact) => ({
      fact,
      by: [...network.all('requirement')].filter((one) => one.on === kind && one.fact === fact.key),
    }))
    .filter(({ by }) => by.length > 0);

class Count {
  readonly rows: Asking[] = [];
  readonly places = new Map<string | null, { asked: number; met: number }>();
  asked = 0;
  met = 0;

  constructor(private readonly network: Network) {}

  kind<K extends RequirementKind>(kind: K): void {
    const facts = askedOf(this.network, kind);
    if (facts.length === 0) return;
    for (const row of inForce(this.network).all(kind)) {
      const judged = facts
        .filter(({ by }) => by.some((requirement) => appliesTo(requirement, row)))
        .map(({ fact }) => ({ key: fact.key, has: fact.has(this.network, row) }))
        .filter(({ has }) => has !== null);
      if (judged.length > 0) this.row(kind, row.id, judged);
    }
  }

  private row(
    kind: RequirementKind,
    id: string,
    judged: readonly { key: string; has: boolean | null }[],
  ): void {
    const placeId = placeOfRow(this.network, { kind, id });
    const missing = judged.filter(({ has }) => has === false).map(({ key }) => key);
    const met = judged.length - missing.length;
    this.asked += judged.length;
    this.met += met;
    const around = outwards(this.network, placeId);
    for (const place of around.length === 0 ? [null] : around) {
      const share = this.places.get(place) ?? { asked: 0, met: 0 };
      this.places.set(place, { asked: share.asked + judged.length, met: share.met + met });
    }
    this.rows.push({ kind, id, placeId, missing, asked: judged.map(({ key }) => key) });
  }
}

/**
 * What the document must say and does not, by what this project asks for; a fact that a row cannot have is not asked
 * for. In no particular order.
 */
export const completenessOf: (network: Network) => Completeness = derived((network): Completeness => {
  const count = new Count(network);
  for (const kind of requirementKinds) count.kind(kind);
  const { asked, met, rows, places } = count;
  return { asked, met, rows, gaps: rows.filter(({ missing }) => missing.length > 0), places };
});
