import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { linkFacets } from '../../model/kinds/drawings/sheet.ts';
import { facets, type Facet } from '../../model/values/facts.ts';
import { runs } from '../../testing/testRuns.ts';
import {
  line,
  nothingTold,
  say,
  sayChips,
  shownOf,
  told,
  type Said,
  type ToldGraph,
  type ToldLink,
  type ToldNode,
} from './told.ts';

const node = (fields: Partial<ToldNode>): ToldNode => ({
  id: 'n',
  form: 'device',
  deviceIds: [],
  subjects: [],
  role: 'SW',
  code: say('SW'),
  name: say('kq-1', 'names'),
  lines: [],
  mostLines: 4,
  containerId: null,
  outside: false,
  planned: false,
  retired: false,
  shade: { scale: 'role', family: 'forwarding' },
  symbol: null,
  sheetId: null,
  ...fields,
});
const link = (fields: Partial<ToldLink>): ToldLink => ({
  id: 'l',
  of: { kind: 'cable', id: 'c', label: 'KQ-00001' },
  cables: [],
  a: 'n',
  b: 'm',
  aPort: told(),
  bPort: told(),
  text: told(),
  ties: [null, null],
  aOrdinal: 0,
  medium: 'copper',
  jacket: null,
  shade: null,
  management: false,
  ...fields,
});
const graph = (fields: Partial<ToldGraph>): ToldGraph => ({ ...nothingTold(), ...fields });
const usual = () => linkFacets;

describe('what a sheet shows of what is told', () => {
  test('a piece is said where all that it tells is shown; what is left is set apart as it was', () => {
    const text = told(
      say('Ferrylink', 'names', 'cableLabels'),
      say('KQ-00001', 'cableLabels'),
      say('25G', 'speeds'),
    );
    const of = (...show: Facet[]): string | undefined =>
      shownOf(graph({ links: [link({ text })] }), { show }, () =>
        linkFacets.filter((one) => show.includes(one)),
      ).links[0]?.text;
    expect(of('names', 'cableLabels', 'speeds')).toBe('Ferrylink · KQ-00001 · 25G');
    expect(of('cableLabels', 'speeds')).toBe('KQ-00001 · 25G');
    expect(of('names', 'speeds')).toBe('25G');
    expect(of('names')).toBe('');
  });

  test('one link can tell more than its sheet does, of what labels tell; names follow the sheet', () => {
    const text = told(say('Ferrylink', 'names'), say('KQ-00001', 'cableLabels'));
    const shown = shownOf(graph({ links: [link({ text })] }), { show: [] }, () => ['cableLabels']);
    expect(shown.links[0]?.text).toBe('KQ-00001');
  });

  test('lines that are hidden leave their room to the next ones; the last line stands in any case', () => {
    const lines = [
      line(say('CR-6032', 'models')),
      line(say('KQ-A1 U38', 'places')),
      line(say('10.40.0.1', 'addresses')),
    ];
    const of = (...show: Facet[]) =>
      shownOf(graph({ nodes: [node({ lines, mostLines: 1, lastLine: say('pair') })] }), { show }, usual)
        .nodes[0]?.lines;
    expect(of('models', 'places')).toEqual(['CR-6032', 'pair']);
    expect(of('places', 'addresses')).toEqual(['KQ-A1 U38', 'pair']);
    expect(of()).toEqual(['pair']);
  });

  test('coloured pieces stay on their letters, whatever is said before them', () => {
    const vlans = sayChips(
      {
        text: '999 10',
        chips: [
          { from: 0, to: 3, colour: null, framed: true },
          { from: 4, to: 6, colour: 2, framed: false },
        ],
      },
      'vlanTags',
    );
    const of = (tells: ('portNames' | 'vlanTags')[]) => {
      const [one] = shownOf(
        graph({ links: [link({ aPort: line(say('te1/1', 'portNames'), vlans) })] }),
        { show: [] },
        () => tells,
      ).links;
      return (one?.aChips ?? []).map(({ from, to }) => one?.aPort.slice(from, to));
    };
    expect(of(['portNames', 'vlanTags'])).toEqual(['999', '10']);
    expect(of(['vlanTags'])).toEqual(['999', '10']);
    expect(of(['portNames'])).toEqual([]);
  });

  test('property: nothing is said whose kind of fact is hidden, and all is said whose kinds are shown', () => {
    const piece = fc
      .tuple(fc.integer({ min: 0, max: 999 }), fc.subarray([...facets], { maxLength: 2 }))
      .map(([number, needs]): Said => say(`«${needs.join('+')}:${number}»`, ...needs));
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 6 }), fc.subarray([...facets]), (pieces, show) => {
        const read = graph({
          nodes: [node({ name: pieces[0] ?? say(''), lines: pieces.map((one) => line(one)), mostLines: 9 })],
          links: [link({ aPort: told(...pieces), bPort: line(...pieces), text: told(...pieces) })],
        });
        const text = JSON.stringify(
          shownOf(read, { show }, () => linkFacets.filter((one) => show.includes(one))),
        );
        for (const { text: said, needs } of pieces)
          expect([said, text.includes(said)]).toEqual([said, needs.every((facet) => show.includes(facet))]);
      }),
      { numRuns: runs(100) },
    );
  });
});
