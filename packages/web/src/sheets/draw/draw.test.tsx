import { beforeAll, describe, expect, test } from '@jest/globals';
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { Network } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { demoNetwork } from '../../../../core/src/testing/testDemo.ts';
import { drawn, emptyProject } from '../../../../core/src/testing/testDrawn.ts';
import { press, pressNamed, rowNamed, show, type, withSizes } from '../../testing/testScreen.tsx';
import { beside } from './Afloat.tsx';
import { Palette } from './Palette.tsx';
import { besideOthers, facing, sideMiddle, withinView } from './PortRow.tsx';
import { TypedPanel } from './TypedPanel.tsx';
import { noteUsed, usedLately } from './usedLately.ts';
import { useFresh } from './useFresh.ts';
import { newPlateSize, type Stamp } from './useStamp.ts';
import type { Renaming } from '../surface/sheetNodes.tsx';

beforeAll(withSizes);

describe('the palette', () => {
  async function opened(network: Network = emptyProject()) {
    const put: Stamp[] = [];
    const taken: Stamp[] = [];
    let closed = 0;
    function Held(): ReactNode {
      const [stamp, setStamp] = useState<Stamp | null>(null);
      return (
        <Palette
          stamp={stamp}
          onTake={(next) => {
            taken.push(next);
            setStamp(next);
          }}
          onCarry={() => undefined}
          onPut={(next) => put.push(next)}
          onClose={() => closed++}
        />
      );
    }
    await show(<Held />, { network });
    const palette = screen.getByRole('complementary', { name: 'Models' });
    const find = within(palette).getByRole<HTMLInputElement>('textbox', { name: 'Find a role or model' });
    return { put, taken, palette, find, closed: () => closed };
  }
  const modelOf = (network: Network, name: string): string => rowNamed(network, 'model', name).id;

  test('opens with its search focused, roles first; Enter puts the first that fits in the middle', async () => {
    const network = emptyProject();
    const { put, palette, find } = await opened(network);
    expect(document.activeElement).toBe(find);
    expect(within(palette).getAllByRole('heading', { level: 3 })[0]?.textContent).toBe('By role');
    type(find, 'router');
    fireEvent.keyDown(find, { key: 'Enter' });
    expect(put).toEqual([
      { modelId: modelOf(network, 'Generic router'), count: 1, formation: 'row', joined: false },
    ]);
  });

  test('words of maker, model and ports narrow it; what fits nothing is said', async () => {
    const { palette, find } = await opened();
    type(find, 'norvane 2448');
    await waitFor(() =>
      expect(within(palette).getByRole('button', { name: 'SW Norvane AX-2448P' })).toBeTruthy(),
    );
    expect(within(palette).queryByRole('button', { name: /router/ })).toBeNull();
    type(find, 'nothing such');
    await waitFor(() => expect(palette.textContent).toContain('Nothing in the catalogue is called'));
  });

  test('pressed with the pointer it is in hand; how many and how are changed while it is', async () => {
    const network = emptyProject();
    const { taken, palette } = await opened(network);
    fireEvent.click(within(palette).getByRole('button', { name: 'RT router' }), { detail: 1 });
    expect(taken.at(-1)).toMatchObject({ modelId: modelOf(network, 'Generic router'), count: 1 });
    type(within(palette).getByRole<HTMLInputElement>('textbox', { name: 'How many' }), '5');
    fireEvent.click(within(palette).getByRole('radio', { name: 'ring' }));
    fireEvent.click(within(palette).getByRole('checkbox', { name: 'Join them' }));
    await waitFor(() => expect(taken.at(-1)).toMatchObject({ count: 5, formation: 'ring', joined: true }));
    type(within(palette).getByRole<HTMLInputElement>('textbox', { name: 'How many' }), '61');
    await waitFor(() => expect(palette.textContent).toContain('1 to 60'));
    expect(taken.at(-1)).toMatchObject({ count: 5 });
  });

  test('arrows walk the list, Enter on an entry puts it, Escape closes', async () => {
    const { put, palette, find, closed } = await opened();
    fireEvent.keyDown(find, { key: 'ArrowDown' });
    const [first] = within(palette).getAllByRole('button', { name: /^[A-Z]{2} / });
    expect(document.activeElement).toBe(first);
    if (first !== undefined) fireEvent.click(first, { detail: 0 });
    expect(put).toHaveLength(1);
    fireEvent.keyDown(find, { key: 'Escape' });
    expect(closed()).toBe(1);
  });
});

describe('as text', () => {
  async function opened(network: Network, deviceIds: readonly string[] = []) {
    const previews: (Network | null)[] = [];
    const taken: string[][] = [];
    const held = await show(
      <TypedPanel
        sheetId="one"
        deviceIds={deviceIds}
        placeId={null}
        onPreview={(next) => previews.push(next)}
        onTaken={(ids) => taken.push(ids)}
        onClose={() => undefined}
      />,
      { network },
    );
    const text = screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Topology, one link a line' });
    return { held, previews, taken, text };
  }

  test('what is typed is shown before it is taken over, then made in one step; wrong lines stay', async () => {
    const { held, previews, taken, text } = await opened(emptyProject());
    type(text, 'core-1 core-2 x2\na b c');
    await screen.findByText('+2 devices, +2 cables');
    expect(previews.at(-1)?.count('device')).toBe(2);
    expect(held.steps()).toEqual([]);
    expect(screen.getByRole('list', { name: 'Lines that are wrong' }).textContent).toContain(
      '2“a b c” cannot be read.',
    );
    pressNamed(/^Take the good lines/);
    await waitFor(() => expect(held.steps()).toEqual(['Typed 2 devices, 2 cables']));
    expect(text.value).toBe('a b c');
    expect(taken.at(-1)).toHaveLength(2);
    expect(held.network().count('cable')).toBe(2);
  });

  test('Ctrl and Enter take what stands there; a text that makes nothing says so', async () => {
    const { held, text } = await opened(emptyProject());
    type(text, 'core-7 core-8');
    fireEvent.keyDown(text, { key: 'Enter', ctrlKey: true });
    await waitFor(() => expect(held.steps()).toEqual(['Typed 2 devices, 1 cable']));
    type(text, 'core-7 core-8');
    fireEvent.keyDown(text, { key: 'Enter', ctrlKey: true });
    await screen.findByText('Nothing of it is new: there is nothing to take over.');
    expect(held.steps()).toHaveLength(1);
  });

  test('read back over itself there is nothing new', async () => {
    const demo = demoNetwork();
    const ids = ['kq-core-1', 'kq-acc-1'].map((name) => rowNamed(demo, 'device', name).id);
    const { held, text } = await opened(demo, ids);
    pressNamed('Read back');
    await waitFor(() => expect(text.value).toContain('kq-acc-1'));
    expect(text.value).toMatch(/^kq-acc-1 \S+ -- kq-core-1 \S+$/m);
    await screen.findByText('nothing new');
    expect(held.steps()).toEqual([]);
  });

  test('what was typed is there again when the panel is opened anew', async () => {
    const network = emptyProject();
    function Shut(): ReactNode {
      const [open, setOpen] = useState(true);
      return open ? (
        <TypedPanel
          sheetId="two"
          deviceIds={[]}
          placeId={null}
          onPreview={() => undefined}
          onTaken={() => undefined}
          onClose={() => setOpen(false)}
        />
      ) : (
        <button onClick={() => setOpen(true)}>Open</button>
      );
    }
    await show(<Shut />, { network });
    const text = () =>
      screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Topology, one link a line' });
    expect(text().value).toBe('');
    type(text(), 'core-1 core-2');
    fireEvent.keyDown(text(), { key: 'Escape' });
    fireEvent.click(await screen.findByRole('button', { name: 'Open' }));
    expect(text().value).toBe('core-1 core-2');
  });

  test('with a key, by Ctrl and Enter', async () => {
    const { held, text } = await opened(emptyProject());
    type(text, 'ring of 3 routers');
    await screen.findByText('+3 devices, +3 cables');
    fireEvent.keyDown(text, { key: 'Enter', ctrlKey: true });
    await waitFor(() => expect(held.steps()).toEqual(['Typed 3 devices, 3 cables']));
  });
});

test('just typing names what was put down; any other key or press ends that', async () => {
  const renamed: Renaming[] = [];
  let fresh: (id: string | null) => void = () => undefined;
  function Held(): ReactNode {
    fresh = useFresh((renaming) => renamed.push(renaming));
    return <input aria-label="elsewhere" />;
  }
  await show(<Held />, { network: emptyProject() });
  act(() => fresh('one'));
  fireEvent.keyDown(screen.getByRole('textbox', { name: 'elsewhere' }), { key: 'x' });
  expect(renamed).toEqual([]);
  fireEvent.keyDown(document.body, { key: 'c' });
  expect(renamed).toEqual([{ id: 'one', typed: 'c' }]);
  act(() => fresh('two'));
  fireEvent.keyDown(document.body, { key: 'Delete' });
  fireEvent.keyDown(document.body, { key: 'c' });
  act(() => fresh('three'));
  press(document.body);
  fireEvent(window, new MouseEvent('pointerdown'));
  fireEvent.keyDown(document.body, { key: 'c' });
  expect(renamed).toHaveLength(1);
});

test('the side of a plate that faces a point, and its middle', () => {
  const box = { x: 100, y: 100, width: 160, height: 40 };
  expect(facing(box, { x: 180, y: 90 })).toBe('top');
  expect(facing(box, { x: 180, y: 139 })).toBe('bottom');
  expect(facing(box, { x: 102, y: 120 })).toBe('left');
  expect(facing(box, { x: 500, y: 130 })).toBe('right');
  expect(sideMiddle(box, 'right')).toEqual({ x: 260, y: 120 });
  expect(sideMiddle(box, 'top')).toEqual({ x: 180, y: 100 });
});

test('a row that would lie beyond the edge of the view opens on the side across', () => {
  const view = { width: 800, height: 600 };
  const at = (x: number, y: number) => ({ x, y, width: 160, height: 40 });
  const plain = { x: 0, y: 0, zoom: 1 };
  expect(withinView('bottom', at(300, 550), plain, view)).toBe('top');
  expect(withinView('bottom', at(300, 300), plain, view)).toBe('bottom');
  expect(withinView('top', at(300, 10), plain, view)).toBe('bottom');
  expect(withinView('right', at(600, 300), plain, view)).toBe('left');
  expect(withinView('left', at(600, 300), { x: -590, y: 0, zoom: 1 }, view)).toBe('right');
});

test('a panel stays within the view and off the plates, where there is room', () => {
  const view = { width: 900, height: 600 };
  const size = { width: 300, height: 200 };
  const plates = [
    { x: 300, y: 220, width: 160, height: 40 },
    { x: 620, y: 400, width: 160, height: 40 },
  ];
  for (const at of [
    { x: 540, y: 330 },
    { x: 880, y: 20 },
    { x: 0, y: 600 },
  ]) {
    const { left, top } = beside(at, size, view, plates);
    expect(left >= 0 && top >= 0 && left + size.width <= view.width && top + size.height <= view.height).toBe(
      true,
    );
    for (const box of plates) {
      const apart =
        left >= box.x + box.width ||
        left + size.width <= box.x ||
        top >= box.y + box.height ||
        top + size.height <= box.y;
      expect(apart).toBe(true);
    }
  }
});

test('models used lately are kept for each project, newest first, six of them', () => {
  localStorage.clear();
  for (const id of ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'c']) noteUsed('one', id);
  expect(usedLately('one')).toEqual(['c', 'g', 'f', 'e', 'd', 'b']);
  expect(usedLately('two')).toEqual([]);
  localStorage.setItem('visograph.usedLately.two', '{broken');
  expect(usedLately('two')).toEqual([]);
});

test('a new plate is as wide as its name or its model', () => {
  const network = drawn({ 'rt-1': 'Generic router' });
  const wide = newPlateSize(network, rowNamed(network, 'model', 'Generic 24-port fibre panel').id, null);
  const narrow = newPlateSize(network, rowNamed(network, 'model', 'CM-1').id, null);
  expect(wide.width).toBeGreaterThan(narrow.width);
  expect(wide.width % 16).toBe(0);
});

test('a row of ports lies over no other plate: it changes sides, and stays where all are taken', () => {
  const view = { x: 0, y: 0, zoom: 0.5 };
  const own = { x: 400, y: 400, width: 160, height: 64 };
  const right = { x: 580, y: 400, width: 160, height: 64 };
  const below = { x: 400, y: 480, width: 160, height: 64 };
  const above = { x: 400, y: 330, width: 160, height: 64 };
  const left = { x: 220, y: 400, width: 160, height: 64 };
  expect(besideOthers('right', own, [], view, 130)).toBe('right');
  expect(besideOthers('right', own, [right], view, 130)).toBe('bottom');
  expect(besideOthers('right', own, [right, below], view, 130)).toBe('top');
  expect(besideOthers('bottom', own, [below, above, right], view, 130)).toBe('left');
  expect(besideOthers('right', own, [right, below, above, left], view, 130)).toBe('right');
  // A row of many ports is wider than its plate.
  const aside = { x: 620, y: 480, width: 160, height: 64 };
  expect(besideOthers('bottom', own, [aside], view, 130)).toBe('bottom');
  expect(besideOthers('bottom', own, [aside], view, 320)).toBe('top');
});
