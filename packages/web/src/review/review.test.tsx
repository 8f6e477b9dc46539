import { beforeAll, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { networkOf } from '../../../core/src/testing/testNetwork.ts';
import { StatusLine } from '../frame/StatusLine.tsx';
import { press, pressNamed, show, withSizes } from '../testing/testScreen.tsx';
import ReviewSection from './ReviewSection.tsx';

/** Drawings are made in a worker, which this browser has not: the picture stays away, all else is there. */
class NoWorker {
  postMessage(): void {}
  terminate(): void {}
}
beforeAll(() => {
  withSizes();
  Object.assign(globalThis, { Worker: NoWorker });
});
const demo = demoNetwork();

const opened = async (role: 'owner' | 'editor' | 'reader' = 'owner', network = demo) => {
  const held = await show(<ReviewSection />, { network, role });
  await screen.findByText(/to mend/);
  return held;
};
/** Chooses a finding, also one that is further down than the list shows. */
async function choose(text: RegExp): Promise<void> {
  const list = await screen.findByRole('listbox', { name: 'Findings' });
  if (screen.queryByRole('option', { name: text }) === null)
    fireEvent.scroll(list, { target: { scrollTop: 400 } });
  press(await screen.findByRole('option', { name: text }));
}
const shownAs = (name: RegExp): Promise<HTMLElement> => screen.findByRole('article', { name });

describe('the review', () => {
  test('lists what is found in groups, the bad ones first, and shows one of them whole', async () => {
    await opened();
    expect(screen.getByText('12 to mend · 2 meant')).toBeDefined();
    const options = screen.getAllByRole('option').map(({ textContent }) => textContent ?? '');
    expect(options[0]).toContain('10.40.40.20 is given 2 times');
    await choose(/VLAN 40 Cameras stops/);
    const one = await shownAs(/VLANs that one end of a link carries/);
    expect(one.textContent).toContain('kq-acc-3 te1/50 carries VLAN 40');
    expect(one.textContent).toContain('IEEE 802.1Q, 8.6');
    expect(within(one).getByRole('button', { name: 'port kq-acc-3:te1/50' })).toBeDefined();
  });

  test('a mend shows what it changes, is done as one step, and the list follows', async () => {
    const held = await opened();
    await choose(/VLAN 40 Cameras stops/);
    const one = await shownAs(/VLANs that one end/);
    press(within(one).getAllByRole('button', { name: 'Show the changes (1)' })[0] ?? one);
    const [, line] = within(one).getAllByRole('row');
    expect(line?.textContent).toBe(
      'port kq-core-2:te1/3Tagged VLANs10, 20, 30, 50, 60, 7010, 20, 30, 40, 50, 60, 70',
    );
    pressNamed('Carry VLAN 40 at kq-core-2 te1/3 too', one);
    await waitFor(() => expect(held.steps()).toEqual(['Carried VLAN 40 at kq-core-2 te1/3 as well']));
    await screen.findByText('11 to mend · 2 meant');
    expect(screen.queryByText(/VLAN 40 Cameras stops/)).toBeNull();
  });

  test('a waiver asks for its reason at its field, then holds the finding back', async () => {
    const held = await opened();
    await choose(/rack BR-A1/);
    const one = await shownAs(/Rack above a limit/);
    pressNamed('It is meant to be so …', one);
    pressNamed('Waive it', one);
    await within(one).findByText('Reason is missing: say why it is meant.');
    fireEvent.change(within(one).getByLabelText('Reason'), { target: { value: 'until the pier is built' } });
    pressNamed('Waive it', one);
    await waitFor(() => expect(held.steps()).toEqual(['Waived 1 finding: until the pier is built']));
    await screen.findByText('11 to mend · 3 meant');
  });

  test('what is meant stands apart with its reason, and can be ended', async () => {
    const held = await opened();
    pressNamed('Meant');
    await choose(/ah-edge-1/);
    const one = await shownAs(/Two inlets, one of them in use/);
    expect(one.textContent).toContain(
      'until strip B has a free C13 (Anna Kerr, 2026-11-02, until 2027-06-30)',
    );
    pressNamed('End the waiver', one);
    await waitFor(() => expect(held.steps()).toEqual(['Ended 1 waiver']));
    await screen.findByText('13 to mend · 1 meant');
  });

  test('an owner grades rules; others see how they are graded', async () => {
    const held = await opened('owner');
    pressNamed('Rules');
    press(await screen.findByRole('button', { name: /How bad: Rack above a limit/ }));
    press(await screen.findByRole('option', { name: 'Off' }));
    await waitFor(() => expect(held.steps()).toEqual(['Set the rule “Rack above a limit” to off']));
    await screen.findByText('11 to mend · 2 meant');
  });

  test('a reader sees all of it and changes nothing', async () => {
    await opened('reader');
    await choose(/VLAN 40 Cameras stops/);
    const one = await shownAs(/VLANs that one end/);
    expect(within(one).queryByRole('button', { name: /Carry VLAN|meant/ })).toBeNull();
    pressNamed('Rules');
    await screen.findByText(/An owner of the project decides/);
    expect(screen.queryByRole('button', { name: /How bad/ })).toBeNull();
  });

  test('where nothing is found that is said with the day, and can be printed', async () => {
    await show(<ReviewSection />, { network: networkOf({ places: [{ path: 'Quay', kind: 'site' }] }) });
    await screen.findByRole('heading', { name: /^Clean on \d+ \w+ \d{4}$/ });
    expect(screen.getByRole('button', { name: 'Print that' })).toBeDefined();
  });
});

test('the status line counts what is to be mended and leads there', async () => {
  const held = await show(<StatusLine />, { network: demo });
  press(await screen.findByRole('button', { name: '12 findings in the project' }));
  await waitFor(() => expect(held.at().path).toBe('review'));
});

test('where nothing is found there is nothing to open', async () => {
  await show(<StatusLine />, { network: networkOf({ places: [{ path: 'Quay', kind: 'site' }] }) });
  await screen.findByText(/no findings/);
  expect(screen.queryByRole('button')).toBeNull();
});

describe('completeness', () => {
  test('what is asked for and missing is listed by kind, and typed in where it stands', async () => {
    const held = await show(<ReviewSection />, { network: demo });
    pressNamed('Complete');
    press(await screen.findByRole('button', { name: 'Ask for the usual facts' }));
    const grid = await screen.findByRole('grid', { name: 'What is missing of devices' });
    expect(screen.getByText(/^94 % complete$/)).toBeDefined();
    expect(
      within(grid)
        .getAllByRole('columnheader')
        .map(({ textContent }) => textContent),
    ).toEqual(['Name', 'Place', 'Asset number', 'Support until', 'Address', 'Two power feeds']);
    expect(held.steps()).toEqual(['Asked for the usual 25 facts']);
    pressNamed(/^places/);
    await screen.findByRole('grid', { name: 'What is missing of places' });
  });

  test('asked for in an empty project, that is said, and what is asked for can be looked at', async () => {
    const held = await show(<ReviewSection />, { network: networkOf({}) });
    pressNamed('Complete');
    press(await screen.findByRole('button', { name: 'Ask for the usual facts' }));
    await screen.findByText('Nothing is there yet that facts are asked of');
    expect(screen.getByText(/^25 facts are asked for/)).toBeDefined();
    expect(held.steps()).toEqual(['Asked for the usual 25 facts']);
    pressNamed('What must be there …');
    await screen.findByText('Serial of all active switches');
  });

  test('who is no owner sees what must be there and does not change it', async () => {
    await show(<ReviewSection />, { network: demo, role: 'editor' });
    pressNamed('Complete');
    await screen.findByText('An owner of the project says what must be documented.');
    expect(screen.queryByRole('button', { name: 'Ask for the usual facts' })).toBeNull();
  });
});
