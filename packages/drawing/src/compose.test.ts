import { describe, expect, test } from '@jest/globals';
import { overlap, type Box, type KeyEntry, type Scene } from '@visograph/core/sheets';
import { composed, margin } from './compose.ts';
import { keySize, titleBlockHeight, titleBlockWidth } from './Diagram.tsx';
import { paper } from './tokens.ts';

const key: KeyEntry[] = ['copper', 'fibre', 'twinax'].map((medium) => ({
  form: 'link',
  medium: medium as 'copper',
  text: medium,
}));
const titleBlock = { title: 'Sheet', project: 'Project', scope: 'Site', revision: 'r1', date: '2026-01-01' };
const scene = (plates: Box[], box: Box, rest: Partial<Scene> = {}): Scene =>
  ({
    ...{
      form: 'diagram',
      box,
      containers: [],
      links: [],
      bundles: [],
      stubs: [],
      marks: [],
      key,
      titleBlock,
    },
    plates: plates.map((one, at) => ({ id: `p${at}`, box: one })),
    ...rest,
  }) as Scene;

/** Where something was put, from what it is moved by. */
function spotOf(drawn: ReturnType<typeof composed>, name: string): { x: number; y: number } {
  const child = drawn.children.find((one) => one.key === name) as
    { props: { transform: string } } | undefined;
  const [x = NaN, y = NaN] = (child?.props.transform ?? '').match(/-?[\d.]+/g)?.map(Number) ?? [];
  return { x, y };
}

describe('where key and title block stand', () => {
  const box = { x: 0, y: 0, width: 1600, height: 900 };

  test('in corners that the drawing leaves free, which takes no room of the page', () => {
    const drawn = scene([{ x: 40, y: 40, width: 600, height: 400 }], box);
    const made = composed(drawn, paper);
    expect(made.box).toEqual({ x: -margin, y: -margin, width: 1600 + 2 * margin, height: 900 + 2 * margin });
    const keyBox = { ...spotOf(made, 'key'), ...keySize(key) };
    const blockBox = {
      ...spotOf(made, 'block'),
      width: titleBlockWidth(titleBlock),
      height: titleBlockHeight,
    };
    expect(overlap(keyBox, blockBox)).toBe(false);
    for (const one of [keyBox, blockBox]) {
      expect(overlap(one, drawn.plates[0]?.box ?? one)).toBe(false);
      expect(one.x + one.width).toBeLessThanOrEqual(1600);
      expect(one.y + one.height).toBeLessThanOrEqual(900);
    }
  });

  test('below the drawing where it fills its corners: less than an eighth of the page', () => {
    const made = composed(scene([box], box), paper);
    const [at, block] = [spotOf(made, 'key'), spotOf(made, 'block')];
    expect(at.y).toBeGreaterThanOrEqual(900);
    expect(block.y).toBeGreaterThanOrEqual(900);
    expect(overlap({ ...at, ...keySize(key, 3) }, { ...block, width: 10, height: titleBlockHeight })).toBe(
      false,
    );
    expect((made.box.height - 900 - 2 * margin) / made.box.height).toBeLessThan(0.12);
    expect(made.box.width).toBe(1600 + 2 * margin);
  });

  test('a line through a corner keeps the key out of it', () => {
    const points = [
      { x: 1500, y: 0 },
      { x: 1500, y: 900 },
    ];
    const links = [{ drawn: points, points, a: { label: null }, b: { label: null }, label: null }];
    const made = composed(scene([], box, { links } as unknown as Partial<Scene>), paper);
    const at = { ...spotOf(made, 'key'), ...keySize(key) };
    expect(overlap(at, { x: 1500, y: 0, width: 0, height: 900 })).toBe(false);
  });

  test('a small drawing is wide enough for its title block', () => {
    const small = { x: 0, y: 0, width: 120, height: 80 };
    const made = composed(scene([small], small), paper);
    expect(made.box.width).toBeGreaterThanOrEqual(titleBlockWidth(titleBlock) + 2 * margin);
    expect(made.box.height).toBeGreaterThan(80 + titleBlockHeight);
  });
});
