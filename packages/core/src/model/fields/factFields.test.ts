import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import { deleteRow } from '../../commands/deleteRow.ts';
import { findAnything } from '../../commands/find.ts';
import { findReport, reports } from '../../report/registry.ts';
import { everything } from '../../testing/testKinds.ts';
import { factFieldsOf } from './factFields.ts';
import { kindNames, kinds } from '../kinds.ts';
import { titleOf } from './titles.ts';

describe('what follows from a kind', () => {
  test('its facts as people read them: words, units, choices, other rows; no plumbing', () => {
    const facts = Object.fromEntries(factFieldsOf('pathway').map((fact) => [fact.label, fact]));
    expect(Object.keys(facts)).toEqual(['Name', 'Kind', 'From', 'To', 'Length', 'Notes']);
    expect(facts['Kind']).toMatchObject({
      form: 'choice',
      words: expect.arrayContaining(['duct']),
      optional: false,
    });
    expect(facts['From']).toMatchObject({ form: 'row', to: 'place' });
    expect(facts['Length']).toMatchObject({ form: 'number', unit: 'm' });
    expect(facts['Notes']).toMatchObject({ form: 'text', optional: true });
    for (const kind of kindNames) expect(factFieldsOf(kind).map(({ field }) => field)).not.toContain('id');
  });

  test('a title that says which one it is, for a row of every kind', () => {
    for (const kind of kindNames) {
      const [row] = everything.all(kind);
      if (row === undefined) throw new Error(`no ${kind}`);
      expect([kind, titleOf(everything, kind, row.id)]).toEqual([kind, expect.stringMatching(/\S/)]);
      expect(titleOf(everything, kind, 'nobody')).toBe('');
    }
    const [session] = everything.all('bgpSession');
    expect(titleOf(everything, 'bgpSession', session?.id ?? null)).toMatch(/^[ab] to 10\.1\.0\.7$/);
    const [group] = everything.all('redundancy');
    expect(titleOf(everything, 'redundancy', group?.id ?? null)).toBe('a vlan20 group 1');
  });

  test('a schedule of every kind of the network, leading back to its rows', () => {
    const covered = new Set(reports.map(({ kind }) => kind));
    const left = kindNames.filter(
      (kind) => !covered.has(kind) && kinds[kind].paper !== true && kinds[kind].uncounted !== true,
    );
    expect(left).toEqual(['project']);
    const sessions = findReport('bgp-session')?.make(everything, null);
    expect(sessions?.columns.map(({ label }) => label)).toEqual([
      'Device',
      'VRF',
      'Neighbour',
      'AS of the neighbour',
      'Notes',
    ]);
    expect(sessions?.rows.map((row) => [row['deviceId'], row['neighbour'], row['remoteAs']])).toEqual([
      ['a', '10.1.0.7', 64500],
      ['b', '10.1.0.7', 64500],
    ]);
    // Of one place alone: what refers to a device, port or place there; what is of no place stands in all.
    const quay = [...everything.find('placesByParent', 'root')].find(({ name }) => name === 'Quay')?.id ?? '';
    const inQuay = (key: string): unknown[] =>
      findReport(key)
        ?.make(everything, quay)
        .rows.map((row) => Object.values(row)[0]) ?? [];
    expect(inQuay('bgp-session')).toEqual(['a']);
    expect(inQuay('pathway')).toEqual(['duct']);
    expect(inQuay('port-profile')).toEqual(['desk']);
    expect(new Set(reports.map(({ key }) => key)).size).toBe(reports.length);
  });

  test('whatever has a name is found by it', () => {
    const found = (words: string): string[] =>
      findAnything(everything, words).map(({ kind, title }) => `${kind} ${title}`);
    expect(found('duct')).toContain('pathway duct');
    expect(found('desk')).toEqual(['portProfile desk']);
    expect(found('ship')).toEqual(['siteTemplate ship']);
    expect(found('guest')).toContain('vrf guest');
    expect(found('line card')).toEqual(['model Line card']);
  });

  test('a row of every kind is deleted with what belongs to it, or it is said what holds it', () => {
    for (const kind of kindNames) {
      const [row] = everything.all(kind);
      if (row === undefined || kind === 'project') continue;
      const attempt = deleteRow(everything, kind, row as never);
      if (!attempt.ok)
        expect([kind, attempt.why]).toEqual([
          kind,
          expect.stringMatching(/cannot be deleted: \d+ .* still refer/),
        ]);
      else {
        const applied = applyChanges(everything, attempt.set.changes);
        expect([kind, applied.ok && applied.network.get(kind, row.id)]).toEqual([kind, null]);
        expect(attempt.set.sentence).toMatch(/^Deleted \S/);
      }
    }
  });
});
