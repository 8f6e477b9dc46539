import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import type { Network } from '../../model/network/network.ts';
import { cableAt, otherEnd, portTitle } from '../../model/network/ports.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import { emptyProject } from '../../testing/testDrawn.ts';
import { deviceNamed, networkOf, portId } from '../../testing/testNetwork.ts';
import { readCableList, type CableRowsRead } from './cableRows.ts';

const listed = (text: string): string[][] =>
  text
    .trim()
    .split('\n')
    .map((line) => line.split('|').map((cell) => cell.trim()));
const read = (network: Network, text: string, placeId: string | null = null): CableRowsRead =>
  readCableList(network, listed(text), null, { placeId });
const made = (network: Network, { set, problem }: CableRowsRead): Network => {
  expect(problem).toBeNull();
  const applied = applyChanges(network, set.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
};
/** What each cable joins, in the order of the names. */
const joined = (network: Network): string[] =>
  [...network.all('cable')]
    .map((cable) =>
      [portTitle(network, cable.aPortId ?? ''), portTitle(network, cable.bPortId ?? '')].sort().join(' '),
    )
    .sort();

const triangle = ['core-1:te1/1 core-2:te1/1', 'core-1:te1/2 edge-1:ge0/1', 'core-2:te1/2 edge-1:ge0/2'];

describe('a table of links over an empty project', () => {
  test.each([
    [
      'device port device port',
      'core-1|te1/1|core-2|te1/1\ncore-1|te1/2|edge-1|ge0/1\ncore-2|te1/2|edge-1|ge0/2',
    ],
    [
      'port device port device',
      'te1/1|core-1|te1/1|core-2\nte1/2|core-1|ge0/1|edge-1\nte1/2|core-2|ge0/2|edge-1',
    ],
    [
      'device device port port',
      'core-1|core-2|te1/1|te1/1\ncore-1|edge-1|te1/2|ge0/1\ncore-2|edge-1|te1/2|ge0/2',
    ],
    ['ends in one cell', 'core-1:te1/1|core-2:te1/1\ncore-1:te1/2|edge-1:ge0/1\ncore-2:te1/2|edge-1:ge0/2'],
    [
      'labels before them',
      'L-1|core-1|te1/1|core-2|te1/1\nL-2|core-1|te1/2|edge-1|ge0/1\nL-3|core-2|te1/2|edge-1|ge0/2',
    ],
    [
      'headings that say neither end',
      'Device|Interface|Device|Interface\ncore-1|te1/1|core-2|te1/1\ncore-1|te1/2|edge-1|ge0/1\ncore-2|te1/2|edge-1|ge0/2',
    ],
    [
      'headings of near and far, turned round',
      'Remote port|Remote device|Local port|Local device\nte1/1|core-2|te1/1|core-1\nge0/1|edge-1|te1/2|core-1\nge0/2|edge-1|te1/2|core-2',
    ],
  ])('%s', (_name, text) => {
    const list = read(emptyProject(), text);
    expect(list.results.map(({ does }) => does)).toEqual(['new', 'new', 'new']);
    expect(list.alsoMade).toBe('3 devices, 6 ports');
    const after = made(emptyProject(), list);
    expect(joined(after)).toEqual(triangle);
    expect(['core-1', 'edge-1'].map((name) => deviceNamed(after, name).role)).toEqual(['SW', 'RT']);
    expect([...after.all('port')]).toHaveLength(6);
  });

  test('read once more it is all there already, and either way round', () => {
    const after = made(emptyProject(), read(emptyProject(), 'a-1|1/1|b-1|1/1\na-1|1/2|b-1|1/2'));
    const again = read(after, 'b-1|1/1|a-1|1/1\na-1|1/2|b-1|1/2');
    expect(again.results.map(({ does }) => does)).toEqual(['same', 'same']);
    expect(again.set.changes).toEqual([]);
  });

  test('new devices stand in the given place', () => {
    const quay = networkOf({ places: [{ path: 'Quay' }] });
    const [place] = quay.all('place');
    const after = made(quay, read(quay, 'a-1|1/1|b-1|1/1', place?.id ?? null));
    expect(deviceNamed(after, 'b-1').placeId).toBe(place?.id);
  });

  test('what only a bad row names is not made; each such row says why', () => {
    const list = read(emptyProject(), 'a-1|1/1|b-1|1/1\na-1|1/1|c-1|1/1\na-1|1/2|a-1|1/2\nd-1||b-1|1/9');
    expect(list.results.map(({ does, detail }) => `${does}: ${detail}`)).toEqual([
      'new: a-1:1/1 – b-1:1/1',
      'cannot: a-1:1/1 is taken by row 1',
      'cannot: both ends are a-1:1/2',
      'cannot: the port of d-1 is missing',
    ]);
    expect(list.alsoMade).toBe('2 devices, 2 ports');
    const after = made(emptyProject(), list);
    expect([...after.all('device')].map(({ name }) => name).sort()).toEqual(['a-1', 'b-1']);
  });
});

describe('a table of links over what is there', () => {
  const demo = demoNetwork();

  test('devices that are there are joined at their ports, a model that has no such port says so', () => {
    const list = read(
      demo,
      'A device|A port|B device|B port\nkq-acc-1|nope/1|new-1|eth0\nnew-2|eth0|new-1|eth1',
    );
    expect(list.results[0]?.detail).toContain('kq-acc-1 has no port nope/1');
    expect(list.results[1]?.does).toBe('new');
    expect(list.alsoMade).toBe('2 devices, 2 ports');
  });

  test('a new device takes the plug of the port that it is joined to', () => {
    const free = [...demo.all('port')].find(
      (port) => port.connector === 'SFP+' && cableAt(demo, port.id) === null && port.form === 'physical',
    );
    if (free === undefined) throw new Error('no free cage');
    const device = demo.get('device', free.deviceId)?.name ?? '';
    const after = made(demo, read(demo, `A device|A port|B device|B port\n${device}|${free.name}|new-1|te1`));
    const port = after.get('port', portId(after, 'new-1:te1'));
    expect([port?.connector, port?.speedBps]).toEqual(['SFP+', free.speedBps]);
    expect(otherEnd(after, cableAt(after, free.id) ?? fail(), free.id)).toBe(port?.id);
  });

  test('without that wish nothing is made: the rows say what is missing, as they did', () => {
    const list = readCableList(demo, listed('A device|A port|B device|B port\nnew-1|eth0|new-2|eth0'));
    expect(list.results[0]?.detail).toBe('there is no device new-1');
    expect([list.alsoMade, list.set.changes]).toEqual(['', []]);
  });
});

const fail = (): never => {
  throw new Error('no cable is there');
};
