import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyChanges } from '../change/apply.ts';
import { removal } from '../change/removal.ts';
import type { Attempt } from '../commands/attempt.ts';
import { editRow } from '../commands/edit.ts';
import { readExchange } from '../exchange/read.ts';
import { writeExchange } from '../exchange/write.ts';
import { newProject } from '../model/kinds/sites/project.ts';
import { Network } from '../model/network/network.ts';
import { newId } from '../model/values/ids.ts';
import { deviceNamed, networkOf, smallRoom } from '../testing/testNetwork.ts';
import { runs } from '../testing/testRuns.ts';
import { freshLabels, labelsOf, labelText } from './labels.ts';
import { longId, shortId, thingLink } from './links.ts';
import { notePrinted } from './notePrinted.ts';
import { labelPlace, labelSizes, labelSizeSchema } from './sizes.ts';

const network = smallRoom();
const after = (of: Network, attempt: Attempt): Network => {
  if (!attempt.ok) throw new Error(attempt.why);
  const applied = applyChanges(of, attempt.set.changes);
  if (!applied.ok) throw new Error(JSON.stringify(applied.problems));
  return applied.network;
};
const lines = (of: Network, ...args: [Parameters<typeof labelsOf>[1], string?]): string[] =>
  labelsOf(of, args[0], args[1] ?? null).map((label) => label.lines.join(' | '));

describe('what labels say', () => {
  test('both ends of a cable, each where it stands: rack by rack from the top', () => {
    expect(lines(network, 'cables')).toEqual([
      'KQ-00001 | KQ-A1.42:KQ-A1-PP1:F1 | → KQ-A1.38:kq-core-1:te1/1',
      'KQ-00002 | KQ-A1.42:KQ-A1-PP1:R1 | → KQ-A2.42:KQ-A2-PP1:R1',
      'KQ-00001 | KQ-A1.38:kq-core-1:te1/1 | → KQ-A1.42:KQ-A1-PP1:F1',
      'KQ-00003 | KQ-A2.42:KQ-A2-PP1:F1 | → KQ-A2.40:kq-acc-1:te1/49',
      'KQ-00002 | KQ-A2.42:KQ-A2-PP1:R1 | → KQ-A1.42:KQ-A1-PP1:R1',
      'KQ-00003 | KQ-A2.40:kq-acc-1:te1/49 | → KQ-A2.42:KQ-A2-PP1:F1',
    ]);
  });

  test('devices from the top of each rack, racks with their place, ports with what they lead to', () => {
    expect(lines(network, 'devices').slice(0, 2)).toEqual([
      'KQ-A1-PP1 | Lumenroot LP-24LC | KQ-A1 U42',
      'kq-core-1 | Norvane CR-6032 | KQ-A1 U38',
    ]);
    expect(lines(network, 'racks')).toEqual([
      'KQ-A1 | Kelder Quay › Data room',
      'KQ-A2 | Kelder Quay › Data room',
    ]);
    expect(lines(network, 'ports')).toContain('kq-acc-1 te1/49 | → KQ-A2-PP1 F1');
    // Power is not patched by port labels.
    expect(lines(network, 'ports').some((line) => line.startsWith('KQ-A1-PDA'))).toBe(false);
  });

  test('an outlet is a port of a panel outside of racks; what is retired has no label', () => {
    const outlets = networkOf({
      places: [{ path: 'Quay', kind: 'site' }],
      devices: [
        { name: 'W-1', role: 'PP', place: 'Quay', ports: [{ name: 'F1', connector: 'RJ45', role: 'panel' }] },
        {
          name: 'W-2',
          role: 'PP',
          place: 'Quay',
          status: 'retired',
          ports: [{ name: 'F1', connector: 'RJ45', role: 'panel' }],
        },
        { name: 'sw', role: 'SW', place: 'Quay', ports: [{ name: '1' }] },
      ],
    });
    expect(lines(outlets, 'outlets')).toEqual(['W-1 F1']);
    expect(lines(outlets, 'devices')).toEqual(['sw | Quay', 'W-1 | Quay']);
  });
});

describe('what was printed', () => {
  test('is left out until it reads otherwise, at the ends that do; deleted with its thing', () => {
    const all = labelsOf(network, 'cables', null);
    const noted = after(network, notePrinted(network, all, '2026-11-30'));
    expect(freshLabels(noted, labelsOf(noted, 'cables', null))).toEqual([]);
    expect(notePrinted(noted, all, '2026-12-01')).toEqual({
      ok: false,
      why: 'All of these are noted as printed already.',
    });
    const core = deviceNamed(noted, 'kq-core-1');
    const edit = editRow(noted, 'device', core, { name: 'kq-core-9' });
    const renamed = after(noted, { ok: true, set: edit });
    const fresh = freshLabels(renamed, labelsOf(renamed, 'cables', null));
    expect(fresh.map(labelText).sort()).toEqual([
      'KQ-00001\nKQ-A1.38:kq-core-9:te1/1\n→ KQ-A1.42:KQ-A1-PP1:F1',
      'KQ-00001\nKQ-A1.42:KQ-A1-PP1:F1\n→ KQ-A1.38:kq-core-9:te1/1',
    ]);
    const again = notePrinted(renamed, labelsOf(renamed, 'cables', null), '2026-12-02');
    expect(again).toMatchObject({ ok: true, set: { sentence: 'Noted 2 labels as printed' } });
    const cable = noted.findOne('cableByLabel', 'kq-00002');
    const { changes } = removal(noted, [{ kind: 'cable', id: cable?.id ?? '' }]);
    const gone = after(noted, { ok: true, set: { changes, sentence: '' } });
    expect(gone.count('printedLabel')).toBe(4);
  });

  test('goes out in a file and comes back; a name that is not there is refused', () => {
    const noted = after(network, notePrinted(network, labelsOf(network, 'cables', null), '2026-11-30'));
    const file: unknown = JSON.parse(JSON.stringify(writeExchange(noted)));
    const read = readExchange(Network.of({ project: [newProject('Other')] }), file);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    expect(writeExchange(read.network)).toEqual(file);
    expect(readExchange(read.network, file)).toMatchObject({ ok: true, changes: [] });
    const wrong = readExchange(network, {
      format: 'visograph-exchange',
      version: 1,
      printedLabels: [{ of: 'rack', name: 'K-9', text: 'K-9', on: '2026-11-30' }],
    });
    expect(wrong.ok ? '' : wrong.problems.map(({ path, message }) => `${path} ${message}`).join()).toBe(
      '$.printedLabels[0].name There is no rack “K-9”. Add it, or correct the name.',
    );
  });
});

describe('measures', () => {
  test('every size that ships fits its page', () => {
    for (const { title, size } of Object.values(labelSizes))
      expect([title, labelSizeSchema.safeParse(size).error?.issues]).toEqual([title, undefined]);
    expect(Object.keys(labelSizes)).toHaveLength(12);
  });

  test('labels follow one another over rows and pages, by hand', () => {
    const size = labelSizes['sheet-3x8']?.size;
    if (size === undefined) throw new Error('sheet-3x8');
    // 3 × 70 mm fill 210 mm; 8 × 37 mm leave 1 mm of 297 mm.
    expect(labelPlace(size, 0)).toEqual({ page: 0, x: 0, y: 0.5 });
    expect(labelPlace(size, 4)).toEqual({ page: 0, x: 70, y: 37.5 });
    expect(labelPlace(size, 23)).toEqual({ page: 0, x: 140, y: 259.5 });
    expect(labelPlace(size, 24)).toEqual({ page: 1, x: 0, y: 0.5 });
  });

  test('own measures that do not fit are told with what is missing', () => {
    const own = { ...labelSizes['tape-12']?.size, columns: 2 };
    expect(labelSizeSchema.safeParse(own).error?.issues[0]?.message).toBe(
      '2 columns need 120 mm of a page of 60 mm: take fewer, smaller ones or a larger page',
    );
    expect(labelSizeSchema.safeParse({ ...own, columns: 1, width: Number.NaN }).success).toBe(false);
  });
});

describe('links', () => {
  test('property: a short id is the id again, in whatever case it is read', () => {
    fc.assert(
      fc.property(fc.uuid(), (id) => {
        const short = shortId(id);
        expect(short).toMatch(/^[0-9A-Z]{1,25}$/);
        expect(longId(short)).toBe(id.toLowerCase());
        expect(longId(short.toLowerCase())).toBe(id.toLowerCase());
      }),
      { numRuns: runs(300) },
    );
  });

  test('an address is all capitals, figures and marks that a QR code takes as such', () => {
    const link = thingLink('https://net.marrow.example:8443', newId(), newId());
    expect(link).toMatch(/^[0-9A-Z $%*+\-./:]+$/);
    expect(link.startsWith('HTTPS://NET.MARROW.EXAMPLE:8443/AT/')).toBe(true);
  });

  test.each(['', '!', 'Z'.repeat(26), `F5LXX1ZZ5PNORYNQGLHZMSP34`])('%j is no short id', (text) =>
    expect(longId(text)).toBeNull(),
  );
});
