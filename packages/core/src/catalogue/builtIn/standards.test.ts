import { expect, test } from '@jest/globals';
import { poeClasses } from '../../cabling/poeClasses.ts';
import { modelSchema } from '../../model/kinds/equipment/catalogueModel.ts';
import { builtInModels } from './index.ts';
import { transceivers } from './transceivers.ts';

/**
 * IEEE 802.3-2022, typed from its tables: launch average least, received average least (dBm), reach in metres, and the
 * loss that the clause allows the channel at that reach (dB).
 */
const clauses: Record<string, [launch: number, received: number, reachM: number, channelDb: number | null]> =
  {
    '1000BASE-SX': [-9.5, -17, 550, null],
    '1000BASE-LX': [-11, -19, 5000, null],
    '1000BASE-LX10': [-9, -19.5, 10000, null],
    '1000BASE-BX10-U': [-9, -19.5, 10000, null],
    '1000BASE-BX10-D': [-9, -19.5, 10000, null],
    '10GBASE-SR': [-7.3, -9.9, 400, 2.6],
    '10GBASE-LR': [-8.2, -14.4, 10000, 6.2],
    '10GBASE-ER': [-4.7, -15.8, 40000, null],
    '10GBASE-BR10-U': [-8.2, -14.4, 10000, null],
    '10GBASE-BR10-D': [-8.2, -14.4, 10000, null],
    '25GBASE-SR': [-8.4, -10.3, 100, 1.9],
    '25GBASE-LR': [-7, -13.3, 10000, 6.3],
    '40GBASE-SR4': [-7.6, -9.5, 150, 1.9],
    '40GBASE-LR4': [-7, -13.7, 10000, 6.7],
    '100GBASE-SR4': [-8.4, -10.3, 100, 1.9],
    '100GBASE-DR': [-2.9, -5.9, 500, 3],
    '100GBASE-LR4': [-4.3, -10.6, 10000, 6.3],
  };

test('every optic has the light and reach of the clause it names', () => {
  const named = new Set<string>();
  for (const { name, notes, optics } of transceivers) {
    const standard = /^(\d+GBASE-[^:]+|1000BASE-[^:]+):/.exec(notes ?? '')?.[1] ?? '';
    const clause = clauses[standard];
    if (clause === undefined) {
      expect([name, optics?.launchMinDbm === null || (notes ?? '').startsWith('In no clause')]).toEqual([
        name,
        true,
      ]);
      continue;
    }
    named.add(standard);
    const [launch, received, reachM, channelDb] = clause;
    expect([name, optics?.launchMinDbm, optics?.sensitivityDbm, optics?.reachM]).toEqual([
      name,
      launch,
      received,
      reachM,
    ]);
    if (channelDb !== null) expect(launch - received).toBeCloseTo(channelDb, 5);
    expect(optics?.launchMaxDbm ?? -99).toBeGreaterThan(launch);
  }
  expect([...named].sort()).toEqual(Object.keys(clauses).sort());
});

test('four-lane optics light the outer strands, 1 to 4 and 9 to 12; no other has strands of its own', () => {
  for (const { name, optics, opticStrands } of transceivers)
    expect([name, opticStrands ?? null]).toEqual([
      name,
      optics?.connector === 'MPO' ? [1, 2, 3, 4, 9, 10, 11, 12] : null,
    ]);
});

test('no device that is fed draws more than its class delivers, and every entry is a valid model', () => {
  for (const model of builtInModels()) {
    const read = modelSchema.safeParse(model);
    expect([model.name, read.success ? '' : read.error.issues[0]?.message]).toEqual([model.name, '']);
    if (model.poeClass === null) continue;
    const most = poeClasses[model.poeClass === 0 ? 3 : model.poeClass]?.deviceW ?? 0;
    expect([model.name, (model.maxPowerW ?? 0) <= most]).toEqual([model.name, true]);
  }
});
