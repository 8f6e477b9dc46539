import { describe, expect, test } from '@jest/globals';
import { switched } from '../../testing/testSwitching.ts';
import { foundIn } from '../../testing/testFindings.ts';

const found = (rule: string, devices: Parameters<typeof switched>[0], links: [string, string][]): string[] =>
  foundIn(switched(devices, links))
    .filter((finding) => finding.rule === rule)
    .map((finding) => finding.message);

const port = (name: string, address: string, ospf?: object): never =>
  ({
    name,
    mode: 'routed',
    vrf: 'ops',
    addresses: [address],
    ...(ospf === undefined ? {} : { ospf }),
  }) as never;

describe('routing that does not add up', () => {
  test('neighbours in two areas are told once, also where both have IPv6', () => {
    const both = (last: number, area: string): never =>
      ({
        name: 'e0',
        mode: 'routed',
        vrf: 'ops',
        addresses: [`10.1.0.${last}/31`, `2001:db8::${last + 2}/127`],
        ospf: { area, network: 'point-to-point' },
      }) as never;
    expect(
      found(
        'ospf-mismatch',
        { r1: { role: 'RT', ports: [both(0, '0')] }, r2: { role: 'RT', ports: [both(1, '1')] } },
        [['r1:e0', 'r2:e0']],
      ),
    ).toEqual([
      'r1:e0 and r2:e0 are on one subnet but do not become neighbours: one is in area 0, the other in area 1. Set both alike.',
    ]);
  });

  test('a static route without a way to its next hop, and one whose next hop nobody has', () => {
    const devices = {
      r1: {
        role: 'RT',
        ports: [port('e0', '10.1.0.1/29')],
        routes: [
          { vrf: 'ops', prefix: '10.9.0.0/16', via: '10.7.0.1' },
          { vrf: 'ops', prefix: '10.8.0.0/16', via: '10.1.0.3' },
          { vrf: 'ops', prefix: '10.6.0.0/16', via: '10.1.0.2' },
        ],
      },
      r2: { role: 'RT', ports: [port('e0', '10.1.0.2/29')] },
    };
    const links: [string, string][] = [['r1:e0', 'r2:e0']];
    expect(found('route-unreachable', devices, links)).toEqual([
      'The route of r1 to 10.9.0.0/16 is not used: no route leads to the next hop 10.7.0.1. Correct the next hop, or give the device an address in its subnet.',
    ]);
    expect(found('next-hop-nobody', devices, links)).toEqual([
      'The route of r1 to 10.8.0.0/16 leads to 10.1.0.3, which no device has. Give the address to the next router, or correct the route.',
    ]);
  });

  test('of several equal next hops each that nobody has is told', () => {
    const devices = {
      r1: {
        role: 'RT',
        ports: [port('e0', '10.1.0.1/29')],
        routes: [
          { vrf: 'ops', prefix: '10.8.0.0/16', via: '10.1.0.2' },
          { vrf: 'ops', prefix: '10.8.0.0/16', via: '10.1.0.3' },
          { vrf: 'ops', prefix: '10.8.0.0/16', via: '10.1.0.4' },
        ],
      },
      r2: { role: 'RT', ports: [port('e0', '10.1.0.2/29')] },
    };
    const told = found('next-hop-nobody', devices, [['r1:e0', 'r2:e0']]);
    expect(told.map((message) => /leads to (\S+),/.exec(message)?.[1]).sort()).toEqual([
      '10.1.0.3',
      '10.1.0.4',
    ]);
  });
});
