import { beforeAll, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { kindNames, type Kind } from '@visograph/core/model';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { everything } from '../../../core/src/testing/testKinds.ts';
import { card, press, pressNamed, rowNamed, show, type, withSizes } from '../testing/testScreen.tsx';
import { Record } from './Record.tsx';

beforeAll(withSizes);
const demo = demoNetwork();
const open = (kind: Kind, name: string, role: 'owner' | 'reader' = 'owner') =>
  show(<Record />, {
    network: demo,
    at: `places?sel=${kind}:${rowNamed(demo, kind, name).id}`,
    role,
  });
const device = (name: string) => rowNamed(demo, 'device', name);
const text = (element: HTMLElement): string => element.textContent ?? '';

describe('every kind has a record', () => {
  test.each(kindNames.map((kind) => [kind]))(
    '%s: its row opens, for an owner and for a reader',
    async (kind) => {
      const [row] = everything.all(kind);
      if (row === undefined) throw new Error(`no ${kind}`);
      for (const role of ['owner', 'reader'] as const) {
        await show(<Record />, { network: everything, at: `places?sel=${kind}:${row.id}`, role });
        expect(screen.queryByText(/is no longer there/)).toBeNull();
        const [heading] = screen.getAllByRole('heading');
        expect(text(heading as HTMLElement)).not.toBe('');
        // Who may not change anything is offered no change.
        if (role === 'reader') {
          expect(screen.queryByRole('button', { name: /^(Delete|Add|Keep|Remove)/ })).toBeNull();
          for (const field of screen.queryAllByRole('textbox'))
            expect([kind, field.getAttribute('aria-label'), field.hasAttribute('readonly')]).toEqual([
              kind,
              field.getAttribute('aria-label'),
              true,
            ]);
        }
      }
    },
  );

  test('a row that is gone says so by its kind', async () => {
    await show(<Record />, { network: demo, at: 'places?sel=cable:01a00000-0000-7000-8000-000000000000' });
    expect(screen.getByText('This cable is no longer there.')).toBeTruthy();
  });

  test('with nothing selected it is the place of the scope, or the way to begin', async () => {
    const quay = rowNamed(demo, 'place', 'Kelder Quay');
    await show(<Record />, { network: demo, at: `places?scope=${quay.id}` });
    expect(text(screen.getAllByRole('heading')[0] as HTMLElement)).toContain('Kelder Quay');
    await show(<Record />, { network: demo });
    expect(screen.getByRole('heading', { name: 'Add a site' })).toBeTruthy();
    // Beside another section it says what concerns that.
    await show(<Record />, { network: demo, at: 'catalogue' });
    expect(screen.getByText('Select a model: its record stands here.')).toBeTruthy();
    expect(screen.queryByRole('heading', { name: 'Add a site' })).toBeNull();
  });
});

describe('facts are changed in place', () => {
  test('a serial: Enter keeps it, and what was done is told in a sentence', async () => {
    const held = await open('device', 'kq-acc-1');
    const serial = screen.getByRole('textbox', { name: 'Serial' });
    type(serial, 'NV31-7');
    fireEvent.keyDown(serial, { key: 'Enter' });
    await waitFor(() => expect(held.steps()).toEqual(['Set serial of kq-acc-1 to NV31-7']));
    expect(rowNamed(held.network(), 'device', 'kq-acc-1').serial).toBe('NV31-7');
  });

  test('a name that is taken stays as it was typed, with the reason; Escape gives the old one back', async () => {
    const held = await open('device', 'kq-acc-1');
    const name = screen.getByRole('textbox', { name: 'Name' });
    type(name, 'kq-acc-2');
    fireEvent.keyDown(name, { key: 'Enter' });
    expect(text(screen.getByRole('alert'))).toMatch(/already a device with the name kq-acc-2/);
    expect((name as HTMLInputElement).value).toBe('kq-acc-2');
    fireEvent.keyDown(name, { key: 'Escape' });
    expect((name as HTMLInputElement).value).toBe('kq-acc-1');
    expect(held.steps()).toEqual([]);
  });

  test('a day is changed by its parts, year first, and kept when it is left', async () => {
    const held = await open('device', 'kq-acc-1');
    const parts = screen.getAllByRole('spinbutton');
    expect(parts.map((part) => part.getAttribute('aria-label')?.split(',')[0])).toEqual([
      'year',
      'month',
      'day',
    ]);
    const [year] = parts;
    if (year === undefined) throw new Error('no year');
    for (const part of parts) fireEvent.keyDown(part, { key: 'ArrowUp' });
    fireEvent.keyDown(year, { key: 'Enter' });
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect(rowNamed(held.network(), 'device', 'kq-acc-1').installedOn).toMatch(/^\d{4}-\d\d-\d\d$/);
  });

  test('a figure that is none, and one out of range, are told at the field', async () => {
    await open('rack', 'KQ-A1');
    const width = screen.getByRole('combobox', { name: 'Plate width' });
    type(width, 'wide');
    fireEvent.blur(width);
    expect(text(screen.getByRole('alert'))).toBe('“wide” is not a number.');
    type(width, '90');
    fireEvent.blur(width);
    expect(text(screen.getByRole('alert'))).toMatch(/is below 200/);
  });

  test('the usual widths of a rack are proposed with where they are laid down; any other may be typed', async () => {
    const held = await open('rack', 'KQ-A1');
    const width = screen.getByRole<HTMLInputElement>('combobox', { name: 'Plate width' });
    expect(width.value).toBe('482.6');
    const offers = [...(width.list?.options ?? [])].map(({ value, label }) => `${value} ${label}`);
    expect(offers).toContain('535 ETSI EN 300 119');
    type(width, '600');
    fireEvent.blur(width);
    await waitFor(() => expect(rowNamed(held.network(), 'rack', 'KQ-A1').widthMm).toBe(600));
  });
});

describe('what an owner is asked for', () => {
  const at = rowNamed(demo, 'device', 'kq-acc-1');
  const field = (name: string): HTMLInputElement =>
    within(card('Inventory')).getByRole<HTMLInputElement>('textbox', { name });

  test('stands behind a button while nothing is known, and is kept field by field', async () => {
    const held = await show(<Record />, { network: demo, at: `equipment?sel=device:${at.id}` });
    expect(within(card('Inventory')).queryByRole('textbox')).toBeNull();
    pressNamed(/^Add facts/, card('Inventory'));
    type(field('Asset number'), 'MS-417');
    fireEvent.keyDown(field('Asset number'), { key: 'Enter' });
    await waitFor(() => expect(held.steps()).toEqual(['Set asset number of kq-acc-1 to MS-417']));
    type(field('Price paid'), 'cheap');
    fireEvent.keyDown(field('Price paid'), { key: 'Enter' });
    await screen.findByText('“cheap” is not an amount such as 1250.00 EUR.');
    type(field('Price paid'), '980');
    fireEvent.keyDown(field('Price paid'), { key: 'Enter' });
    await screen.findByText('Say the currency too, as in 1250.00 EUR.');
    type(field('Price paid'), '980 EUR');
    fireEvent.keyDown(field('Price paid'), { key: 'Enter' });
    await waitFor(() => expect(held.steps()[1]).toBe('Set price paid for kq-acc-1 to 980.00 EUR'));
    pressNamed('Only what is known', card('Inventory'));
    expect(within(card('Inventory')).getAllByRole('textbox')).toHaveLength(2);
  });
});

describe('cards that add and take away', () => {
  test('a feed is added under the next letter, judged, and removed again', async () => {
    const held = await open('rack', 'KQ-A3');
    const feeds = card('Power feeds');
    const before = rowNamed(demo, 'rack', 'KQ-A3').feeds.map(({ name }) => name);
    const amps = within(feeds).getByRole('textbox', { name: 'Amps (A)' });
    type(amps, '900');
    pressNamed('Add feed', feeds);
    await waitFor(() => expect(text(feeds)).toContain('Amps is above 400.'));
    type(amps, '32');
    pressNamed('Add feed', feeds);
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    const added = rowNamed(held.network(), 'rack', 'KQ-A3').feeds;
    expect(added).toHaveLength(before.length + 1);
    const last = added.at(-1);
    expect(last).toMatchObject({ volts: 230, amps: 32, phases: 1 });
    pressNamed(`Remove feed ${last?.name ?? ''}`, card('Power feeds'));
    await waitFor(() => expect(rowNamed(held.network(), 'rack', 'KQ-A3').feeds).toHaveLength(before.length));
  });

  test('a range of addresses: what is no address and what lies outside is told, what fits is kept', async () => {
    const held = await open('prefix', '10.40.8.0/22');
    const ranges = card('Ranges');
    const [from, to] = ['From', 'To'].map((name) => within(ranges).getByRole('textbox', { name }));
    pressNamed('Add range', ranges);
    await waitFor(() => expect(text(ranges)).toContain('From is empty.'));
    type(from as HTMLElement, '10.99.0.1');
    type(to as HTMLElement, '10.99.0.9');
    pressNamed('Add range', ranges);
    await waitFor(() => expect(within(ranges).getByRole('alert')).toBeTruthy());
    expect(held.steps()).toEqual([]);
    type(from as HTMLElement, '10.40.8.100');
    type(to as HTMLElement, '10.40.8.120');
    pressNamed('Add range', ranges);
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect(rowNamed(held.network(), 'prefix', '10.40.8.0/22').ranges.at(-1)).toMatchObject({
      use: 'DHCP',
      from: '10.40.8.100',
      to: '10.40.8.120',
    });
    // The form is empty again for the next.
    await waitFor(() => expect((from as HTMLInputElement).value).toBe(''));
  });

  test('a place and a rack are added inside; a pasted column becomes many places', async () => {
    const held = await open('place', 'Data room');
    const adding = card('Add inside');
    type(within(adding).getByRole('textbox', { name: 'Rack' }), 'KQ-Z9');
    type(within(adding).getByRole('textbox', { name: 'Units (U)' }), '24');
    pressNamed('Add rack', adding);
    await waitFor(() => expect(held.steps().at(-1)).toMatch(/KQ-Z9/));
    expect(rowNamed(held.network(), 'rack', 'KQ-Z9').units).toBe(24);
    const place = within(adding).getByRole('textbox', { name: 'Place' });
    fireEvent.paste(place, { clipboardData: { getData: () => 'Store\nLoft\n' } });
    const names = await within(card('Add inside')).findByRole('textbox', { name: 'Names, one a line' });
    expect((names as HTMLTextAreaElement).value).toBe('Store\nLoft\n');
    pressNamed('Add all', card('Add inside'));
    await waitFor(() => expect(rowNamed(held.network(), 'place', 'Loft').kind).toBe('room'));
  });

  test('a pathway needs where it leads to; with all of it lengths follow it', async () => {
    const held = await open('place', 'Data room');
    pressNamed('Add pathway', card('Pathways'));
    const form = within(card('Pathways')).getByRole('form', { name: 'Add a pathway' });
    type(within(form).getByRole('textbox', { name: 'Name' }), 'Tray 9');
    type(within(form).getByRole('textbox', { name: /^Length/ }), '12');
    pressNamed('Add pathway', form);
    await waitFor(() => expect(text(form)).toContain('To is not chosen.'));
    expect(held.steps()).toEqual([]);
    const to = within(form).getByRole('combobox', { name: 'To' });
    fireEvent.focus(to);
    type(to, 'Ticket hall');
    fireEvent.keyDown(to, { key: 'ArrowDown' });
    fireEvent.keyDown(to, { key: 'Enter' });
    pressNamed('Add pathway', form);
    await waitFor(() => expect(held.steps()).toEqual(['Added the pathway Tray 9']));
    expect(rowNamed(held.network(), 'pathway', 'Tray 9')).toMatchObject({
      kind: 'tray',
      lengthM: 12,
      aPlaceId: rowNamed(demo, 'place', 'Data room').id,
    });
  });

  test('a route: nothing typed is told at its field, a next hop that nothing leads to by the command', async () => {
    const held = await open('device', 'kq-edge-1');
    const form = screen.getByRole('form', { name: 'Add a route' });
    pressNamed('Add route', form);
    await waitFor(() => expect(text(form)).toContain('Route to is empty.'));
    type(within(form).getByRole('textbox', { name: 'Route to' }), '10.250.0.0/16');
    type(within(form).getByRole('textbox', { name: /^Next hop/ }), 'discard');
    pressNamed('Add route', form);
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    const made = [...held.network().all('route')].find(({ prefix }) => prefix === '10.250.0.0/16');
    expect(made).toMatchObject({ discard: true, deviceId: device('kq-edge-1').id });
    const session = screen.getByRole('form', { name: 'Add a BGP session' });
    type(within(session).getByRole('textbox', { name: 'BGP neighbour' }), '10.255.0.1');
    type(within(session).getByRole('textbox', { name: 'Its AS' }), '0');
    pressNamed('Add session', session);
    await waitFor(() => expect(text(session)).toContain('Its AS is below 1.'));
  });

  test('a kit is kept under a name that is proposed', async () => {
    const held = await open('rack', 'KQ-A1');
    pressNamed('Keep as kit …');
    const form = screen.getByRole('form', { name: 'Keep as kit' });
    expect(within(form).getByRole<HTMLInputElement>('textbox', { name: 'Kit' }).value).toBe('Like KQ-A1');
    pressNamed('Keep kit', form);
    await waitFor(() => expect(held.network().count('kit')).toBe(demo.count('kit') + 1));
    expect(screen.queryByRole('form', { name: 'Keep as kit' })).toBeNull();
  });

  test('deleting a device asks first, in numbers', async () => {
    const held = await open('device', 'kq-acc-5');
    pressNamed(/^Delete/);
    const told = screen
      .getAllByText(/ports?/)
      .map(text)
      .join(' ');
    expect(told).toMatch(/\d+ ports/);
    expect(held.steps()).toEqual([]);
    press(screen.getByRole('button', { name: 'Delete kq-acc-5' }));
    await waitFor(() => expect(held.network().get('device', device('kq-acc-5').id)).toBeNull());
  });
});
