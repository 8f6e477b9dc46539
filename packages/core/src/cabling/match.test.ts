import { describe, expect, test } from '@jest/globals';
import { builtInModels } from '../catalogue/builtIn/index.ts';
import { modelTitle } from '../model/kinds.ts';
import { newId } from '../model/values/ids.ts';
import type { Network } from '../model/network/network.ts';
import { portsOf } from '../model/network/ports.ts';
import { plugsInto } from '../model/network/plugs.ts';
import { applyChanges } from '../change/apply.ts';
import { connect, connectionOf, nextFreePort, proposeConnection } from './commands/cables.ts';
import { deviceNamed, networkOf, portId, smallRoom } from '../testing/testNetwork.ts';
import { bEnds, cableTypes, mismatch, waysToJoin } from './match.ts';

/** A network with the whole built-in catalogue in it. */
function stocked(network: Network): Network {
  const known = new Set([...network.all('model')].map(modelTitle));
  const draft = network.draft();
  for (const model of builtInModels())
    if (!known.has(modelTitle(model))) draft.put('model', { ...model, id: newId() });
  return draft.finish();
}
const room = (): Network => stocked(smallRoom());
const port = (network: Network, title: string) => {
  const found = network.get('port', portId(network, title));
  if (found === null) throw new Error(title);
  return found;
};
const ways = (network: Network, a: string, b: string, metres: number | null) =>
  waysToJoin(network, port(network, a), port(network, b), metres);
const withTransceiver = (network: Network, title: string, model: string): Network => {
  const row = network.findOne('modelByTitle', model.toLowerCase());
  if (row === null) throw new Error(model);
  const draft = network.draft();
  draft.put('port', { ...port(network, title), transceiverId: row.id });
  return draft.finish();
};

describe('plugs and ports', () => {
  test('cages take smaller forms, not larger ones; fibre does not go into copper', () => {
    expect(plugsInto('SFP+', 'SFP28')).toBe(true);
    expect(plugsInto('SFP28', 'SFP+')).toBe(false);
    expect(plugsInto('LC', 'RJ45')).toBe(false);
    expect(plugsInto('LC', 'splice')).toBe(false);
    expect(plugsInto('RJ45', 'splice')).toBe(false);
  });

  test('the reason why two ports cannot be joined', () => {
    const network = room();
    const types = cableTypes(network);
    const why = (a: string, b: string): string | null => mismatch(types, port(network, a), port(network, b));
    expect(why('KQ-A1-PDA:o1', 'kq-acc-1:gi1/1')).toBe('power to data');
    expect(why('KQ-A1-PDA:o1', 'KQ-A1-PDA:o2')).toBe('both give power');
    expect(why('KQ-A1-PDA:o1', 'kq-core-1:psu1')).toBeNull();
    expect(why('kq-acc-1:gi1/1', 'KQ-A1-PP1:F3')).toBe('no cable from RJ45 to LC duplex');
    expect(why('kq-acc-1:gi1/1', 'kq-acc-1:gi1/1')).toBe('the same port');
  });

  test('B ends of a port: used, reserved and unmatched ones with their reason', () => {
    const network = room();
    const draft = network.draft();
    draft.put('port', { ...port(network, 'kq-acc-1:te1/51'), reserved: 'second provider' });
    const reserved = draft.finish();
    const ends = bEnds(
      reserved,
      port(reserved, 'kq-core-1:te1/2'),
      portsOf(reserved, deviceNamed(reserved, 'kq-acc-1').id),
    );
    const reason = (name: string) => ends.find((end) => end.port.name === name)?.refused;
    expect(reason('te1/49')).toBe('KQ-00003');
    expect(reason('te1/50')).toBeNull();
    expect(reason('te1/51')).toBe('reserved: second provider');
    expect(reason('psu1')).toBe('power to data');
  });
});

describe('what fits, best first', () => {
  test('cage to cage: twinax while it reaches, then optics in matched pairs with what they cost', () => {
    const network = room();
    const near = ways(network, 'kq-core-1:te1/2', 'kq-acc-1:te1/50', 2);
    expect(near.fits[0]).toMatchObject({ lengthM: 2, optics: [], speedBps: 1e10, priceMinor: 2000 });
    expect(near.fits[0]?.type.name).toBe('twinax 10G');
    const far = ways(network, 'kq-core-1:te1/2', 'kq-acc-1:te1/50', 11.4);
    const [first] = far.fits;
    expect(first?.type.name).toBe('OM4 duplex LC');
    expect(first?.optics.map(({ model }) => modelTitle(model))).toEqual([
      'Lumenroot SR-10',
      'Lumenroot SR-10',
    ]);
    // 15 m of OM4 at 620 + 15 x 95 cents and two SR-10 at 48 euros.
    expect(first).toMatchObject({ lengthM: 15, speedBps: 1e10, priceMinor: 620 + 15 * 95 + 2 * 4800 });
    const twinax = far.doesNotFit.find(({ type }) => type.name === 'twinax 10G');
    expect(twinax?.reason).toBe('the longest is 5 m, the run is 11.4 m');
  });

  test('a transceiver that is there is used, and the other end gets its match', () => {
    const network = withTransceiver(room(), 'kq-core-1:te1/2', 'Lumenroot LR-10');
    const { fits, doesNotFit } = ways(network, 'kq-core-1:te1/2', 'kq-acc-1:te1/50', 30);
    expect(fits[0]?.type.medium).toBe('OS2');
    expect(fits[0]?.optics.map(({ model, port: at }) => [modelTitle(model), at.name])).toEqual([
      ['Lumenroot LR-10', 'te1/50'],
    ]);
    expect(doesNotFit.find(({ type }) => type.name === 'OM4 duplex LC')?.reason).toContain('single-mode');
    expect(doesNotFit.find(({ type }) => type.name === 'twinax 10G')).toBeDefined();
  });

  test('a bidirectional optic wants the opposite kind; two alike are refused with the wavelength', () => {
    const one = withTransceiver(room(), 'kq-core-1:te1/2', 'Lumenroot BX-10U');
    const { fits } = ways(one, 'kq-core-1:te1/2', 'kq-acc-1:te1/50', 50);
    expect(fits[0]?.optics.map(({ model }) => model.name)).toEqual(['BX-10D']);
    const both = withTransceiver(one, 'kq-acc-1:te1/50', 'Lumenroot BX-10U');
    const wrong = ways(both, 'kq-core-1:te1/2', 'kq-acc-1:te1/50', 50);
    expect(wrong.fits).toEqual([]);
    expect(wrong.doesNotFit.find(({ type }) => type.name === 'OS2 duplex LC')?.reason).toContain(
      'both send on 1270 nm',
    );
  });

  test('through a panel the medium and optic of the run behind decide', () => {
    const network = networkOf({
      places: [{ path: 'S', kind: 'site', code: 'S' }],
      racks: [{ name: 'R1', place: 'S', units: 42 }],
      devices: [
        { name: 'near', model: 'Norvane CR-6032', rack: 'R1', unit: 10 },
        {
          name: 'far',
          model: 'Norvane CR-6032',
          rack: 'R1',
          unit: 20,
          ports: [{ name: 'te1/1', transceiver: 'Lumenroot LR-10' }],
        },
        { name: 'P1', model: 'Lumenroot LP-24LC', rack: 'R1', unit: 40 },
        { name: 'P2', model: 'Lumenroot LP-24LC', rack: 'R1', unit: 41 },
      ],
      cables: [
        { label: 'S-1', type: 'OS2 duplex LC', lengthM: 400, a: 'P1:R1', b: 'P2:R1' },
        { label: 'S-2', type: 'OS2 duplex LC', lengthM: 2, a: 'P2:F1', b: 'far:te1/1' },
      ],
    });
    const { fits, doesNotFit } = ways(stocked(network), 'near:te1/1', 'P1:F1', 2);
    expect(fits[0]?.type.name).toBe('OS2 duplex LC');
    expect(fits[0]?.optics.map(({ model, port: at }) => [model.name, at.name])).toEqual([['LR-10', 'te1/1']]);
    // 404 m at 0.4 dB/km and two mated pairs of 0.75 dB from 6.2 dB.
    expect(fits[0]?.marginDb).toBeCloseTo(6.2 - 0.404 * 0.4 - 1.5, 6);
    expect(doesNotFit.find(({ type }) => type.name === 'OM4 duplex LC')).toBeDefined();
  });

  test('100G into four 25G: one breakout, its legs on the next free ports', () => {
    const network = room();
    const { fits } = ways(network, 'kq-core-1:hu1/31', 'kq-core-1:te1/5', 1);
    const way = fits.find(({ type }) => type.name === 'breakout 100G to 4 × 25G');
    expect(way?.bLegs.map((leg) => leg.name)).toEqual(['te1/6', 'te1/7', 'te1/8']);
    expect(way).toMatchObject({ speedBps: 2.5e10, optics: [] });
    const harness = fits.find(({ type }) => type.name === 'OM4 harness MPO to 4 × LC');
    expect(harness?.optics.map(({ model }) => model.name)).toEqual([
      'SR4-100',
      'SR-25',
      'SR-25',
      'SR-25',
      'SR-25',
    ]);
  });

  test('copper: category by speed and length (TIA-568, IEEE 802.3)', () => {
    const network = room();
    const names = (metres: number): string[] =>
      ways(network, 'kq-acc-1:gi1/1', 'kq-acc-1:gi1/2', metres).fits.map(({ type }) => type.name);
    expect(names(50)[0]).toBe('Cat 6 RJ45');
    expect(names(101)).toEqual([]);
    const draft = network.draft();
    for (const name of ['gi1/1', 'gi1/2'])
      draft.put('port', { ...port(network, `kq-acc-1:${name}`), speedBps: 1e10 });
    const ten = waysToJoin(
      draft.finish(),
      ...(['gi1/1', 'gi1/2'].map((name) => port(draft.finish(), `kq-acc-1:${name}`)) as [never, never]),
      60,
    );
    expect(ten.fits.map(({ type }) => type.name)).toEqual(['Cat 6A RJ45', 'Cat 7 RJ45']);
    expect(ten.doesNotFit.find(({ type }) => type.name === 'Cat 5e RJ45')).toBeDefined();
  });

  test('two fixed ports of the same wiring need a crossed cable, unlike ones a straight one', () => {
    const group = (mdi: 'MDI' | 'MDI-X') => [
      { pattern: 'e1-2', connector: 'RJ45' as const, speedBps: 1e8, mdi },
    ];
    const network = stocked(
      networkOf({
        models: [
          { form: 'device', name: 'host', role: 'IO', portGroups: group('MDI') as never },
          { form: 'device', name: 'hub', role: 'SW', portGroups: group('MDI-X') as never },
        ],
        devices: [
          { name: 'h1', model: 'host' },
          { name: 'h2', model: 'host' },
          { name: 'u1', model: 'hub' },
        ],
      }),
    );
    expect(ways(network, 'h1:e1', 'h2:e1', 3).fits.map(({ type }) => type.name)).toEqual(['Cat 6 crossed']);
    const straight = ways(network, 'h1:e1', 'u1:e1', 3);
    expect(straight.fits.some(({ type }) => type.crossed)).toBe(false);
    expect(straight.doesNotFit.find(({ type }) => type.crossed)?.reason).toBe(
      'the ports need a straight cable',
    );
  });

  test('a trunk of more strands than the cassette connects does not fit, nor is it accepted', () => {
    const network = stocked(
      networkOf({
        models: [
          {
            form: 'cable',
            name: 'trunk 40',
            medium: 'OM4',
            ends: ['MPO', 'MPO'],
            strands: 40,
            stockLengthsM: [10],
          },
        ],
        devices: ['X', 'Y'].map((name) => ({
          name,
          model: 'Lumenroot LP-4C frame',
          modules: [{ slot: 'bay 1', model: 'Lumenroot LC12 cassette' }],
        })),
      }),
    );
    const { fits, doesNotFit } = ways(network, 'X:1R1', 'Y:1R1', 8);
    expect(fits.map(({ type }) => type.name)).toEqual(['OM4 trunk MPO-12', 'OM4 trunk 2 × MPO-12']);
    expect(doesNotFit.find(({ type }) => type.name === 'trunk 40')?.reason).toBe(
      'it brings 40 strands to 1R1, which connects 12',
    );
    const type = network.findOne('modelByTitle', 'trunk 40');
    const [a, b] = [port(network, 'X:1R1'), port(network, 'Y:1R1')];
    const forced = connect(network, { ...connectionOf(network, a, b, null), typeId: type?.id ?? null });
    expect(applyChanges(network, forced.changes)).toMatchObject({
      ok: false,
      problems: [
        { message: expect.stringContaining('40 strands to X:1R1, which connects 12') },
        expect.anything(),
      ],
    });
  });

  test('a powered device above the class of the port works with less, and says so in watts', () => {
    const network = stocked(
      networkOf({
        devices: [
          { name: 'sw', model: 'Norvane AX-2424P' },
          { name: 'ptz', model: 'Pellane Quay PTZ' },
        ],
      }),
    );
    expect(ways(network, 'sw:gi1/1', 'ptz:eth0', 20).fits[0]?.warnings[0]).toContain(
      'asks for PoE class 6 (51 W), sw gi1/1 gives class 4 (25.5 W)',
    );
  });

  test('a cord for more current than its connectors are made for is warned of', () => {
    const network = stocked(
      networkOf({
        models: [
          {
            form: 'device',
            name: 'oven',
            role: 'XX',
            maxPowerW: 2600,
            portGroups: [{ pattern: 'psu1', connector: 'C14', role: 'powerIn' }] as never,
          },
        ],
        devices: [
          { name: 'strip', model: 'Brackwater PS-16' },
          { name: 'oven', model: 'oven' },
        ],
      }),
    );
    const [way] = ways(network, 'strip:o1', 'oven:psu1', 2).fits;
    expect(way?.type.name).toBe('power C13–C14');
    expect(way?.warnings[0]).toBe('oven draws up to 11.3 A, the cord is made for 10 A');
  });
});

test('eight uplinks are eight presses: ports step on, labels count, optics go in', () => {
  let network = room();
  let [a, b] = [port(network, 'kq-acc-1:gi1/1'), port(network, 'kq-acc-1:gi1/25')];
  const used: string[] = [];
  for (let press = 0; press < 8; press++) {
    const applied = applyChanges(network, connect(network, proposeConnection(network, a, b)).changes);
    if (!applied.ok) throw new Error(applied.problems[0]?.message);
    used.push(`${a.name} ${b.name}`);
    network = applied.network;
    const [nextA, nextB] = [nextFreePort(network, a), nextFreePort(network, b)];
    if (nextA === null || nextB === null) throw new Error('no port left');
    [a, b] = [nextA, nextB];
  }
  expect(used.at(-1)).toBe('gi1/8 gi1/32');
  expect(network.findOne('cableByLabel', 'kq-00011')).not.toBeNull();
});
