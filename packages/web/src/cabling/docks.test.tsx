import { beforeAll, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { cableAt, type Network, type Port } from '@visograph/core/model';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { AddDeviceDock } from '../racks/AddDeviceDock.tsx';
import { pressNamed, rowNamed, show, type, withSizes } from '../testing/testScreen.tsx';
import { ConnectDock } from './connect/ConnectDock.tsx';
import { TraceDock } from './trace/TraceDock.tsx';

beforeAll(withSizes);
const demo = demoNetwork();
const device = (name: string, network: Network = demo) => rowNamed(network, 'device', name);
const port = (of: string, name: string, network: Network = demo): Port => {
  const found = network.findOne('portByName', `${device(of, network).id}:${name}`);
  if (found === null) throw new Error(`${of} has no port ${name}`);
  return found;
};
const onClose = jest.fn<() => void>();
beforeEach(() => void onClose.mockClear());
/** The first field is focused and its list open, which hides the rest from a screen reader: found by its label. */
const field = (name: string): HTMLInputElement =>
  screen.getByLabelText<HTMLInputElement>(name, { selector: 'input' });

describe('connecting', () => {
  const open = (a: string, b: string | null) =>
    show(
      <ConnectDock
        dock={{
          form: 'connect',
          aPortId: null,
          aDeviceId: device(a).id,
          bPortId: null,
          bDeviceId: b === null ? null : device(b).id,
        }}
        onClose={onClose}
      />,
      { network: demo },
    );

  test('Enter makes the cable with the label and length proposed, and steps both ends on', async () => {
    const held = await open('kq-acc-1', 'kq-acc-2');
    const label = field('Label').value;
    expect(label).toMatch(/^KQ-\d{5}$/);
    expect(Number(field('Length (m)').value)).toBeGreaterThan(0);
    const before = screen.getByRole('heading', { name: /^A end/, hidden: true }).textContent;
    fireEvent.submit(screen.getByRole('form', { name: 'Connect', hidden: true }));
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    const cable = rowNamed(held.network(), 'cable', label);
    const [a, b] = [cable.aPortId, cable.bPortId].map((id) => held.network().get('port', id)?.deviceId);
    expect([a, b].sort()).toEqual([device('kq-acc-1').id, device('kq-acc-2').id].sort());
    expect(screen.getByRole('status', { hidden: true }).textContent).toContain(label);
    expect(screen.getByRole('heading', { name: /^A end/, hidden: true }).textContent).not.toBe(before);
    expect(field('Label').value).not.toBe(label);
  });

  test('a label that is taken, a length that is none, a number of cables that is none: told, nothing made', async () => {
    const held = await open('kq-acc-1', 'kq-acc-2');
    const form = screen.getByRole('form', { name: 'Connect', hidden: true });
    const told = async (text: RegExp | string): Promise<void> =>
      waitFor(() => expect(screen.getByRole('alert', { hidden: true }).textContent).toMatch(text));
    type(field('Label'), 'KQ-00001');
    fireEvent.submit(form);
    await told(/already a cable with the label KQ-00001/);
    type(field('Label'), 'KQ-90001');
    type(field('Length (m)'), 'long');
    fireEvent.submit(form);
    await told('Length is not a length in metres.');
    type(field('Length (m)'), '3');
    type(field('In parallel'), 'two');
    fireEvent.submit(form);
    await told('In parallel is not a number of cables: write 1 or more.');
    expect(held.steps()).toEqual([]);
  });

  test('several in parallel are one step; more than there are ports is told with their number', async () => {
    const held = await open('kq-acc-1', 'kq-acc-2');
    type(field('In parallel'), '400');
    fireEvent.submit(screen.getByRole('form', { name: 'Connect', hidden: true }));
    await waitFor(() =>
      expect(screen.getByRole('alert', { hidden: true }).textContent).toMatch(/only \d+ pairs of free ports/),
    );
    type(field('In parallel'), '2');
    fireEvent.submit(screen.getByRole('form', { name: 'Connect', hidden: true }));
    await waitFor(() =>
      expect([held.steps().length, screen.queryByRole('alert', { hidden: true })?.textContent]).toEqual([
        1,
        undefined,
      ]),
    );
    expect(held.network().count('cable')).toBe(demo.count('cable') + 2);
    expect(field('In parallel').value).toBe('1');
  });

  test('with one end alone it says what is missing; Escape closes', async () => {
    await open('kq-acc-1', null);
    expect(screen.getByText(/Choose both ends/)).toBeTruthy();
    expect(screen.queryByLabelText('Label')).toBeNull();
    fireEvent.keyDown(screen.getByRole('form', { name: 'Connect', hidden: true }), { key: 'Escape' });
    expect(onClose).toHaveBeenCalledTimes(1);
  });
});

describe('adding a device', () => {
  const open = (rackId: string | null, unit: number | null) =>
    show(
      <AddDeviceDock
        dock={{ form: 'addDevice', rackId, unit, modelId: rowNamed(demo, 'model', 'AX-2448P').id }}
        onClose={onClose}
      />,
      { network: demo },
    );

  test('the next name and a free unit are proposed; Enter adds it and selects it', async () => {
    const rack = rowNamed(demo, 'rack', 'KQ-A1');
    const held = await open(rack.id, 30);
    expect(field('Name').value).toBe('kq-acc-6');
    fireEvent.submit(screen.getByRole('form', { name: 'Add device', hidden: true }));
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    const added = device('kq-acc-6', held.network());
    expect(added).toMatchObject({ rackId: rack.id, unit: 30 });
    expect(held.network().countOf('portsByDevice', added.id)).toBeGreaterThan(48);
    await waitFor(() => expect(held.at().query.get('sel')).toBe(`device:${added.id}`));
    expect(onClose).toHaveBeenCalledTimes(1);
  });

  test('a unit that is taken is passed over for a free one; a name that is taken is told', async () => {
    const held = await open(rowNamed(demo, 'rack', 'KQ-A1').id, 40);
    type(field('Name'), 'kq-acc-1');
    fireEvent.submit(screen.getByRole('form', { name: 'Add device', hidden: true }));
    expect(await screen.findByText(/already a device with the name kq-acc-1/)).toBeTruthy();
    type(field('Name'), 'kq-acc-9');
    fireEvent.submit(screen.getByRole('form', { name: 'Add device', hidden: true }));
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect(device('kq-acc-9', held.network()).unit).not.toBe(40);
  });
});

describe('tracing', () => {
  test('the run of a camera is told hop by hop up to where it ends; a press selects a hop', async () => {
    const start = port('kq-cam-1', 'eth0');
    const held = await show(<TraceDock portId={start.id} onClose={onClose} />, {
      network: demo,
    });
    const run = within(screen.getByRole('list', { name: 'The run', hidden: true }));
    expect(run.getAllByRole('button', { hidden: true })).toHaveLength(9);
    const first = cableAt(demo, start.id);
    const cable = run.getByRole('button', { name: new RegExp(first?.label ?? '-'), hidden: true });
    act(() => cable.click());
    await waitFor(() => expect(held.at().query.get('sel')).toBe(`cable:${first?.id ?? ''}`));
    pressNamed(/Close/);
    expect(onClose).toHaveBeenCalledTimes(1);
  });
});
