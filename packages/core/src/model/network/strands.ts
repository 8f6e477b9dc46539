import { strandsOf } from '../values/connectors.ts';
import type { CatalogueModel } from '../kinds/equipment/catalogueModel.ts';
import type { Port } from '../kinds/lines/port.ts';
import type { Network } from './network.ts';

/** Strands a port carries by its connector: two behind a duplex plug. */
export const portStrands = (port: Pick<Port, 'connector'>): number =>
  port.connector === null ? 1 : (strandsOf[port.connector] ?? 1);

/** The ports of a cassette that share this common port, in the order of their strands. */
export const fannedFrom = (network: Network, port: Port): Port[] =>
  port.role !== 'panel'
    ? []
    : network
        .find('portsByLeadsTo', port.id)
        .filter((one) => one.leadsToStrand !== null)
        .sort((a, b) => (a.leadsToStrand ?? 0) - (b.leadsToStrand ?? 0));

/** Strands the inside of a cassette connects at its common port; null where the port is no such port. */
export function strandsBehind(network: Network, port: Port): number | null {
  const last = fannedFrom(network, port).at(-1);
  return last === undefined ? null : (last.leadsToStrand ?? 1) + portStrands(last) - 1;
}

/** Strands of one plug of a cable type at the side with this many plugs. */
export const strandsPerLeg = (type: Pick<CatalogueModel, 'strands'>, legs: number): number | null =>
  type.strands === null ? null : Math.ceil(type.strands / legs);

/** Where a strand arrives at the far end of an array cable (TIA-568.3-D clause 6.4, methods A, B, C). */
export function farStrand(strand: number, count: number, polarity: CatalogueModel['polarity']): number {
  if (polarity === 'reversed') return count + 1 - strand;
  if (polarity === 'pairs') return strand % 2 === 1 ? strand + 1 : strand - 1;
  return strand;
}
