import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { Presence, type Here, type Peer } from './presence.ts';

const here = (x: number, selection: string[] = []): Here => ({ sheetId: 'S', at: { x, y: 0 }, selection });
const peer = (id: string, name = id): Peer => ({ peer: id, name, sheetId: 'S', at: null, selection: [] });

beforeEach(() => void jest.useFakeTimers({ now: 1_000_000 }));
afterEach(() => void jest.useRealTimers());

const told = () => {
  const said: Here[] = [];
  const presence = new Presence((text) => said.push(JSON.parse(text) as Here));
  return { presence, said };
};

describe('where somebody is on a sheet', () => {
  test('many movements are told a few times, the latest always, the same only once', () => {
    const { presence, said } = told();
    for (let x = 0; x < 50; x++) presence.tell(here(x));
    jest.advanceTimersByTime(60);
    expect(said.map(({ at }) => at?.x)).toEqual([49]);
    presence.tell(here(49));
    jest.advanceTimersByTime(500);
    expect(said).toHaveLength(1);
    presence.tell(here(50));
    presence.tell(here(51));
    jest.advanceTimersByTime(60);
    expect(said.map(({ at }) => at?.x)).toEqual([49, 51]);
  });

  test('of a large selection the first six are told', () => {
    const { presence, said } = told();
    presence.tell(here(0, [...'abcdefghij']));
    jest.advanceTimersByTime(60);
    expect(said[0]?.selection).toEqual([...'abcdef']);
  });

  test('over a line that opens later it is said again, unless it was never said or is on its way', () => {
    const { presence, said } = told();
    presence.repeat();
    expect(said).toEqual([]);
    presence.tell(here(7));
    presence.repeat();
    expect(said).toEqual([]);
    jest.advanceTimersByTime(60);
    presence.repeat();
    expect(said.map(({ at }) => at?.x)).toEqual([7, 7]);
  });
});

describe('where the others are', () => {
  test('each is there once, as last heard; those who leave go', () => {
    const { presence } = told();
    const heard: number[] = [];
    const leave = presence.subscribe(() => heard.push(presence.current().length));
    presence.take(peer('a', 'Anna'));
    presence.take(peer('b', 'Ben'));
    presence.take({ ...peer('a', 'Anna'), selection: ['x'] });
    expect(presence.current().map(({ name }) => name)).toEqual(['Ben', 'Anna']);
    expect(presence.current().at(-1)?.selection).toEqual(['x']);
    presence.drop('b');
    presence.clear();
    expect(heard).toEqual([1, 2, 2, 1, 0]);
    leave();
    presence.take(peer('c'));
    expect(heard).toHaveLength(5);
  });

  test('who says nothing for a minute is taken for gone when somebody else is heard', () => {
    const { presence } = told();
    presence.take(peer('quiet'));
    jest.advanceTimersByTime(61_000);
    presence.take(peer('loud'));
    expect(presence.current().map(({ name }) => name)).toEqual(['loud']);
  });
});
