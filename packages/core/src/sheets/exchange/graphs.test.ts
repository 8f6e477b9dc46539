import { describe, expect, test } from '@jest/globals';
import { newId } from '../../model/values/ids.ts';
import { usualFacets } from '../../model/kinds/drawings/projections.ts';
import { blankSheet } from '../../model/kinds/drawings/sheet.ts';
import { planOf } from '../projection/plan.ts';
import { smallRoom } from '../../testing/testNetwork.ts';
import { sheetToDot, sheetToGraphml } from './graphs.ts';
import { readExchange } from '../../exchange/read.ts';
import { readTopology, sheetToTopology } from './topology.ts';

const network = smallRoom();
const sheet = { ...blankSheet, id: newId(), name: 'Room & "more"' };
const graphOf = (fields = {}) => planOf(network, { ...sheet, ...fields }, { today: '2026-11-23' }).graph;

describe('graphs out', () => {
  test('GraphML holds every plate and link, with what XML forbids escaped', () => {
    const text = sheetToGraphml(sheet.name, graphOf());
    expect(text).toContain('<graph id="Room &amp; &quot;more&quot;" edgedefault="undirected">');
    expect(text.match(/<node /g)).toHaveLength(4);
    expect(text.match(/<edge /g)).toHaveLength(3);
    expect(text).toContain('<data key="sourcePort">te1/1</data>');
  });
  test('DOT has a cluster for each container and ports at the ends', () => {
    const text = sheetToDot(sheet.name, graphOf());
    expect(text.startsWith('graph "Room & \\"more\\"" {')).toBe(true);
    expect(text.match(/subgraph "cluster_/g)).toHaveLength(1);
    expect(text).toContain('taillabel="te1/1"');
  });
  test('what is hidden on the sheet is in none of them', () => {
    const show = usualFacets.filter((facet) => !['names', 'cableLabels', 'portNames'].includes(facet));
    const graph = graphOf({ show });
    const all = [
      sheetToGraphml('x', graph),
      sheetToDot('x', graph),
      JSON.stringify(sheetToTopology('x', graph)),
    ].join('\n');
    expect(all).not.toMatch(/kq-core-1|KQ-0000\d|te1\/1/);
  });
});

describe('topology after RFC 8345', () => {
  const out = JSON.stringify(sheetToTopology('Room', graphOf()));
  test('written and read back: the same devices, ports and cables', () => {
    const read = readTopology(out, 'Hall');
    if (!read.ok) throw new Error(read.problems[0]?.message);
    expect(read.file.devices?.map((device) => device.name).sort()).toEqual(
      ['KQ-A1-PP1', 'KQ-A2-PP1', 'kq-acc-1', 'kq-core-1'].sort(),
    );
    expect(read.file.cables?.map((cable) => [cable.label, cable.a, cable.b])).toContainEqual([
      'KQ-00001',
      'kq-core-1:te1/1',
      'KQ-A1-PP1:F1',
    ]);
    const empty = readExchange(smallRoom(), { ...read.file, devices: [], cables: [] });
    expect(empty.ok).toBe(true);
  });
  test('two opposite links are one cable', () => {
    const link = (id: string, from: string, to: string) => ({
      'link-id': id,
      source: { 'source-node': from, 'source-tp': '1' },
      destination: { 'dest-node': to, 'dest-tp': '1' },
    });
    const text = JSON.stringify({
      'ietf-network:networks': {
        network: [
          {
            'network-id': 'n',
            node: [{ 'node-id': 'a:1' }, { 'node-id': 'b' }],
            'ietf-network-topology:link': [link('one', 'a:1', 'b'), link('two', 'b', 'a:1')],
          },
        ],
      },
    });
    const read = readTopology(text, null);
    expect(read.ok && read.file.cables).toEqual([{ label: 'one', a: 'a-1:1', b: 'b:1' }]);
  });
  test.each([
    ['{', '$', /not JSON/],
    ['{"a": 1}', '$.ietf-network:networks', /RFC 8345/],
    [
      JSON.stringify({
        'ietf-network:networks': {
          network: [
            {
              'network-id': 'n',
              node: [{ 'node-id': 'a' }],
              'ietf-network-topology:link': [
                { 'link-id': 'l', source: { 'source-node': 'a' }, destination: { 'dest-node': 'gone' } },
              ],
            },
          ],
        },
      }),
      '$.ietf-network:networks.network[0].link[0]',
      /“gone”/,
    ],
  ])('what cannot be read is told with its place: %s', (text, path, message) => {
    const read = readTopology(text, null);
    expect(read.ok ? null : read.problems[0]?.path).toBe(path);
    expect(read.ok ? '' : read.problems[0]?.message).toMatch(message);
  });
});
