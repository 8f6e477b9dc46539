import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { portTitle } from '../model/network/ports.ts';
import type { Network } from '../model/network/network.ts';
import { networkOf, portId, smallRoom } from '../testing/testNetwork.ts';
import { applyChanges } from '../change/apply.ts';
import { diff } from '../change/diff.ts';
import { setLeg, swapEnds } from './commands/cables.ts';
import { foundIn } from '../testing/testFindings.ts';
import { judgeRun } from './link.ts';
import { stopText, traceRun, wholeRun, type Run } from './trace.ts';
import { runs } from '../testing/testRuns.ts';

const words = (network: Network, run: Run): string[] =>
  run.hops.map((hop) =>
    'port' in hop
      ? portTitle(network, hop.port)
      : 'cable' in hop
        ? (network.get('cable', hop.cable)?.label ?? '')
        : (network.get('circuit', hop.circuit)?.number ?? ''),
  );

const throughTwoPanels = [
  'kq-core-1:te1/1',
  'KQ-00001',
  'KQ-A1-PP1:F1',
  'KQ-A1-PP1:R1',
  'KQ-00002',
  'KQ-A2-PP1:R1',
  'KQ-A2-PP1:F1',
  'KQ-00003',
  'kq-acc-1:te1/49',
];

describe('tracing', () => {
  test('through two panels: every port and cable, and the sum of the lengths', () => {
    const network = smallRoom();
    const run = traceRun(network, portId(network, 'kq-core-1:te1/1'));
    expect(words(network, run)).toEqual(throughTwoPanels);
    expect(run).toMatchObject({
      ends: 'port',
      to: portId(network, 'kq-acc-1:te1/49'),
      lengthM: 18,
      unknownLengths: 0,
    });
  });

  test('from the far end it is the same run reversed', () => {
    const network = smallRoom();
    const back = traceRun(network, portId(network, 'kq-acc-1:te1/49'));
    expect(words(network, back)).toEqual([...throughTwoPanels].reverse());
  });

  test.each(['KQ-A1-PP1:F1', 'KQ-A1-PP1:R1', 'KQ-A2-PP1:R1', 'KQ-A2-PP1:F1'])(
    'from the middle at %s the whole run is found',
    (title) => {
      const network = smallRoom();
      const found = words(network, wholeRun(network, portId(network, title)));
      expect([throughTwoPanels, [...throughTwoPanels].reverse()]).toContainEqual(found);
    },
  );

  test('an unconnected port is a run of itself that ends open', () => {
    const network = smallRoom();
    const port = portId(network, 'kq-acc-1:gi1/14');
    expect(traceRun(network, port)).toMatchObject({ hops: [{ port }], ends: 'open', to: null, lengthM: 0 });
  });

  test('a cable with one end, and a panel with nothing behind, end open', () => {
    const network = networkOf({
      devices: [
        { name: 'a', role: 'SW', ports: [{ name: '1' }, { name: '2' }] },
        {
          name: 'p',
          role: 'PP',
          ports: [
            { name: 'F1', leadsTo: 'R1' },
            { name: 'R1', leadsTo: 'F1' },
          ],
        },
      ],
      cables: [
        { label: 'C-1', a: 'a:1' },
        { label: 'C-2', a: 'a:2', b: 'p:F1', lengthM: 3 },
      ],
    });
    expect(words(network, traceRun(network, portId(network, 'a:1')))).toEqual(['a:1', 'C-1']);
    const run = traceRun(network, portId(network, 'a:2'));
    expect(words(network, run)).toEqual(['a:2', 'C-2', 'p:F1', 'p:R1']);
    expect(run).toMatchObject({ ends: 'open', to: null, lengthM: 3 });
  });

  test('a run that comes back to itself ends with the word loop', () => {
    const network = networkOf({
      devices: ['p', 'q'].map((name) => ({
        name,
        role: 'PP' as const,
        ports: [
          { name: 'F1', leadsTo: 'R1' },
          { name: 'R1', leadsTo: 'F1' },
        ],
      })),
      cables: [
        { label: 'C-1', a: 'p:F1', b: 'q:F1' },
        { label: 'C-2', a: 'p:R1', b: 'q:R1' },
      ],
    });
    expect(traceRun(network, portId(network, 'p:F1'))).toMatchObject({
      ends: 'loop',
      to: null,
      unknownLengths: 2,
    });
    expect(wholeRun(network, portId(network, 'q:R1')).ends).toBe('loop');
  });

  test('property: over any chain of panels, A to B is B to A reversed', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 12 }),
        fc.array(fc.boolean(), { minLength: 13, maxLength: 13 }),
        (count, turned) => {
          const panels = Array.from({ length: count }, (_, at) => ({
            name: `p${at}`,
            role: 'PP' as const,
            ports: [
              { name: 'F', leadsTo: 'R' },
              { name: 'R', leadsTo: 'F' },
            ],
          }));
          const side = (at: number, far: boolean): string => (turned[at] === far ? 'F' : 'R');
          const stops = [
            'a:1',
            ...panels.flatMap((panel, at) => [
              `${panel.name}:${side(at, false)}`,
              `${panel.name}:${side(at, true)}`,
            ]),
            'b:1',
          ];
          const cables = Array.from({ length: count + 1 }, (_, at) => ({
            label: `C-${at}`,
            a: stops[2 * at] ?? '',
            b: stops[2 * at + 1] ?? '',
            lengthM: at + 0.5,
          }));
          const network = networkOf({
            devices: [
              { name: 'a', role: 'SW', ports: [{ name: '1' }] },
              { name: 'b', role: 'SW', ports: [{ name: '1' }] },
              ...panels,
            ],
            cables,
          });
          const there = traceRun(network, portId(network, 'a:1'));
          const back = traceRun(network, portId(network, 'b:1'));
          expect(words(network, back)).toEqual(words(network, there).reverse());
          expect(there.lengthM).toBeCloseTo(back.lengthM);
        },
      ),
      { numRuns: runs(40) },
    );
  });
});

describe('strands, breakouts, circuits', () => {
  /** Two cassettes of six duplex ports joined by a 12-strand trunk, a switch port at each side of port 3. */
  const cassettes = (polarity: string, far = 3) =>
    networkOf({
      models: [
        {
          form: 'cable',
          name: 'trunk',
          medium: 'OM4',
          ends: ['MPO', 'MPO'],
          strands: 12,
          polarity: polarity as never,
        },
      ],
      devices: [
        ...['X', 'Y'].map((name) => ({
          name,
          model: 'Lumenroot LP-4C frame',
          modules: [{ slot: 'bay 1', model: 'Lumenroot LC12 cassette' }],
        })),
        { name: 's', role: 'SW' as const, ports: [{ name: '1', connector: 'SFP+' as const }] },
        { name: 't', role: 'SW' as const, ports: [{ name: '1', connector: 'SFP+' as const }] },
      ],
      cables: [
        { label: 'T-1', type: 'trunk', lengthM: 30, a: 'X:1R1', b: 'Y:1R1' },
        { label: 'C-1', type: 'OM4 duplex LC', lengthM: 2, a: 's:1', b: 'X:1F3' },
        { label: 'C-2', type: 'OM4 duplex LC', lengthM: 2, a: 't:1', b: `Y:1F${far}` },
      ],
    });

  test('a duplex port keeps its strands through cassettes and trunk', () => {
    const network = cassettes('straight');
    const run = traceRun(network, portId(network, 's:1'));
    expect(words(network, run)).toEqual([
      's:1',
      'C-1',
      'X:1F3',
      'X:1R1',
      'T-1',
      'Y:1R1',
      'Y:1F3',
      'C-2',
      't:1',
    ]);
    expect(run).toMatchObject({ ends: 'port', lengthM: 34, branches: [] });
    const back = traceRun(network, portId(network, 't:1'));
    expect(words(network, back)).toEqual(words(network, run).reverse());
    for (const title of ['X:1F3', 'Y:1F3'])
      expect(words(network, wholeRun(network, portId(network, title)))).toHaveLength(9);
  });

  test('a reversed trunk brings strands 5 and 6 out as 8 and 7: port 4 (TIA-568.3-D method B)', () => {
    const reversed = cassettes('reversed', 4);
    expect(traceRun(reversed, portId(reversed, 's:1')).to).toBe(portId(reversed, 't:1'));
    const wrong = cassettes('reversed', 3);
    const run = traceRun(wrong, portId(wrong, 's:1'));
    expect(run.ends).toBe('open');
    expect(words(wrong, run).at(-1)).toBe('Y:1F4');
  });

  test('from the common port of a cassette the run branches to every port behind it', () => {
    const network = cassettes('straight');
    const run = traceRun(network, portId(network, 'X:1R1'));
    const ends = [run, ...run.branches.map((branch) => branch.run)];
    expect(ends.map((one) => one.ends)).toEqual(['open', 'open', 'port', 'open', 'open', 'open']);
    expect(ends[2]?.to).toBe(portId(network, 't:1'));
  });

  /** A cassette of twelve duplex ports on one common port of 24 strands, with a trunk of 12 or 24 behind it. */
  const wide = (strands: number, optic: string | null = null) =>
    networkOf({
      models: [{ form: 'cable', name: 'trunk', medium: 'OM4', ends: ['MPO', 'MPO'], strands }],
      devices: [
        {
          name: 'X',
          role: 'PP',
          ports: [
            ...Array.from({ length: 12 }, (_, at) => ({
              name: `F${at + 1}`,
              connector: 'LC' as const,
              role: 'panel' as const,
              leadsTo: 'R1',
              strand: 2 * at + 1,
            })),
            { name: 'R1', connector: 'MPO' as const, role: 'panel' as const, face: 'rear' as const },
          ],
        },
        {
          name: 'core',
          role: 'SW',
          ports: [
            { name: 'q1', connector: 'QSFP+' as const, ...(optic === null ? {} : { transceiver: optic }) },
          ],
        },
        ...[3, 7].map((at) => ({
          name: `s${at}`,
          role: 'SW' as const,
          ports: [{ name: '1', connector: 'SFP+' as const }],
        })),
      ],
      cables: [
        { label: 'T-1', type: 'trunk', lengthM: 30, a: 'X:R1', b: 'core:q1' },
        { label: 'C-3', type: 'OM4 duplex LC', lengthM: 2, a: 's3:1', b: 'X:F3' },
        { label: 'C-7', type: 'OM4 duplex LC', lengthM: 2, a: 's7:1', b: 'X:F7' },
      ],
    });
  const told = (network: Network): string[] =>
    foundIn(network)
      .filter(({ rule }) => rule === 'strand-missing' || rule === 'link-strand')
      .map(({ message }) => message);

  test('ports of a cassette beyond the strands of the trunk end open, and are told, cabled or not', () => {
    const network = wide(12);
    const run = traceRun(network, portId(network, 's7:1'));
    expect(words(network, run)).toEqual(['s7:1', 'C-7', 'X:F7', 'X:R1', 'T-1']);
    expect(run).toMatchObject({
      ends: 'open',
      to: null,
      stop: { because: 'no strand', strands: [13, 14], has: 12 },
    });
    expect(run.stop === null ? '' : stopText(network, run.stop)).toBe(
      'T-1 has 12 strands, strands 13, 14 not among them',
    );
    expect(traceRun(network, portId(network, 's3:1'))).toMatchObject({ ends: 'port', stop: null });
    expect(told(network)).toEqual([
      's7 1: T-1 has 12 strands, strands 13, 14 not among them.',
      'X F7 to F12 have no strand: T-1 at R1 has 12, they need 13 to 24. Lay a trunk with more strands, or leave those ports empty.',
    ]);
    const enough = wide(24);
    expect(traceRun(enough, portId(enough, 's7:1')).to).toBe(portId(enough, 'core:q1'));
    expect(told(enough)).toEqual([]);
  });

  test('an optic of four lanes lights strands 1 to 4 and 9 to 12: what lies between stays dark', () => {
    const network = wide(12, 'Lumenroot SR4-40');
    const out = traceRun(network, portId(network, 'core:q1'));
    const reached = [out, ...out.branches.map(({ run }) => run)].map((run) =>
      words(network, run).find((word) => word.startsWith('X:F')),
    );
    expect(reached).toEqual(['X:F1', 'X:F2', 'X:F5', 'X:F6']);
    const dark = traceRun(network, portId(network, 's3:1'));
    expect(dark).toMatchObject({ ends: 'open', stop: { because: 'dark', strands: [5, 6] } });
    expect(told(network)).toContain('s3 1: the optic in core q1 does not light strands 5, 6.');
  });

  const breakout = () =>
    networkOf({
      devices: [
        { name: 'core', model: 'Norvane CR-6032' },
        { name: 'leaf', model: 'Norvane CR-6032' },
      ],
      cables: [
        {
          label: 'B-1',
          type: 'breakout 100G to 4 × 25G',
          lengthM: 2,
          a: 'core:hu1/31',
          b: 'leaf:te1/1',
          bLegs: ['leaf:te1/2', null, 'leaf:te1/4'],
        },
      ],
    });

  test('a breakout branches from its single plug; each leg leads back to it alone', () => {
    const network = breakout();
    const run = traceRun(network, portId(network, 'core:hu1/31'));
    const ends = [run.to, ...run.branches.map((branch) => branch.run.to)];
    expect(ends).toEqual(['leaf:te1/1', 'leaf:te1/2', 'leaf:te1/4'].map((title) => portId(network, title)));
    const leg = traceRun(network, portId(network, 'leaf:te1/4'));
    expect(words(network, leg)).toEqual(['leaf:te1/4', 'B-1', 'core:hu1/31']);
    expect(judgeRun(network, leg)).toMatchObject({ speedBps: 2.5e10, faults: [] });
    expect(judgeRun(network, run)).toMatchObject({ speedBps: 2.5e10, faults: [] });
  });

  test('a leg beyond those of the type, and a port that holds a leg already, are refused by name', () => {
    const network = breakout();
    const cable = network.findOne('cableByLabel', 'b-1');
    if (cable === null) throw new Error('no cable');
    expect(setLeg(network, cable, 'b', 5, portId(network, 'leaf:te1/9'))).toMatchObject({
      ok: false,
      why: expect.stringContaining('4 plugs at its B end, so it has no leg 5'),
    });
    expect(setLeg(network, cable, 'b', 3, portId(network, 'leaf:te1/4'))).toMatchObject({
      ok: false,
      why: expect.stringContaining('leaf:te1/4 already holds leg 4 of cable B-1'),
    });
    expect(setLeg(network, cable, 'b', 3, portId(network, 'leaf:te1/3'))).toMatchObject({ ok: true });
    expect(swapEnds(network, cable)).toMatchObject({
      ok: false,
      why: expect.stringContaining('1 and 4 plugs'),
    });
  });

  test('a circuit is traced like a cable, also into the network of its provider', () => {
    const network = networkOf({
      devices: [
        { name: 'p', role: 'RT', ports: [{ name: '1' }, { name: '2' }] },
        { name: 'q', role: 'RT', ports: [{ name: '1' }] },
      ],
      circuits: [
        {
          number: 'TS-4471',
          provider: 'Tidal Link',
          kind: 'private WAN',
          lengthM: 21000,
          a: 'p:1',
          b: 'q:1',
        },
        { number: 'TS-9', provider: 'Tidal Link', kind: 'internet', a: 'p:2' },
      ],
    });
    const run = traceRun(network, portId(network, 'q:1'));
    expect(words(network, run)).toEqual(['q:1', 'TS-4471', 'p:1']);
    expect(run).toMatchObject({ ends: 'port', lengthM: 21000 });
    expect(traceRun(network, portId(network, 'p:2'))).toMatchObject({ ends: 'open', to: null });
  });
});

test('swapping the ends of a cable twice leaves everything as it was', () => {
  const network = smallRoom();
  fc.assert(
    fc.property(fc.constantFrom('KQ-00001', 'KQ-00002', 'KQ-00003'), (label) => {
      let now = network;
      for (let time = 0; time < 2; time++) {
        const cable = now.findOne('cableByLabel', label.toLowerCase());
        const attempt = cable === null ? null : swapEnds(now, cable);
        if (attempt?.ok !== true) throw new Error('not swapped');
        const applied = applyChanges(now, attempt.set.changes);
        if (!applied.ok) throw new Error(applied.problems[0]?.message);
        now = applied.network;
      }
      expect(diff(network, now)).toEqual([]);
    }),
  );
});
