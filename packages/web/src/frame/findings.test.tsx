import { beforeAll, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { networkOf } from '../../../core/src/testing/testNetwork.ts';
import { press, pressNamed, show, withSizes } from '../testing/testScreen.tsx';
import { StatusLine } from './StatusLine.tsx';

beforeAll(withSizes);
const demo = demoNetwork();

const opened = async (role: 'owner' | 'reader' = 'owner') => {
  const held = await show(<StatusLine />, { network: demo, role });
  press(await screen.findByRole('button', { name: '10 findings in the project' }));
  return { held, list: await screen.findByRole('list', { name: 'Findings' }) };
};
const findingOf = (list: HTMLElement, text: string): HTMLElement => {
  const found = within(list)
    .getAllByRole('listitem')
    .find((item) => item.textContent?.includes(text));
  if (found === undefined) throw new Error(`no finding says ${text}`);
  return found;
};

describe('what the checks found', () => {
  test('is listed, the bad ones first, each with its thing and what is wrong', async () => {
    const { list } = await opened();
    const items = within(list).getAllByRole('listitem');
    expect(items).toHaveLength(10);
    expect(items[0]?.textContent).toContain('10.40.40.20 is given 2 times');
    expect(items.at(-1)?.textContent).toContain('VLAN 40 Cameras stops');
  });

  test('a mend is offered, done as one step, and the list follows', async () => {
    const { held, list } = await opened();
    const stop = findingOf(list, 'VLAN 40 Cameras stops');
    pressNamed('Mend …', stop);
    expect(
      within(within(stop).getByRole('list', { name: 'Mend VLAN 40 Cameras' }))
        .getAllByRole('button')
        .map((button) => button.textContent),
    ).toEqual(['Carry VLAN 40 at kq-core-2 te1/3 too', 'Take VLAN 40 off kq-acc-3 te1/50']);
    pressNamed('Carry VLAN 40 at kq-core-2 te1/3 too', stop);
    await waitFor(() => expect(held.steps()).toEqual(['Carried VLAN 40 at kq-core-2 te1/3 as well']));
    await screen.findByRole('dialog', { name: '9 findings' });
    expect(screen.queryByText(/VLAN 40 Cameras stops/)).toBeNull();
  });

  test('pressing its thing selects that and closes the list', async () => {
    const { held, list } = await opened();
    press(within(findingOf(list, 'kq-acc-5 promises')).getByRole('button', { name: 'device kq-acc-5' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    await waitFor(() => expect(held.at().query.get('sel')).toMatch(/^device:/));
  });

  test('a reader sees them and mends none', async () => {
    const { list } = await opened('reader');
    expect(within(list).queryByRole('button', { name: 'Mend …' })).toBeNull();
  });

  test('where nothing is found that is said, and there is nothing to open', async () => {
    await show(<StatusLine />, { network: networkOf({ places: [{ path: 'Quay', kind: 'site' }] }) });
    await screen.findByText(/no findings/);
    expect(screen.queryByRole('button')).toBeNull();
  });
});
