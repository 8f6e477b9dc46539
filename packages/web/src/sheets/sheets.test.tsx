import { beforeAll, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { Network, Sheet } from '@visograph/core/model';
import { sceneOf, type Plate } from '@visograph/core/sheets';
import { measureText } from '@visograph/drawing';
import { useMemo, useState, type ReactNode } from 'react';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { useProject } from '../data/project.tsx';
import { drawnNowhere } from '../testing/drawnNowhere.ts';
import { press, pressNamed, rowNamed, show, type, withSizes } from '../testing/testScreen.tsx';
import { SheetPath } from './SheetPath.tsx';
import SheetsSection from './SheetsSection.tsx';
import { ChosenTools } from './tools/ChosenTools.tsx';
import { DataStrip } from './tools/DataStrip.tsx';
import { DeleteAsk } from './tools/DeleteAsk.tsx';
import { SheetReads } from './tools/SheetReads.tsx';
import { ShowPanel } from './tools/ShowPanel.tsx';
import { Tray } from './tools/Tray.tsx';
import { planFor } from './useScene.ts';
import { useSheetActs, type SheetActs } from './useSheetActs.ts';

beforeAll(() => {
  withSizes();
  drawnNowhere();
});
const demo = demoNetwork();
const quay = rowNamed(demo, 'sheet', 'Data room · cabling');

let acts: SheetActs;
let plates: readonly Plate[];
const plate = (name: string): Plate => {
  const found = plates.find((one) => one.name === name);
  if (found === undefined) throw new Error(`no plate ${name}: ${plates.map((one) => one.name).join()}`);
  return found;
};

/** What was duplicated. */
const copies: string[][] = [];
/** A sheet with its scene as the browser works it out, and what can be done with the plates of these names. */
function Bench({ chosen = [], of = quay }: { chosen?: readonly string[]; of?: Sheet }): ReactNode {
  const { network } = useProject().view;
  const sheet = network.get('sheet', of.id) ?? of;
  const plan = planFor(network, sheet);
  const scene = useMemo(() => sceneOf(plan, { measure: measureText }), [plan]);
  acts = useSheetActs(sheet, plan, scene);
  plates = scene.plates;
  const picked = scene.plates.filter(({ name }) => chosen.includes(name));
  const [asking, setAsking] = useState(false);
  const [duplicating, setDuplicating] = useState(false);
  return (
    <>
      <ChosenTools
        sheet={sheet}
        containers={scene.containers}
        plates={picked}
        markIds={[]}
        acts={acts}
        onTidy={() => undefined}
        onDelete={() => setAsking(true)}
        onGroup={() => undefined}
        onJoin={null}
        onApart={() => undefined}
        onFacts={() => undefined}
        duplicating={duplicating}
        onDuplicating={setDuplicating}
        onCopied={(ids) => copies.push(ids)}
      />
      {asking && (
        <DeleteAsk sheet={sheet} plates={picked} markIds={[]} acts={acts} onClose={() => setAsking(false)} />
      )}
      <Tray sheet={sheet} plan={plan} scene={scene} acts={acts} />
      <DataStrip scene={scene} />
    </>
  );
}
const open = (chosen: readonly string[] = [], network: Network = demo) =>
  show(<Bench chosen={chosen} />, { network, at: `sheets/${quay.id}` });
const place = (network: Network, name: string) =>
  network
    .find('sheetItemsBySheet', quay.id)
    .find(({ subjectId }) => subjectId === rowNamed(network, 'device', name).id) ?? null;

describe('what can be done with plates', () => {
  test('aligned they stand at one edge, as one step', async () => {
    const held = await open(['kq-acc-3', 'kq-acc-4']);
    acts.arrange('left', [plate('kq-acc-3'), plate('kq-acc-4')], []);
    await waitFor(() => expect(held.steps()).toEqual(['Arranged 2 plates on sheet Data room · cabling']));
    expect(place(held.network(), 'kq-acc-3')?.x).toBe(place(held.network(), 'kq-acc-4')?.x);
  });

  test('the first that is moved fixes all others where they are', async () => {
    const held = await open();
    const before = plate('kq-acc-4').box;
    acts.keepMoved({ plates: new Map([[plate('kq-acc-3').id, { x: 4000, y: 96 }]]), marks: new Map() });
    await waitFor(() => expect(held.steps()).toEqual(['Moved kq-acc-3 on sheet Data room · cabling']));
    expect(place(held.network(), 'kq-acc-3')).toMatchObject({ x: 4000, y: 96 });
    expect(place(held.network(), 'kq-acc-4')).toMatchObject({
      x: Math.round(before.x),
      y: Math.round(before.y),
    });
  });

  test('locked and unlocked, told by name or number', async () => {
    const held = await open(['kq-acc-3']);
    pressNamed('Lock');
    await waitFor(() => expect(held.steps()).toEqual(['Locked kq-acc-3 on sheet Data room · cabling']));
    await waitFor(() => expect(screen.getByRole('button', { name: 'Unlock' })).toBeTruthy());
    pressNamed('Unlock');
    await waitFor(() => expect(place(held.network(), 'kq-acc-3')?.locked ?? false).toBe(false));
  });

  test('a group is given a name', async () => {
    const held = await open(['kq-acc-3', 'kq-acc-4']);
    pressNamed('Group');
    const form = await screen.findByRole('form', { name: 'Group' });
    pressNamed('Group', form);
    await screen.findByText('Name of the group is empty.');
    type(within(form).getByRole('textbox', { name: 'Name of the group' }), 'Access, hall');
    pressNamed('Group', form);
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect(held.network().get('sheet', quay.id)?.groups).toMatchObject([{ name: 'Access, hall' }]);
  });

  test('left out it stays in the network, and waits to be put back', async () => {
    const held = await open(['kq-acc-3']);
    pressNamed('Delete …');
    pressNamed(/^From this sheet: leave out kq-acc-3, it stays/);
    const tray = await screen.findByRole('region', { name: 'Not on the sheet' });
    expect(tray.textContent).toContain('Left out · 1');
    expect(held.network().count('device')).toBe(demo.count('device'));
    pressNamed('Put back', tray);
    await waitFor(() => expect(screen.queryByRole('region', { name: 'Not on the sheet' })).toBeNull());
  });

  test('deleted from the network it goes with its ports, which is said before', async () => {
    const held = await open(['kq-acc-3']);
    pressNamed('Delete …');
    pressNamed(/^From the network: delete kq-acc-3 with \d+ ports and what is cabled to them$/);
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect([...held.network().all('device')].some(({ name }) => name === 'kq-acc-3')).toBe(false);
  });

  test('a name is changed where it is drawn', async () => {
    const held = await open();
    acts.rename(plate('kq-acc-3'), 'kq-acc-33');
    await waitFor(() => expect(held.steps()).toEqual(['Renamed kq-acc-3 to kq-acc-33']));
  });

  test('a model that is let go over a place becomes a device there, under the next name', async () => {
    const held = await open();
    const model = rowNamed(demo, 'model', 'AX-2424P');
    const [made = null] = acts.draw({
      modelId: model.id,
      at: { x: plate('kq-acc-3').box.x, y: plate('kq-acc-3').box.y },
    });
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect(held.network().get('device', made)).toMatchObject({ role: 'SW', modelId: model.id });
  });

  test('copied devices are pasted with new names; a copy of nothing pastes nothing', async () => {
    const held = await open();
    acts.copy([], []);
    expect(acts.pasteDevices()).toEqual([]);
    acts.copy([plate('kq-acc-3')], []);
    expect(acts.pasteDevices()).toHaveLength(1);
    await waitFor(() => expect(held.network().count('device')).toBe(demo.count('device') + 1));
  });
});

describe('what is chosen is there again', () => {
  test('said before it is made: names, ports and addresses counted on, each one step further', async () => {
    const held = await open(['kq-acc-3']);
    pressNamed(/^Duplicate/);
    const field = await screen.findByRole('textbox', { name: 'Copies' });
    expect(document.activeElement).toBe(field);
    type(field, '2');
    await screen.findByText(/^Makes kq-acc-\d+ to kq-acc-\d+, \d+ cables/);
    type(field, 'x');
    await screen.findByText('Write a number');
    fireEvent.keyDown(field, { key: 'Enter' });
    expect(held.steps()).toEqual([]);
    type(field, '2');
    fireEvent.keyDown(field, { key: 'Enter' });
    await waitFor(() => expect(held.network().count('device')).toBe(demo.count('device') + 2));
    expect(copies.at(-1)).toHaveLength(2);
    expect(held.steps()).toHaveLength(1);
  });

  test('devices of one role are drawn as one plate, and one by one again', async () => {
    const held = await open(['kq-srv-1', 'kq-srv-2']);
    pressNamed('As one plate');
    await waitFor(() =>
      expect(held.steps()).toEqual([expect.stringMatching(/^Gathered 2 servers on sheet/)]),
    );
    expect(plates.some(({ form, deviceIds }) => form === 'fold' && deviceIds.length === 2)).toBe(true);
    acts.scatter(plate('servers'));
    await waitFor(() => expect(held.steps()).toHaveLength(2));
    expect(plates.some(({ name }) => name === 'kq-srv-1')).toBe(true);
  });

  test('devices of two roles cannot be', async () => {
    await open(['kq-srv-1', 'kq-acc-3']);
    expect(screen.queryByRole('button', { name: 'As one plate' })).toBeNull();
  });
});

describe('the rows behind a sheet', () => {
  test('are those that are drawn, by kind; choosing one selects it', async () => {
    const held = await open();
    const strip = screen.getByRole('region', { name: 'Rows on this sheet' });
    pressNamed(/^Devices \d+$/, strip);
    const grid = within(strip).getByRole('grid', { name: 'Devices on this sheet' });
    const drawn = new Set(plates.flatMap(({ deviceIds }) => deviceIds));
    expect(Number(grid.getAttribute('aria-rowcount'))).toBe(drawn.size + 1);
    press(within(grid).getByRole('gridcell', { name: 'kq-acc-1' }));
    await waitFor(() =>
      expect(held.at().query.get('sel')).toBe(`device:${rowNamed(demo, 'device', 'kq-acc-1').id}`),
    );
  });
});

describe('what a sheet shows', () => {
  test('a kind of fact is hidden; the choice is kept as a view and taken again', async () => {
    function Shown(): ReactNode {
      const { network } = useProject().view;
      return <ShowPanel sheet={network.get('sheet', quay.id) ?? quay} />;
    }
    const held = await show(<Shown />, { network: demo, at: `sheets/${quay.id}` });
    const row = screen.getByRole('radiogroup', { name: 'Cable labels' });
    press(within(row).getByRole('radio', { name: 'hidden' }));
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    const form = screen.getByRole('form', { name: 'Keep a view' });
    pressNamed('Save view', form);
    await screen.findByText('Name of the view is empty.');
    type(within(form).getByRole('textbox', { name: 'Name of the view' }), 'Bare');
    pressNamed('Save view', form);
    await screen.findByRole('button', { name: 'Bare' });
    press(within(row).getByRole('radio', { name: 'shown' }));
    await waitFor(() => expect(held.steps()).toHaveLength(3));
    pressNamed('Bare');
    await waitFor(() => expect(held.steps()).toHaveLength(4));
    pressNamed('Remove view Bare');
    await waitFor(() => expect(held.network().get('sheet', quay.id)?.views).toEqual([]));
  });

  test('it is read otherwise on a sheet of its own, where a VLAN can be lit up', async () => {
    const held = await show(<SheetReads sheet={quay} />, { network: demo, at: `sheets/${quay.id}` });
    pressNamed(/^Cabling Read as|Read as/);
    press(await screen.findByRole('option', { name: 'Switching' }));
    await waitFor(() => expect(held.at().path).toMatch(/^sheets\//));
    await waitFor(() => expect(held.at().path).not.toBe(`sheets/${quay.id}`));
  });

  test('arrows of a cloud tell where packets are sent, who may call whom, or nothing', async () => {
    const clouds = rowNamed(demo, 'sheet', 'Booking · cloud');
    function Reads(): ReactNode {
      const { network } = useProject().view;
      return <SheetReads sheet={network.get('sheet', clouds.id) ?? clouds} />;
    }
    const held = await show(<Reads />, { network: demo, at: `sheets/${clouds.id}` });
    pressNamed(/Arrows/);
    press(await screen.findByRole('option', { name: 'Who may call whom' }));
    await waitFor(() => expect(held.steps()).toEqual(['Changed the arrows of sheet Booking · cloud']));
    expect(held.network().get('sheet', clouds.id)?.reading.arrows).toBe('rules');
  });

  test('the base of a cloud does not move by hand; instances do, and leaving out a subnet deletes nothing', async () => {
    const clouds = rowNamed(demo, 'sheet', 'Booking · cloud');
    const held = await show(<Bench of={clouds} chosen={['10.64.32.0/24']} />, {
      network: demo,
      at: `sheets/${clouds.id}`,
    });
    expect(['10.64.32.0/24', 'cl-gw-1', 'to backup', 'cl-db-1'].map((name) => plate(name).locked)).toEqual([
      true,
      true,
      true,
      false,
    ]);
    pressNamed('Delete …');
    expect(await screen.findAllByRole('button', { name: /^From/ })).toHaveLength(1);
    pressNamed('From this sheet: leave out 10.64.32.0/24, it stays in the network');
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect(plates.some(({ name }) => name === 'cl-db-1')).toBe(false);
    expect(held.network().count('cloudSubnet')).toBe(demo.count('cloudSubnet'));
    expect(held.network().findOne('deviceByName', 'cl-db-1')).not.toBeNull();
  });

  test('the way out leads to the sheets around it', async () => {
    const held = await show(<SheetPath sheet={quay} />, { network: demo, at: `sheets/${quay.id}` });
    const steps = within(screen.getByRole('navigation', { name: 'Sheets around this one' })).getAllByRole(
      'button',
    );
    press(steps[0] as HTMLElement);
    await waitFor(() => expect(held.at().path).toBe('sheets'));
  });
});

describe('the list of sheets', () => {
  test('those of the scope; one is drawn by a press', async () => {
    const ashholm = rowNamed(demo, 'place', 'Ashholm');
    const held = await show(<SheetsSection />, { network: demo, at: `sheets?scope=${ashholm.id}` });
    pressNamed('Draw cabling of Ashholm');
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    await waitFor(() => expect(held.at().path).toMatch(/^sheets\/./));
  });

  test('a reader draws none', async () => {
    await show(<SheetsSection />, { network: demo, at: 'sheets', role: 'reader' });
    expect(screen.queryByRole('button', { name: /^Draw/ })).toBeNull();
    expect(screen.getByRole('button', { name: /^Data room · cabling/ })).toBeTruthy();
  });
});
