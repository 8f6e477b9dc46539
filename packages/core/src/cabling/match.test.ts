import { describe, expect, test } from '@jest/globals';
import { builtInModels } from '../model/catalogue/index.ts';
import { modelTitle } from '../model/kinds.ts';
import { newId } from '../model/ids.ts';
import { Network } from '../model/network.ts';
import { portsOf } from '../model/ports.ts';
import { applyChanges } from '../change/apply.ts';
import { connect, nextFreePort, proposeConnection } from '../commands/cables.ts';
import { deviceNamed, networkOf, portId, smallRoom } from '../testNetwork.ts';
import { bEnds, cableOffers, cableTypes, mismatch, plugFits } from './match.ts';
import { estimateLength } from './length.ts';
import { missingLabels, nextCableLabel } from './labels.ts';

/** The small room with every built-in cable type in its catalogue. */
function room(): Network {
  const network = smallRoom();
  const known = new Set(cableTypes(network).map(modelTitle));
  const draft = network.draft();
  for (const model of builtInModels())
    if (model.form === 'cable' && !known.has(modelTitle(model)))
      draft.put('model', { ...model, id: newId() });
  return draft.finish();
}
const port = (network: Network, title: string) => {
  const found = network.get('port', portId(network, title));
  if (found === null) throw new Error(title);
  return found;
};

describe('what fits', () => {
  test('plugs and ports: an SFP28 cage takes an SFP+ plug, an SFP+ cage no SFP28 plug', () => {
    expect(plugFits('SFP+', 'SFP28')).toBe(true);
    expect(plugFits('SFP28', 'SFP+')).toBe(false);
    expect(plugFits('LC', 'SFP+')).toBe(true);
    expect(plugFits('LC', 'RJ45')).toBe(false);
    expect(plugFits('RJ45', 'RJ45')).toBe(true);
  });

  test('10G cages are joined by twinax within its stock, by fibre beyond', () => {
    const network = room();
    const [a, b] = [port(network, 'kq-core-1:te1/2'), port(network, 'kq-acc-1:te1/50')];
    expect(cableOffers(network, a, b, 2)[0]?.type.name).toBe('twinax 10G');
    expect(cableOffers(network, a, b, 2)[0]?.lengthM).toBe(2);
    const far = cableOffers(network, a, b, 12);
    expect(far.map((offer) => offer.type.name)).toEqual([
      'OM4 duplex LC',
      'OS2 duplex LC',
      'OM5 duplex LC',
      'OM3 duplex LC',
    ]);
    expect(far[0]).toMatchObject({ lengthM: 15 });
  });

  test('copper ends at 100 m and at the speed of its category', () => {
    const network = room();
    const [a, b] = [port(network, 'kq-acc-1:gi1/1'), port(network, 'kq-acc-1:gi1/2')];
    expect(cableOffers(network, a, b, 101)).toEqual([]);
    const tenGig = { ...a, speedBps: 1e10 };
    expect(cableOffers(network, tenGig, { ...b, speedBps: 1e10 }, 5).map((offer) => offer.type.name)).toEqual(
      ['Cat 6A RJ45', 'Cat 7 RJ45'],
    );
  });

  test('reasons: no plug fits, power to data, both give power', () => {
    const network = room();
    const types = cableTypes(network);
    expect(mismatch(types, port(network, 'kq-core-1:te1/2'), port(network, 'kq-acc-1:gi1/1'))).toContain(
      'no cable from SFP28 cage to RJ45',
    );
    expect(mismatch(types, port(network, 'KQ-A1-PDA:o1'), port(network, 'kq-acc-1:gi1/1'))).toBe(
      'power to data',
    );
    expect(mismatch(types, port(network, 'KQ-A1-PDA:o1'), port(network, 'KQ-A1-PDA:o2'))).toBe(
      'both give power',
    );
    expect(mismatch(types, port(network, 'KQ-A1-PDA:o1'), port(network, 'kq-core-1:psu1'))).toBeNull();
  });

  test('B ends: taken ports name their cable, free matching ones have no reason', () => {
    const network = room();
    const ends = bEnds(
      network,
      port(network, 'kq-core-1:te1/2'),
      portsOf(network, deviceNamed(network, 'kq-acc-1').id),
    );
    const reason = (name: string) => ends.find((end) => end.port.name === name)?.refused;
    expect(reason('te1/49')).toBe('KQ-00003');
    expect(reason('te1/50')).toBeNull();
    expect(reason('gi1/1')).toContain('no cable');
  });
});

describe('length, labels, stepping on', () => {
  test('between two racks: up, along the tray, down, slack at both ends', () => {
    const network = room();
    const estimate = estimateLength(
      network,
      deviceNamed(network, 'kq-core-1'),
      deviceNamed(network, 'kq-acc-1'),
    );
    const up = (42 - 38) * 0.04445 + 0.4;
    const down = (42 - 40) * 0.04445 + 0.4;
    expect(estimate?.metres).toBeCloseTo(up + 0.6 + down + 1, 6);
    expect(estimate?.arithmetic).toBe('0.6 up + 0.6 tray + 0.5 down + 2 × 0.5 slack');
  });

  test('between different rooms the way is not known', () => {
    const network = networkOf({
      places: [{ path: 'A' }, { path: 'B' }],
      racks: [
        { name: 'r1', place: 'A' },
        { name: 'r2', place: 'B' },
      ],
      devices: [
        { name: 'x', role: 'SW', rack: 'r1', unit: 1 },
        { name: 'y', role: 'SW', rack: 'r2', unit: 1 },
      ],
    });
    expect(estimateLength(network, deviceNamed(network, 'x'), deviceNamed(network, 'y'))).toBeNull();
  });

  test('the next label is one above the highest of the site', () => {
    const network = room();
    expect(nextCableLabel(network, portId(network, 'kq-acc-1:gi1/1'), 5)).toBe('KQ-00004');
  });

  test('missing labels of a sequence', () => {
    expect(missingLabels(['AH-00016', 'AH-00018', 'AH-00015', 'AH-00021'])).toEqual([
      'AH-00017',
      'AH-00019',
      'AH-00020',
    ]);
    expect(missingLabels(['AH-1', 'AH-2'])).toEqual([]);
  });

  test('eight uplinks are eight presses: both ends step on to the next free port', () => {
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
});
