import { beforeAll, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState, type ReactNode } from 'react';
import { press, pressNamed, type, withSizes } from '../testing/testScreen.tsx';
import { ThemeProvider } from '../theme/theme.tsx';
import { Choice, Picker, type Option } from './choice.tsx';

beforeAll(withSizes);
beforeEach(cleanup);
const roles = [
  { id: 'SW', text: 'switch' },
  { id: 'RT', text: 'router', disabled: true },
  { id: 'FW', text: 'firewall' },
] as const satisfies readonly Option[];
const onChange = jest.fn<(id: string | null) => void>();
beforeEach(() => void onChange.mockClear());

describe('a choice from a short list', () => {
  const open = (value: 'SW' | 'RT' | 'FW' | null, error: string | null = null) =>
    render(
      <ThemeProvider>
        <Choice label="Role" options={roles} value={value} onChange={onChange} error={error} />
      </ThemeProvider>,
    );

  test('says what is chosen, or that nothing is', () => {
    open('SW');
    expect(screen.getByRole('button', { name: /Role/ }).textContent).toContain('switch');
    cleanup();
    open(null);
    expect(screen.getByRole('button', { name: /Role/ }).textContent).toContain('none');
  });

  test('gives the id of what is pressed; what cannot be chosen is not', async () => {
    open('SW');
    pressNamed(/Role/);
    const router = await screen.findByRole('option', { name: 'router' });
    expect(router.getAttribute('aria-disabled')).toBe('true');
    press(router);
    expect(onChange).not.toHaveBeenCalled();
    press(screen.getByRole('option', { name: 'firewall' }));
    expect(onChange.mock.calls).toEqual([['FW']]);
  });

  test('tells what is wrong with it', () => {
    open(null, 'Role is not chosen.');
    expect(screen.getByText('Role is not chosen.')).toBeTruthy();
  });
});

describe('a choice from a long list', () => {
  const devices: Option[] = Array.from({ length: 400 }, (_, at) => ({
    id: `d${at}`,
    text: `kq-acc-${at}`,
    detail: at % 2 === 0 ? 'Data room' : 'Ticket hall',
  }));
  function Picked(): ReactNode {
    const [value, setValue] = useState<string | null>('d7');
    return (
      <ThemeProvider>
        <Picker
          label="Device"
          options={devices}
          value={value}
          onChange={(id) => {
            onChange(id);
            setValue(id);
          }}
        />
      </ThemeProvider>
    );
  }
  const field = (): HTMLInputElement =>
    screen.getByLabelText<HTMLInputElement>('Device', { selector: 'input' });

  test('is narrowed by words of text and detail in any order; not all are listed at once', async () => {
    render(<Picked />);
    expect(field().value).toBe('kq-acc-7');
    act(() => field().focus());
    type(field(), 'hall 39');
    const names = (await screen.findAllByRole('option')).map((option) => option.textContent);
    expect(names).toHaveLength(
      devices.filter(({ text, detail }) => text.includes('39') && detail === 'Ticket hall').length,
    );
    type(field(), 'kq');
    expect((await screen.findAllByRole('option')).length).toBeLessThanOrEqual(150);
  });

  test('what contains nothing is told; leaving it gives back what was chosen', async () => {
    render(<Picked />);
    act(() => field().focus());
    type(field(), 'lighthouse');
    await screen.findByText('Nothing contains that.');
    act(() => field().blur());
    expect(field().value).toBe('kq-acc-7');
    expect(onChange).not.toHaveBeenCalled();
  });

  test('the arrows and Enter choose', async () => {
    render(<Picked />);
    act(() => field().focus());
    type(field(), 'acc-399');
    await screen.findByRole('option', { name: /kq-acc-399/ });
    fireEvent.keyDown(field(), { key: 'ArrowDown' });
    fireEvent.keyDown(field(), { key: 'Enter' });
    expect(onChange.mock.calls).toEqual([['d399']]);
    expect(field().value).toBe('kq-acc-399');
  });
});
