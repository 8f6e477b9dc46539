import { expect, test } from '@jest/globals';
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { elevationScene } from '@visograph/core/racks';
import type { ReactNode } from 'react';
import { demoNetwork } from '../../../../../core/src/testing/testDemo.ts';
import { useProject } from '../../../data/project.tsx';
import { rowNamed, show } from '../../../testing/testScreen.tsx';
import { layOutRacks } from '../benchLayout.ts';
import { useCarry } from './useCarry.ts';

const demo = demoNetwork();
const rack = rowNamed(demo, 'rack', 'KQ-A1');
const unit = 16;
/** jsdom's pointer events know no place: a mouse event of the same name does. */
const pointer = (type: string, at: { clientX: number; clientY: number }): MouseEvent =>
  new MouseEvent(type, { bubbles: true, button: 0, ...at });

/** The rack at the corner of the window, a pixel to a unit of its scene. */
function Bench(): ReactNode {
  const { network } = useProject().view;
  const spots = layOutRacks([{ rack, scene: elevationScene(network, rack) }], 'front');
  const { begin } = useCarry(spots, (client) => client);
  const model = rowNamed(network, 'model', 'CM-1');
  return (
    <div data-bench>
      <button onPointerDown={(event) => begin(event, { form: 'model', model })}>CM-1</button>
    </div>
  );
}

test('let go before the screen has drawn the last move, it lands where the pointer was last', async () => {
  const held = await show(<Bench />, { network: demo });
  const bench = screen.getByRole('button', { name: 'CM-1' });
  Object.assign(document, { elementFromPoint: () => bench });
  const spot = layOutRacks([{ rack, scene: elevationScene(demo, rack) }], 'front')[0]?.faces[0];
  const at = (u: number) => ({
    clientX: (spot?.x ?? 0) + 60,
    clientY: (spot?.y ?? 0) + (rack.units - u) * unit + 6,
  });
  fireEvent(bench, pointer('pointerdown', { clientX: 0, clientY: 0 }));
  fireEvent(window, pointer('pointermove', at(25)));
  // Both within one turn: nothing is drawn between them.
  act(() => {
    fireEvent(window, pointer('pointermove', at(28)));
    fireEvent(window, pointer('pointerup', at(28)));
  });
  await waitFor(() => expect(held.steps()).toHaveLength(1));
  const added = [...held.network().all('device')].filter((device) => demo.get('device', device.id) === null);
  expect(added.map((device) => device.unit)).toEqual([28]);
});
