import type { ExchangeFile } from '../exchange/format.ts';
import type { Network } from '../model/network/network.ts';
import { switched } from './testSwitching.ts';

type PortEntry = NonNullable<NonNullable<ExchangeFile['devices']>[number]['ports']>[number];

/** A link of a routed test network: between two routers by number, with the cost in either direction. */
export interface TestLink {
  a: number;
  b: number;
  cost: number;
  area?: string;
  back?: number;
}

const between = (at: number, end: 0 | 1): string =>
  `10.${Math.floor(at / 32768)}.${Math.floor((at % 32768) / 128)}.${(at % 128) * 2 + end}/31`;
export const loopbackOf = (router: number): string => `10.255.${Math.floor(router / 256)}.${router % 256}/32`;

/** Routers r0, r1 … with a loopback each in its area, joined by point-to-point links of OSPF. */
export function routedNetwork(
  routers: number,
  links: readonly TestLink[],
  {
    areaOf = () => '0',
    loopbacks = {},
    ranges = {},
  }: {
    areaOf?: (router: number) => string;
    loopbacks?: Record<number, string>;
    /** Prefixes that a router discards, and so tells as ranges. */
    ranges?: Record<number, string[]>;
  } = {},
): Network {
  const ports = Array.from({ length: routers }, (_, at): PortEntry[] => [
    {
      name: 'lo0',
      form: 'loopback',
      vrf: 'ops',
      addresses: [loopbacks[at] ?? loopbackOf(at)],
      ospf: { area: areaOf(at), cost: null, passive: true, network: 'broadcast' },
    },
  ]);
  links.forEach(({ a, b, cost, back, area = '0' }, at) => {
    for (const [end, router] of [a, b].entries())
      ports[router]?.push({
        name: `e${at}`,
        mode: 'routed',
        vrf: 'ops',
        addresses: [between(at, end === 0 ? 0 : 1)],
        ospf: { area, cost: end === 0 ? cost : (back ?? cost), passive: false, network: 'point-to-point' },
      });
  });
  return switched(
    Object.fromEntries(
      ports.map((list, at) => [
        `r${at}`,
        {
          role: 'RT',
          ports: list,
          routes: (ranges[at] ?? []).map((prefix) => ({ vrf: 'ops', prefix, discard: true })),
        },
      ]),
    ),
    links.map(({ a, b }, at) => [`r${a}:e${at}`, `r${b}:e${at}`] as const),
  );
}
