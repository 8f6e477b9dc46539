import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyChanges } from '../../change/apply.ts';
import { layer2Of } from '../layer2.ts';
import { linkMatrix, matrixVlans, switchMatrix } from '../vlanMatrix.ts';
import type { PortSwitching } from '../../model/kinds/logical/vlan.ts';
import { switchingFaults } from '../../model/kinds/logical/vlan.ts';
import type { Network } from '../../model/network/network.ts';
import { access, switched, trunk } from '../../testing/testSwitching.ts';
import { interpretLine } from '../../commands/line.ts';
import { deleteVlan } from './vlans.ts';
import { applyProfile, bridgeNamed, carryVlan, marked, markOf, vlanMarks } from './vlanMarks.ts';

/** An access switch, a distribution switch and a core pair; the far end of one uplink misses VLAN 40. */
const chain = (): Network =>
  switched(
    {
      acc: { ports: [trunk('u1', [10, 20, 40], 999), access('g1', 40), access('g2', 20)] },
      dist: { ports: [trunk('d1', [10, 20], 999), trunk('u1', [10, 20]), trunk('u2', [10, 20])] },
      'core-1': { stack: 'core', ports: [trunk('d1', [10, 20])] },
      'core-2': { stack: 'core', ports: [trunk('d1', [10, 20]), access('x', 20)] },
      lone: { ports: [access('g1', 20)] },
      blunt: { ports: [access('g1', 20), trunk('u1', 'all')] },
      side: { ports: [trunk('g1', [20])] },
    },
    [
      ['acc:u1', 'dist:d1'],
      ['dist:u1', 'core-1:d1'],
      ['dist:u2', 'core-2:d1'],
      ['core-2:x', 'side:g1'],
    ],
    { portProfiles: [{ name: 'Camera port', mode: 'access', untagged: 40 }] } as never,
  );
const bridge = (network: Network, name: string) => {
  const found = bridgeNamed(network, name);
  if (found === null) throw new Error(name);
  return found;
};
const portOf = (network: Network, device: string, name: string) => {
  const port = network.findOne('portByName', `${network.findOne('deviceByName', device)?.id ?? ''}:${name}`);
  if (port === null) throw new Error(name);
  return port;
};

describe('carry a VLAN along a path', () => {
  test('every trunk on the way takes it at both ends, parallel links too; those that have it stay', () => {
    const network = chain();
    const carry = carryVlan(network, bridge(network, 'acc'), bridge(network, 'core-2'), 40);
    if (!carry.ok || !carry.attempt.ok) throw new Error('cannot be carried');
    expect(carry.way.map((one) => one.name)).toEqual(['acc', 'dist', 'core']);
    expect(carry.attempt.set.sentence).toBe('Carried VLAN 40 Cameras from acc to core over 5 ports');
    const applied = applyChanges(network, carry.attempt.set.changes);
    if (!applied.ok) throw new Error('refused');
    expect(portOf(applied.network, 'dist', 'd1').taggedVids).toEqual([10, 20, 40]);
    expect(portOf(applied.network, 'core-1', 'd1').taggedVids).toEqual([10, 20, 40]);
    const layer2 = layer2Of(applied.network);
    expect(layer2.sameDomain(bridge(applied.network, 'acc'), 40, bridge(applied.network, 'core'), 40)).toBe(
      true,
    );
    const again = carryVlan(
      applied.network,
      bridge(applied.network, 'acc'),
      bridge(applied.network, 'core'),
      40,
    );
    expect(again.ok && !again.attempt.ok && again.attempt.why).toBe(
      'Every trunk from acc to core carries VLAN 40 Cameras already.',
    );
  });

  test('an access port in between, no way at all, one switch alone: told', () => {
    const network = chain();
    const why = (from: string, to: string): string | false => {
      const carry = carryVlan(network, bridge(network, from), bridge(network, to), 40);
      return !carry.ok ? carry.why : !carry.attempt.ok && carry.attempt.why;
    };
    expect(why('core', 'side')).toBe(
      'core-2 x is an access port, which sends VLAN 20 untagged: make it a trunk first.',
    );
    expect(why('acc', 'lone')).toBe('No link leads from acc to lone.');
    expect(why('core-1', 'core-2')).toBe('core is one switch: there is no way to carry it over.');
  });

  test('by the command line, with what it would change before it does', () => {
    const network = chain();
    const [option] = interpretLine(network, 'carry vlan 40 from acc to core');
    expect(option).toMatchObject({
      does: 'change',
      title: 'Carry VLAN 40: acc – dist – core',
      detail: 'adds it at dist d1, dist u1, core-1 d1, dist u2, core-2 d1',
    });
    expect(interpretLine(network, 'carry 5000 from acc to core')[0]).toMatchObject({
      does: 'refuse',
      detail: '5000 is not a VLAN number: they go from 1 to 4094.',
    });
    expect(interpretLine(network, 'carry 40 from acc to nowhere')[0]).toMatchObject({
      detail: 'There is no switch or pair nowhere.',
    });
  });
});

describe('port profiles', () => {
  test('are set on ranges of ports in one step, and refused by name', () => {
    const network = chain();
    const [option] = interpretLine(network, 'set acc g1-2 as camera');
    expect(option).toMatchObject({ title: 'Set 2 ports as Camera port', detail: 'access, untagged 40' });
    const applied = option?.does === 'change' ? applyChanges(network, option.set.changes) : null;
    expect(applied?.ok === true && portOf(applied.network, 'acc', 'g2').untaggedVid).toBe(40);
    expect(interpretLine(network, 'set acc g1 as desk')[0]).toMatchObject({
      detail: 'There is no port profile “desk”. There are: Camera port.',
    });
    const profile = [...network.all('portProfile')][0];
    const same =
      profile === undefined ? null : applyProfile(network, [portOf(network, 'acc', 'g1')], profile);
    expect(same).toEqual({ ok: false, why: 'They are set as Camera port already.' });
  });
});

describe('the matrix', () => {
  test('links show both ends, switches what any port does', () => {
    const network = chain();
    const layer2 = layer2Of(network);
    const vlans = matrixVlans(network, network.findOne('vlanNumberingByName', 'shore')?.id ?? '');
    const devices = [...network.all('device')];
    const links = linkMatrix(layer2, devices, vlans);
    const row = links.find((one) => one.label === 'acc u1');
    expect(row?.detail).toBe('dist d1');
    expect(row?.cells.map(({ vid, mark, ends }) => `${vid} ${mark ?? ends?.join('')}`)).toEqual([
      '10 T',
      '20 T',
      '40 T-',
      '50 -',
      '999 U',
    ]);
    const acc = switchMatrix(layer2, devices, vlans).find((one) => one.label === 'acc');
    expect(acc?.cells.map(({ vid, mark, count }) => `${vid} ${mark ?? ''}${count}`)).toEqual([
      '10 T1',
      '20 U2',
      '40 U2',
      '50 -0',
      '999 U1',
    ]);
    expect(acc?.ends.map((end) => `${end.bridge.name} ${end.port.name}`)).toEqual(['acc u1', 'dist d1']);
  });
});

describe('deleting VLANs', () => {
  test('with the last of a numbering that no place names the numbering goes; otherwise it stays', () => {
    const network = switched({ a: { ports: [trunk('t', [20])] } }, [], {
      vlanNumberings: [
        { name: 'shore', vlans: [{ vid: 20, name: 'Operations' }] },
        { name: 'vessels', vlans: [] },
        { name: 'trial', vlans: [{ vid: 5, name: 'Trial' }] },
      ],
    });
    const groupsAfter = (vid: number): number => {
      const vlan = [...network.all('vlan')].find((one) => one.vid === vid);
      const attempt = vlan === undefined ? null : deleteVlan(network, vlan);
      const applied = attempt?.ok === true ? applyChanges(network, attempt.set.changes) : null;
      return applied?.ok === true ? applied.network.count('vlanNumbering') : -1;
    };
    expect([groupsAfter(5), groupsAfter(20)]).toEqual([2, 3]);
  });
});

describe('properties', () => {
  const vid = fc.integer({ min: 1, max: 12 });
  const setting: fc.Arbitrary<PortSwitching> = fc.oneof(
    fc
      .record({ untaggedVid: fc.option(vid), voiceVid: fc.option(vid) })
      .filter(({ untaggedVid, voiceVid }) => voiceVid === null || voiceVid !== untaggedVid)
      .map((one): PortSwitching => ({ ...one, mode: 'access', taggedVids: null })),
    fc
      .record({ untaggedVid: fc.option(vid), tagged: fc.uniqueArray(vid) })
      .map(({ untaggedVid, tagged }): PortSwitching => ({
        mode: 'trunk',
        untaggedVid,
        taggedVids: tagged.filter((one) => one !== untaggedVid).sort((a, b) => a - b),
        voiceVid: null,
      })),
  );

  test('a mark that is taken is what the port then says; the others stay; nothing contradicts itself', () => {
    fc.assert(
      fc.property(setting, vid, fc.constantFrom(...vlanMarks), (port, number, mark) => {
        const next = marked(port, number, mark);
        if (typeof next === 'string') {
          expect(port.mode).toBe('access');
          return;
        }
        expect(markOf(next, number)).toBe(mark);
        expect(switchingFaults(next)).toEqual([]);
        for (let other = 1; other <= 12; other++) {
          const replaced = mark === 'U' && markOf(port, other) === 'U';
          if (other !== number && !replaced) expect(markOf(next, other)).toBe(markOf(port, other));
        }
      }),
    );
  });
});
