import { beforeAll, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { routedLine } from '@visograph/core/addressing';
import { endPorts, sceneOf, type Scene } from '@visograph/core/sheets';
import { addSheet } from '@visograph/core/sheets';
import type { Network, Sheet } from '@visograph/core/model';
import { measureText } from '@visograph/drawing';
import { ReactFlowProvider } from '@xyflow/react';
import type { ReactNode } from 'react';
import { called, changed, drawn } from '../../../../core/src/testing/testDrawn.ts';
import { useProject } from '../../data/project.tsx';
import { pressNamed, show, type, withSizes } from '../../testing/testScreen.tsx';
import { lineAt } from '../surface/SheetCanvas.tsx';
import { planFor } from '../useScene.ts';
import { FactsPanel } from './FactsPanel.tsx';
import { factOfLine, labelAt, partAt, type FactsShown } from './useFacts.ts';

beforeAll(withSizes);

/** Two routers with a /30 between them and a switch that one hangs on, on a sheet. */
function floor(projection: Sheet['projection']): { network: Network; sheet: Sheet } {
  let network = drawn({ 'rt-1': 'Generic router', 'rt-2': 'Generic router', 'sw-1': 'AX-2424P' });
  const wish = { aDeviceId: called(network, 'rt-1').id, bDeviceId: called(network, 'rt-2').id };
  const line = routedLine(network, wish, { vrfId: null, linksFrom: '10.0.0.0/24', length: 30 });
  if (!line.ok) throw new Error(line.why);
  network = changed(network, line.changes);
  const set = addSheet(network, { scopeId: null, projection });
  network = changed(network, set.changes);
  const sheet = network.get('sheet', set.sheetId);
  if (sheet === null) throw new Error('no sheet');
  return { network, sheet };
}

async function opened(projection: Sheet['projection'], pick: (scene: Scene) => FactsShown) {
  const { network, sheet } = floor(projection);
  const closed = { times: 0 };
  function Held(): ReactNode {
    const now = useProject().view.network;
    const scene = sceneOf(planFor(now, sheet), { measure: measureText });
    return <FactsPanel facts={pick(scene)} scene={scene} onClose={() => closed.times++} />;
  }
  const held = await show(
    <ReactFlowProvider>
      <Held />
    </ReactFlowProvider>,
    { network },
  );
  return { held, closed, field: (name: string) => screen.getByLabelText<HTMLInputElement>(name) };
}
const here = { at: { x: 0, y: 0 }, avoid: [] };
const plates =
  (...names: string[]) =>
  (scene: Scene) => ({
    ...here,
    of: 'plates' as const,
    plates: scene.plates.filter(({ name }) => names.includes(name)),
    fact: null,
  });
const enter = (field: HTMLElement): void => void fireEvent.keyDown(field, { key: 'Enter' });

describe('facts of a plate, edited where they are drawn', () => {
  test('its name is first, and kept with Enter; a name that is taken stays with the reason', async () => {
    const { held, field } = await opened('cabling', plates('rt-1'));
    await waitFor(() => expect(document.activeElement).toBe(field('Name')));
    type(field('Name'), 'rt-2');
    enter(field('Name'));
    await waitFor(() => expect(screen.getByRole('alert').textContent).toContain('rt-2'));
    expect(held.steps()).toEqual([]);
    type(field('Name'), 'edge-1');
    enter(field('Name'));
    await waitFor(() => expect(called(held.network(), 'edge-1')).toBeTruthy());
  });

  test('several at once get another model in one step, with what becomes of their cables', async () => {
    const { held } = await opened('cabling', plates('rt-1', 'rt-2'));
    screen.getByText('2 devices');
    pressNamed(/^Replace/);
    const picker = screen.getByRole<HTMLInputElement>('combobox', { name: 'New model' });
    type(picker, 'AX-2424P');
    fireEvent.click(await screen.findByRole('option', { name: /AX-2424P/ }));
    await screen.findByText('0 cables stay where they are');
    screen.getByText('2 cables move to another port');
    pressNamed('Change 2 models');
    await waitFor(() => expect(held.steps()).toEqual(['Changed the model of 2 devices to Norvane AX-2424P']));
    const [cable] = [...held.network().all('cable')];
    expect(cable?.aPortId !== null && cable?.bPortId !== null).toBe(true);
  });
});

describe('facts of a link, edited where they are drawn', () => {
  const end = (part: 'a' | 'b' | 'middle') => (scene: Scene) => {
    const [link] = scene.links;
    if (link === undefined) throw new Error('no link');
    return { ...here, of: 'link' as const, link, part };
  };

  test('on a sheet of routing its address is first', async () => {
    const { field } = await opened('routing', end('b'));
    await waitFor(() => expect(document.activeElement).toBe(field('Address')));
  });

  test('at its end: the name of the port, and its address with what fits', async () => {
    const { held, field } = await opened('cabling', end('b'));
    await waitFor(() => expect(document.activeElement).toBe(field('Port name')));
    expect(field('Address').value).toMatch(/^10\.0\.0\.[12]\/30$/);
    const other = field('Address').value.startsWith('10.0.0.1') ? '10.0.0.2/30' : '10.0.0.1/30';
    type(field('Address'), other);
    enter(field('Address'));
    await waitFor(() => expect(screen.getByRole('alert').textContent).toContain('is given already'));
    type(field('Address'), '');
    enter(field('Address'));
    await waitFor(() => expect(held.network().count('address')).toBe(1));
    expect(document.querySelector('datalist option')?.getAttribute('value')).toMatch(/^10\.0\.0\.[12]\/30$/);
    type(field('Port name'), 'wan1');
    enter(field('Port name'));
    await waitFor(() => expect([...held.network().all('port')].map(({ name }) => name)).toContain('wan1'));
  });

  test('in its middle: label and length of the cable', async () => {
    const { held, field } = await opened('cabling', end('middle'));
    type(field('Label'), 'X-77');
    enter(field('Label'));
    await waitFor(() => expect([...held.network().all('cable')][0]?.label).toBe('X-77'));
    type(field('Length'), 'far');
    enter(field('Length'));
    await waitFor(() => expect(screen.getByRole('alert').textContent).toContain('not a number'));
  });
});

describe('what was pressed twice', () => {
  test('the line of a plate, by how far down it is', () => {
    const plate = { box: { x: 0, y: 100, width: 100, height: 60 }, lines: ['AX-2424P', 'KQ-A1 U40'] };
    expect([101, 115, 121, 139, 141, 159].map((y) => lineAt(plate, y))).toEqual([null, null, 0, 0, 1, 1]);
    expect(lineAt({ ...plate, lines: [] }, 159)).toBeNull();
  });

  test('is the fact that the line says', () => {
    const { network } = floor('cabling');
    const sw = called(network, 'sw-1');
    expect(factOfLine(network, sw, 'AX-2424P')).toBe('model');
    expect(factOfLine(network, sw, '10.40.1.2')).toBe('address');
    expect(factOfLine(network, sw, '2001:db8::1')).toBe('address');
    expect(factOfLine(network, sw, 'KQ-A1 U40')).toBe('place');
    expect(factOfLine(network, sw, undefined)).toBeNull();
  });

  test('a part of a link is where its label stands', () => {
    const { network, sheet } = floor('cabling');
    const scene = sceneOf(planFor(network, sheet), { measure: measureText });
    const [link] = scene.links;
    if (link === undefined) throw new Error('no link');
    expect(partAt(link, 'a')).toEqual(link.a.at);
    expect(link.points).toContainEqual(partAt(link, 'middle'));
    const plate = scene.plates.find(({ id }) => id === link.a.plateId);
    expect(endPorts(network, link, plate?.deviceIds ?? [])).toHaveLength(1);
    const { box } = link.a.label ?? { box: { x: 0, y: 0, width: 0, height: 0 } };
    const inside = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    expect(labelAt(scene, inside)).toEqual({ link, part: 'a' });
    expect(labelAt(scene, { x: -9999, y: 0 })).toBeNull();
  });
});
