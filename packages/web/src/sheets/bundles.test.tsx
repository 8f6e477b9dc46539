import { beforeAll, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { sceneOf, type SceneBundle, type SceneLink } from '@visograph/core/sheets';
import { measureText } from '@visograph/drawing';
import { useMemo, useState, type ReactNode } from 'react';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { useProject } from '../data/project.tsx';
import { press, pressNamed, rowNamed, show, withSizes } from '../testing/testScreen.tsx';
import { PrintPanel } from './printing/PrintPanel.tsx';
import { BundleTools } from './tools/BundleTools.tsx';
import { ShowPanel } from './tools/ShowPanel.tsx';
import { planFor } from './useScene.ts';

beforeAll(withSizes);
const demo = demoNetwork();
const room = rowNamed(demo, 'sheet', 'Data room · cabling');
const quay = rowNamed(demo, 'sheet', 'Kelder Quay · cabling');
const picked: SceneLink[] = [];

/** The first bundle of a sheet for management, with what can be done with it. */
function Bench({ allOpen = false }: { allOpen?: boolean }): ReactNode {
  const { network } = useProject().view;
  const sheet = network.get('sheet', room.id) ?? room;
  const plan = planFor(network, sheet);
  const scene = useMemo(() => sceneOf(plan, { measure: measureText, quick: true }), [plan]);
  const [open, setOpen] = useState(false);
  const bundle: SceneBundle | undefined = scene.bundles.find(({ title }) => title === 'management');
  if (bundle === undefined) return <p>None is bundled</p>;
  return (
    <BundleTools
      sheet={sheet}
      scene={scene}
      bundle={bundle}
      open={open}
      allOpen={allOpen}
      canEdit
      onToggle={() => setOpen(!open)}
      onPick={(link) => picked.push(link)}
    />
  );
}

describe('a bundle that is chosen', () => {
  test('tells what it is, is opened and closed, and gives its links one by one', async () => {
    await show(<Bench />, { network: demo, at: `sheets/${room.id}` });
    const tools = await screen.findByRole('group', { name: 'Chosen bundle' });
    expect(tools.textContent).toMatch(/\d+ links of kq-acc-\d: management/);
    pressNamed(/^In lanes/, tools);
    await within(tools).findByRole('button', { name: /^As one line/ });
    pressNamed(/^Links \(/, tools);
    const [first] = await screen.findAllByRole('menuitem');
    if (first === undefined) throw new Error('no link');
    const words = first.textContent;
    press(first);
    await waitFor(() => expect(picked.map(({ spoken }) => spoken)).toEqual([words]));
  });

  test('is drawn otherwise from then on: one step, kept by the device and what its links are for', async () => {
    const held = await show(<Bench />, { network: demo, at: `sheets/${room.id}` });
    const tools = await screen.findByRole('group', { name: 'Chosen bundle' });
    const hub = /of (kq-acc-\d):/.exec(tools.textContent)?.[1] ?? '';
    pressNamed('Draw', tools);
    press(await screen.findByRole('menuitem', { name: 'Always each by itself' }));
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect(held.network().get('sheet', room.id)?.reading.bundles).toEqual({
      drawn: 'closed',
      own: [{ deviceId: rowNamed(demo, 'device', hub).id, purpose: 'management', drawn: 'never' }],
    });
  });

  test('cannot be closed where the zoom opens all', async () => {
    await show(<Bench allOpen />, { network: demo, at: `sheets/${room.id}` });
    const tools = await screen.findByRole('group', { name: 'Chosen bundle' });
    expect(
      within(tools)
        .getByRole('button', { name: /^In lanes/ })
        .hasAttribute('disabled'),
    ).toBe(true);
  });
});

test('the sheet says how links of one purpose are drawn', async () => {
  function Shown(): ReactNode {
    const { network } = useProject().view;
    return <ShowPanel sheet={network.get('sheet', room.id) ?? room} />;
  }
  const held = await show(<Shown />, { network: demo, at: `sheets/${room.id}` });
  const row = screen.getByRole('radiogroup', { name: 'Links of one purpose' });
  press(within(row).getByRole('radio', { name: 'lanes' }));
  await waitFor(() =>
    expect(held.network().get('sheet', room.id)?.reading.bundles).toEqual({ drawn: 'open', own: [] }),
  );
});

test('paper on which it cannot be read is told, and what helps is done', async () => {
  const kept: string[] = [];
  function Printed(): ReactNode {
    const { network } = useProject().view;
    const sheet = network.get('sheet', quay.id) ?? quay;
    const plan = planFor(network, sheet);
    const scene = useMemo(() => sceneOf(plan, { measure: measureText, quick: true }), [plan]);
    return (
      <PrintPanel
        sheet={sheet}
        scene={scene}
        framesShown={false}
        onFrames={() => undefined}
        arranged={plan.arranged}
        onKeep={() => kept.push(sheet.name)}
      />
    );
  }
  const held = await show(<Printed />, { network: demo, at: `sheets/${quay.id}` });
  const hint = await screen.findByText(/^The smallest text would be [\d.]+ pt; 6 pt can be read\.$/);
  pressNamed(/^On A\d$/, hint.parentElement ?? undefined);
  await waitFor(() => expect(['A2', 'A1', 'A0']).toContain(held.network().get('sheet', quay.id)?.page.size));
  await waitFor(() => expect(screen.queryByText(/^The smallest text/)).toBeNull());
  press(screen.getByRole('checkbox', { name: 'Lay the sheet out for this paper' }));
  await waitFor(() => expect(held.network().get('sheet', quay.id)?.page.composed).toBe(true));
  pressNamed('Keep them as they stand');
  expect(kept).toEqual([quay.name]);
});
