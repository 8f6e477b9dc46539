/** Sums and counts against what is worked out another way, over many made-up quotations and networks. */
import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../change/apply.ts';
import { create, type Change } from '../change/change.ts';
import { builtInModels } from '../catalogue/builtIn/index.ts';
import { blankCable } from '../model/kinds/lines/cable.ts';
import { blankDevice } from '../model/kinds/equipment/device.ts';
import { blankPartsList } from '../model/kinds/purchase/partsList.ts';
import type { QuotationLine, QuotationSection } from '../model/kinds/purchase/quotation.ts';
import { newProject } from '../model/kinds/sites/project.ts';
import { Network } from '../model/network/network.ts';
import { newId } from '../model/values/ids.ts';
import { runs } from '../testing/testRuns.ts';
import { atRate } from './money.ts';
import { inPacks, partsOf } from './partsOf.ts';
import { totalsOf } from './totals.ts';

/** Numbers that look random and are always the same (xorshift of 32 bits). */
function dice(seed: number): (below: number) => number {
  let state = seed * 2654435761 || 1;
  return (below) => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return (state >>> 0) % below;
  };
}

/** The nearest whole number of a decimal text, halves up: by its digits alone, without any arithmetic on fractions. */
function roundedText(decimal: string): number {
  const [whole = '0', fraction = ''] = decimal.split('.');
  return Number(whole) + ((fraction[0] ?? '0') >= '5' ? 1 : 0);
}
/** A product of whole numbers over a power of ten, as a decimal text. */
function shifted(product: bigint, places: number): string {
  const digits = product.toString().padStart(places + 1, '0');
  return `${digits.slice(0, digits.length - places)}.${digits.slice(digits.length - places)}`;
}

describe('quotations', () => {
  const quotation = (seed: number): QuotationSection[] => {
    const roll = dice(seed);
    return Array.from({ length: 1 + roll(4) }, (_, at) => ({
      name: `Section ${at}`,
      discount: [0, 0, 250, 1000, 3333, 10_000][roll(6)] ?? 0,
      lines: Array.from({ length: roll(6) }, (): QuotationLine => ({
        ...{ what: 'x', partNumber: null, detail: null, unit: 'piece', model: null },
        count: 1 + roll(5000),
        unitMinor: roll(8) === 0 ? null : roll(10_000_000),
        discount: [0, 1, 500, 9999][roll(4)] ?? 0,
        tax: [0, 700, 1900, 2550][roll(4)] ?? 0,
        optional: roll(5) === 0,
      })),
    }));
  };

  test('nets, taxes and totals are those that are worked out digit by digit', () => {
    for (let seed = 1; seed <= runs(200); seed++) {
      const sections = quotation(seed);
      const counted = sections.flatMap((section) =>
        section.lines
          .filter(({ unitMinor }) => unitMinor !== null)
          .map((line) => {
            const off = BigInt(10_000 - line.discount) * BigInt(10_000 - section.discount);
            const net = roundedText(shifted(BigInt(line.count) * BigInt(line.unitMinor ?? 0) * off, 8));
            return { ...line, net };
          }),
      );
      const plain = counted.filter(({ optional }) => !optional);
      const net = plain.reduce((sum, line) => sum + line.net, 0);
      let tax = 0;
      for (const rate of new Set(plain.map((line) => line.tax))) {
        const base = plain.filter((line) => line.tax === rate).reduce((sum, line) => sum + line.net, 0);
        tax += roundedText(shifted(BigInt(base) * BigInt(rate), 4));
      }
      const totals = totalsOf({ sections });
      expect([seed, totals.netMinor, totals.taxMinor, totals.totalMinor]).toEqual([
        seed,
        net,
        tax,
        net + tax,
      ]);
      expect(totals.optionsMinor).toBe(
        counted.filter(({ optional }) => optional).reduce((sum, line) => sum + line.net, 0),
      );
      expect(totals.grossMinor).toBeGreaterThanOrEqual(totals.netMinor);
    }
  });

  test('at a rate: the same as the product of the digits', () => {
    const roll = dice(7);
    for (let at = 0; at < runs(300); at++) {
      const minor = roll(1_000_000_000);
      const [units, decimals] = [roll(1000), String(roll(10_000)).padStart(4, '0')];
      const exact = shifted(BigInt(minor) * BigInt(`${units}${decimals}`), 4);
      expect([minor, units, decimals, atRate(minor, `${units}.${decimals}`)]).toEqual([
        minor,
        units,
        decimals,
        roundedText(exact),
      ]);
    }
  });
});

describe('parts lists', () => {
  const models = builtInModels().map((model) => ({ ...model, id: newId() }));
  const gear = models.filter(({ form, maker, role }) => form === 'device' && maker !== null && role !== 'VM');
  const types = models.filter(({ form, stockLengthsM }) => form === 'cable' && stockLengthsM.length > 0);
  const base = Network.of({ project: [newProject('Made up')], model: models });
  const statuses = ['planned', 'active', 'retired'] as const;

  test('counts and metres are those of plain loops over the rows; nothing is bought twice', () => {
    for (let seed = 1; seed <= runs(25); seed++) {
      const roll = dice(seed);
      const expected = new Map<string, { planned: number; inPlace: number }>();
      const count = (key: string, status: (typeof statuses)[number]): void => {
        const known = expected.get(key) ?? { planned: 0, inPlace: 0 };
        if (status === 'planned') known.planned++;
        if (status === 'active') known.inPlace++;
        if (status !== 'retired') expected.set(key, known);
      };
      const changes: Change[] = [];
      for (let at = 0; at < 30; at++) {
        const [model, status] = [gear[roll(gear.length)], statuses[roll(3)] ?? 'active'];
        if (model === undefined || model.role === null) continue;
        const fields = { id: newId(), name: `d-${at}`, role: model.role, modelId: model.id, status };
        changes.push(create('device', { ...blankDevice, ...fields }));
        if (!['VM', 'CH', 'DB', 'FN', 'QU', 'EX', 'GW'].includes(model.role)) count(model.id, status);
      }
      for (let at = 0; at < 30; at++) {
        const [type, status] = [types[roll(types.length)], statuses[roll(3)] ?? 'active'];
        if (type === undefined) continue;
        const lengthM = (1 + roll(400)) / 10;
        const fields = { id: newId(), label: `K-${at}`, typeId: type.id, lengthM, status };
        changes.push(create('cable', { ...blankCable, ...fields }));
        const reaching = type.stockLengthsM.filter((one) => one >= lengthM);
        if (reaching.length > 0) count(`${type.id} ${Math.min(...reaching)}`, status);
      }
      const applied = applyChanges(base, changes);
      if (!applied.ok) throw new Error(applied.problems[0]?.message);
      const list = { ...blankPartsList, id: newId(), name: 'all', counts: 'both' as const };
      const { lines, totalMinor } = partsOf(applied.network, list, '2026-11-30');
      const found = new Map(
        lines
          .filter(
            ({ part }) =>
              part.modelId !== null &&
              part.licence === null &&
              part.gap !== 'no stock length reaches' &&
              part.section !== 'Power cords',
          )
          .map(({ part, planned, inPlace }) => [
            part.lengthM === null ? (part.modelId ?? '') : `${part.modelId ?? ''} ${part.lengthM}`,
            { planned, inPlace },
          ]),
      );
      expect([seed, Object.fromEntries(found)]).toEqual([seed, Object.fromEntries(expected)]);
      for (const { planned, spares, reserved, held, toBuy, order, offer } of lines) {
        expect(toBuy).toBe(Math.max(0, planned + spares - reserved - held));
        expect(order % (offer?.pack ?? 1)).toBe(0);
        expect(order).toBe(inPacks(toBuy, offer?.pack ?? 1));
      }
      const sum = lines.reduce((all, { order, offer }) => all + order * (offer?.unitMinor ?? 0), 0);
      expect(totalMinor).toBe(sum);
    }
  });
});
