import { describe, expect, test } from '@jest/globals';
import { demoNetwork } from '../../testing/testDemo.ts';
import { routedLine } from './numberDrawn.ts';
import { called, changed, drawn } from '../../testing/testDrawn.ts';
import type { Network } from '../../model/network/network.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import { findPort } from '../../model/network/ports.ts';
import { numberingOfPort, vlanNumbered, bridgingOf } from '../../switching/bridges.ts';
import { parseInterface, parsePrefix } from '../../model/values/ip.ts';
import { addressesOf } from '../management.ts';
import { addressOffers, setPortAddress } from './portAddress.ts';

const port = (network: Network, device: string, name: string): Port => {
  const found = findPort(network, device, name);
  if (found === null) throw new Error(`${device} ${name}`);
  return found;
};
/** Two routers with a /29 between them, of which the far end has lost its address. */
function half(): Network {
  const network = drawn({ 'rt-1': 'Generic router', 'rt-2': 'Generic router' });
  const wish = { aDeviceId: called(network, 'rt-1').id, bDeviceId: called(network, 'rt-2').id };
  const line = routedLine(network, wish, { vrfId: null, linksFrom: '10.0.0.0/24', length: 30 });
  if (!line.ok) throw new Error(line.why);
  const made = changed(network, line.changes);
  const back = setPortAddress(made, port(made, 'rt-2', 'eth0'), '');
  if (!back.ok) throw new Error(back.why);
  return changed(made, back.set.changes);
}
const given = (network: Network, device: string): string[] =>
  addressesOf(network, port(network, device, 'eth0').id).map(({ address }) => address);
function set(network: Network, device: string, text: string): Network | string {
  const attempt = setPortAddress(network, port(network, device, 'eth0'), text);
  return attempt.ok ? changed(network, attempt.set.changes) : attempt.why;
}

describe('the address of a port, written where it is drawn', () => {
  test('what fits is the next free one of the subnet at the far end', () => {
    const network = half();
    expect(addressOffers(network, port(network, 'rt-2', 'eth0'))).toEqual([
      { vrfId: null, address: '10.0.0.2/30', why: 'beside rt-1 eth0 · 10.0.0.0/30' },
    ]);
    expect(addressOffers(network, port(network, 'rt-1', 'eth0'))).toEqual([]);
  });

  test('given where there is none, changed in its row where there is one, taken back when emptied', () => {
    const one = set(half(), 'rt-2', '10.0.0.2');
    if (typeof one === 'string') throw new Error(one);
    expect(given(one, 'rt-2')).toEqual(['10.0.0.2/30']);
    const [row] = addressesOf(one, port(one, 'rt-1', 'eth0').id);
    const two = set(one, 'rt-1', '10.9.9.9/24');
    if (typeof two === 'string') throw new Error(two);
    expect(given(two, 'rt-1')).toEqual(['10.9.9.9/24']);
    expect(two.get('address', row?.id ?? null)?.address).toBe('10.9.9.9/24');
    expect(set(two, 'rt-1', '')).not.toBe('');
    expect(set(half(), 'rt-2', '  ')).toBe('rt-2 eth0 has no address.');
  });

  test('what somebody else has, or no address is, is refused with the port that has it', () => {
    const network = half();
    expect(set(network, 'rt-2', '10.0.0.1/30')).toMatch(/^10\.0\.0\.1 is given already to rt-1 eth0\./);
    expect(set(network, 'rt-1', 'ten')).toMatch(/is not an address/);
    expect(given(network, 'rt-1')).toEqual(['10.0.0.1/30']);
  });

  test('in the demo every offer is free, and lies in the subnet of its VLAN or of its far end', () => {
    const network = demoNetwork();
    let offered = 0;
    for (const one of network.all('port')) {
      const far = network.get('port', bridgingOf(network).farOf(one.id));
      if (far?.mode !== 'access') continue;
      for (const { address, why } of addressOffers(network, one)) {
        offered++;
        const read = parseInterface(address);
        const inside = parsePrefix(why.slice(why.lastIndexOf(' ') + 1));
        if (read === null || inside === null) throw new Error(address);
        const shift = BigInt((inside.family === 4 ? 32 : 128) - inside.length);
        expect(network.find('addressesByHost', address.split('/')[0] ?? '')).toEqual([]);
        expect(read.address.value >> shift).toBe(inside.value >> shift);
        const vlan = vlanNumbered(network, numberingOfPort(network, far), far.untaggedVid ?? 0);
        if (why.startsWith('VLAN')) expect(why).toContain(vlan?.name ?? 'none');
      }
    }
    expect(offered).toBeGreaterThan(20);
  });
});
