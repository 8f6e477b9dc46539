import { describe, expect, test } from '@jest/globals';
import { blankPort, type Port } from '../model/kinds/lines/port.ts';
import { defaultCablingRules, singleModeLosses } from '../model/kinds/sites/project.ts';
import { networkOf, portId, deviceNamed } from '../testing/testNetwork.ts';
import { lightBudget } from './light.ts';
import { judgeRun, opticsDisagree, passing } from './link.ts';
import { poeLoad, sourceWatts } from './poe.ts';
import { traceRun } from './trace.ts';
import { builtInModels } from '../catalogue/builtIn/index.ts';
import { foundIn } from '../testing/testFindings.ts';

const optic = (name: string) => {
  const model = builtInModels().find((one) => one.form === 'transceiver' && one.name === name);
  if (model === undefined) throw new Error(name);
  return model;
};

describe('light', () => {
  test('10 km with 4 connectors and 2 splices (TIA-568.3-D annex C)', () => {
    // 10 km x 0.4 + 4 x 0.75 + 2 x 0.3 = 4.0 + 3.0 + 0.6 = 7.6 dB against -8.2 - -14.4 = 6.2 dB.
    const budget = lightBudget(
      {
        fibres: [{ medium: 'OS2', lengthM: 10000 }],
        matedPairs: 4,
        splices: 2,
        wavelengthNm: 1310,
        launchMinDbm: -8.2,
        sensitivityDbm: -14.4,
      },
      defaultCablingRules,
    );
    expect(budget.lossDb).toBeCloseTo(7.6, 9);
    expect(budget.budgetDb).toBeCloseTo(6.2, 9);
    expect(budget.marginDb).toBeCloseTo(-1.4, 9);
    expect(budget.lines).toEqual([
      '10.00 km OS2 × 0.4 dB/km = 4.00 dB',
      '4 mated connectors × 0.75 dB = 3.00 dB',
      '2 splices × 0.3 dB = 0.60 dB',
    ]);
  });

  test('at 1550 nm the same run loses a quarter less fibre attenuation; multimode 3 dB/km at 850 nm', () => {
    const path = { matedPairs: 0, splices: 0, launchMinDbm: 0, sensitivityDbm: -10 };
    const loss = (medium: 'OS2' | 'OM4', wavelengthNm: number): number =>
      lightBudget({ ...path, fibres: [{ medium, lengthM: 1000 }], wavelengthNm }, defaultCablingRules).lossDb;
    expect(loss('OS2', 1550)).toBeCloseTo(0.3);
    expect(loss('OS2', 1310)).toBeCloseTo(0.4);
    expect(loss('OM4', 850)).toBeCloseTo(3);
  });

  test('single-mode loss by the standard that the project states: 0.4, 0.5 outdoors, 1.0 in buildings', () => {
    const loss = (singleModeLoss: (typeof singleModeLosses)[number]): number =>
      lightBudget(
        {
          fibres: [{ medium: 'OS2', lengthM: 2000 }],
          matedPairs: 0,
          splices: 0,
          wavelengthNm: 1310,
          launchMinDbm: 0,
          sensitivityDbm: -10,
        },
        { ...defaultCablingRules, singleModeLoss },
      ).lossDb;
    expect(singleModeLosses.map((one) => [one, loss(one)])).toEqual([
      ['ITU-T G.652.D', 0.8],
      ['TIA-568.3-D indoor', 2],
      ['TIA-568.3-D outdoor', 1],
    ]);
  });

  test('a panel with a plug in front and a splice behind costs one mated pair and one splice', () => {
    const port = (connector: string): Port =>
      ({ ...blankPort, id: 'p', deviceId: 'd', name: '1', connector }) as Port;
    expect(passing(port('LC'), port('splice'))).toEqual({ matedPairs: 1, splices: 1 });
    expect(passing(port('splice'), port('LC'))).toEqual({ matedPairs: 1, splices: 1 });
    expect(passing(port('splice'), port('splice'))).toEqual({ matedPairs: 0, splices: 1 });
    expect(passing(port('LC'), port('LC'))).toEqual({ matedPairs: 1, splices: 0 });
    expect(passing(port('LC'), port('MPO'))).toEqual({ matedPairs: 2, splices: 0 });
  });

  /** Two switches over two panels with 9.9 km of fibre between them, spliced twice. */
  const longHaul = (far: string) =>
    networkOf({
      project: { name: 'x', cabling: { connectorLossDb: 0.5, spliceLossDb: 0.1 } },
      devices: [
        { name: 'a', model: 'Norvane CR-6032', ports: [{ name: 'te1/1', transceiver: 'Lumenroot LR-10' }] },
        { name: 'b', model: 'Norvane CR-6032', ports: [{ name: 'te1/1', transceiver: far }] },
        { name: 'P1', model: 'Lumenroot LP-24LC' },
        { name: 'P2', model: 'Lumenroot LP-24LC' },
      ],
      cables: [
        { label: 'X-1', type: 'OS2 duplex LC', lengthM: 5, a: 'a:te1/1', b: 'P1:F1' },
        { label: 'X-2', type: 'OS2 duplex LC', lengthM: 9990, splices: 2, a: 'P1:R1', b: 'P2:R1' },
        { label: 'X-3', type: 'OS2 duplex LC', lengthM: 5, a: 'P2:F1', b: 'b:te1/1' },
      ],
    });

  test('a whole run: fibre of all cables, a mated pair in each panel, the splices of the trunk', () => {
    const network = longHaul('Lumenroot LR-10');
    const judged = judgeRun(network, traceRun(network, portId(network, 'a:te1/1')));
    // 6.2 - (10 km x 0.4 + 2 x 0.5 + 2 x 0.1) = 1.0 dB
    expect(judged.light?.marginDb).toBeCloseTo(1, 9);
    expect(judged.faults).toEqual([]);
    expect(judged.speedBps).toBe(1e10);
  });

  test('a long-reach optic facing a short-reach one is told, at both ends', () => {
    const network = longHaul('Lumenroot SR-10');
    const judged = judgeRun(network, traceRun(network, portId(network, 'b:te1/1')));
    expect(judged.faults.map((fault) => fault.about)).toEqual(
      expect.arrayContaining(['optics', 'medium', 'reach']),
    );
    const findings = foundIn(network).filter((finding) => finding.rule === 'link-optics');
    expect(findings[0]?.about).toEqual(expect.arrayContaining(['device a', 'device b', 'cable X-2']));
  });

  test('bidirectional pairs: up faces down, never up', () => {
    expect(opticsDisagree(optic('BX-10U'), optic('BX-10D'))).toBeNull();
    expect(opticsDisagree(optic('BX-10U'), optic('BX-10U'))).toMatchObject({
      by: 'both send alike',
      nm: 1270,
    });
    expect(opticsDisagree(optic('BX-10U'), optic('LR-10'))?.by).toBe('one is bidirectional');
    const waves = opticsDisagree(optic('LR-10'), optic('ER-10'));
    expect(waves).toEqual(opticsDisagree(optic('ER-10'), optic('LR-10')));
    expect(waves?.by === 'wavelength' && waves.optics.map(({ nm }) => nm).sort()).toEqual([[1310], [1550]]);
    expect(opticsDisagree(optic('SR4-100'), optic('SR-25'), { a: 4, b: 1 })).toBeNull();
  });
});

describe('power over copper', () => {
  test('class 4 at the end of the standard loop: 25.5 W arrive of 30 W (IEEE 802.3 clause 33)', () => {
    // The worst loop of the standard is 12.5 ohms: 148.5 m of 24 AWG.
    expect(sourceWatts(25.5, 12.5 / 0.0842, 'Cat 5e', 4)).toBeCloseTo(30, 6);
    expect(sourceWatts(25.5, 0, 'Cat 5e', 4)).toBe(25.5);
    expect(sourceWatts(12, 90, 'Cat 6A', 3)).toBeGreaterThan(12);
    expect(sourceWatts(60, 2000, 'Cat 5e', 4)).toBe(Infinity);
  });

  test('a switch with 30 cameras: promised by class, drawn with cable loss, what is left', () => {
    const network = networkOf({
      devices: [
        { name: 'sw', model: 'Norvane AX-2448P' },
        ...Array.from({ length: 30 }, (_, at) => ({ name: `cam-${at + 1}`, model: 'Pellane Domus 8' })),
      ],
      cables: Array.from({ length: 30 }, (_, at) => ({
        label: `C-${at + 1}`,
        type: 'Cat 6A RJ45',
        lengthM: 60,
        a: `sw:gi1/${at + 1}`,
        b: `cam-${at + 1}:eth0`,
      })),
    });
    const load = poeLoad(network, deviceNamed(network, 'sw'));
    // Class 4 holds 30 W each; 15 W at 60 m of 23 AWG: I = (50 - sqrt(2500 - 4 x 4.008 x 15)) / 8.016.
    expect(load?.promisedW).toBe(900);
    const loop = 0.0668 * 60;
    const current = (50 - Math.sqrt(2500 - 4 * loop * 15)) / (2 * loop);
    expect(load?.drawnW).toBeCloseTo(30 * 50 * current, 6);
    expect(load?.leftW).toBe(740 - 900);
    expect(foundIn(network).find((finding) => finding.rule === 'poe-over-budget')?.message).toContain(
      'sw promises 900.0 W to 30 devices and has 740 W',
    );
  });

  test('a device with a supply of its own takes nothing, nor does one behind fibre', () => {
    const network = networkOf({
      devices: [
        { name: 'sw', model: 'Norvane AX-2424P' },
        { name: 'cam', model: 'Pellane Domus 4' },
      ],
      cables: [{ label: 'C-1', type: 'OM4 duplex LC', a: 'sw:gi1/1', b: 'cam:eth0' }],
    });
    expect(poeLoad(network, deviceNamed(network, 'sw'))).toMatchObject({ ports: [], leftW: 370 });
  });
});
