import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { paper } from '@visograph/drawing';
import { useState, type ReactNode } from 'react';
import { ThemeProvider } from 'styled-components';
import { figureText } from './drawn.tsx';
import { Grid, type GridColumn, type GridRow } from './Grid.tsx';

const columns: GridColumn[] = [
  { key: 'name', label: 'Name', width: 120, editable: true },
  { key: 'unit', label: 'Unit', width: 60, numeric: true },
];
const start: GridRow[] = [
  { id: 'a', cells: { name: 'kq-acc-10', unit: 9 } },
  { id: 'b', cells: { name: 'kq-acc-2', unit: 40 } },
  { id: 'c', cells: { name: 'kq-edge-1', unit: null } },
];

/** Names may be anything but empty; the rows live here as they do in the application. */
function Sheet({
  filter = '',
  onSelect = () => undefined,
  onAppend,
  drawn = columns,
}: {
  filter?: string;
  onSelect?: (id: string) => void;
  onAppend?: (text: string) => string | null;
  drawn?: GridColumn[];
}): ReactNode {
  const [rows, setRows] = useState(start);
  const edit = (id: string, key: string, text: string): string | null => {
    if (text.trim() === '') return 'Give a value.';
    setRows((before) =>
      before.map((row) => (row.id === id ? { ...row, cells: { ...row.cells, [key]: text } } : row)),
    );
    return null;
  };
  return (
    <ThemeProvider theme={paper}>
      <Grid
        label="Devices"
        columns={drawn}
        onAppend={onAppend}
        rows={rows}
        filter={filter}
        selectedId={null}
        onSelect={onSelect}
        onEdit={edit}
      />
    </ThemeProvider>
  );
}

// jsdom lays nothing out: the rows' window gets the height a screen would give it.
Object.defineProperty(HTMLElement.prototype, 'clientHeight', { configurable: true, value: 400 });
Object.defineProperty(HTMLElement.prototype, 'clientWidth', { configurable: true, value: 600 });
Element.prototype.scrollTo = () => undefined;
afterEach(cleanup);

const names = (): string[] =>
  screen
    .getAllByRole('gridcell')
    .filter((cell) => cell.getAttribute('aria-colindex') === '1')
    .map((cell) => cell.textContent ?? '');
const cell = (text: string): HTMLElement => screen.getByRole('gridcell', { name: text });

test('says how many rows and columns there are', () => {
  render(<Sheet />);
  const grid = screen.getByRole('grid', { name: 'Devices' });
  expect(grid.getAttribute('aria-rowcount')).toBe('4');
  expect(grid.getAttribute('aria-colcount')).toBe('2');
});

test('sorts names as people count, and numbers as numbers', () => {
  render(<Sheet />);
  fireEvent.click(screen.getByRole('button', { name: 'Name' }));
  expect(names()).toEqual(['kq-acc-2', 'kq-acc-10', 'kq-edge-1']);
  fireEvent.click(screen.getByRole('button', { name: 'Unit' }));
  expect(names()).toEqual(['kq-edge-1', 'kq-acc-10', 'kq-acc-2']);
});

test('keeps only the rows that contain the filter', () => {
  render(<Sheet filter="edge" />);
  expect(names()).toEqual(['kq-edge-1']);
});

test('typing begins an edit, Enter keeps it', () => {
  render(<Sheet />);
  fireEvent.click(cell('kq-acc-2'));
  fireEvent.keyDown(cell('kq-acc-2'), { key: 'x' });
  const input = screen.getByRole('textbox', { name: 'Name' });
  fireEvent.change(input, { target: { value: 'kq-acc-7' } });
  fireEvent.keyDown(input, { key: 'Enter' });
  expect(names()).toContain('kq-acc-7');
});

test('a value that cannot be kept stays in the cell, marked, with the reason; Escape leaves the old one', () => {
  render(<Sheet />);
  fireEvent.click(cell('kq-acc-2'));
  fireEvent.keyDown(cell('kq-acc-2'), { key: 'F2' });
  fireEvent.change(screen.getByRole('textbox', { name: 'Name' }), { target: { value: ' ' } });
  fireEvent.keyDown(screen.getByRole('textbox', { name: 'Name' }), { key: 'Tab' });
  expect(
    screen.getAllByRole('gridcell').filter((one) => one.getAttribute('aria-invalid') === 'true'),
  ).toHaveLength(1);
  fireEvent.click(cell('kq-edge-1'));
  fireEvent.keyDown(cell('kq-edge-1'), { key: 'F2' });
  fireEvent.change(screen.getByRole('textbox', { name: 'Name' }), { target: { value: 'other' } });
  fireEvent.keyDown(screen.getByRole('textbox', { name: 'Name' }), { key: 'Escape' });
  expect(names()).toContain('kq-edge-1');
});

test('a column pasted from a spreadsheet fills the cells below', () => {
  render(<Sheet />);
  fireEvent.click(cell('kq-acc-10'));
  fireEvent.paste(cell('kq-acc-10'), { clipboardData: { getData: () => 'one\r\ntwo\r\n' } });
  expect(names()).toEqual(['one', 'two', 'kq-edge-1']);
});

test('Space chooses the row', () => {
  const chosen = jest.fn();
  render(<Sheet onSelect={chosen} />);
  fireEvent.focus(cell('kq-acc-10'));
  fireEvent.keyDown(cell('kq-acc-10'), { key: ' ' });
  expect(chosen).toHaveBeenCalledWith('a');
});

describe('below the last row', () => {
  const below = (): HTMLInputElement =>
    screen.getByRole<HTMLInputElement>('textbox', { name: 'Below the last row' });
  const taken: string[] = [];
  const take = (text: string): string | null => {
    taken.push(text);
    return text === 'there' ? 'there is there already.' : null;
  };

  test('what is typed is taken with Enter, and told where it cannot be', () => {
    render(<Sheet onAppend={take} />);
    fireEvent.change(below(), { target: { value: 'new-1' } });
    fireEvent.keyDown(below(), { key: 'Enter' });
    expect([taken.at(-1), below().value]).toEqual(['new-1', '']);
    fireEvent.change(below(), { target: { value: 'there' } });
    fireEvent.keyDown(below(), { key: 'Enter' });
    expect(screen.getByRole('alert').textContent).toBe('there is there already.');
    expect(below().value).toBe('there');
    fireEvent.change(below(), { target: { value: 'ther' } });
    expect(screen.queryByRole('alert')).toBeNull();
  });

  test('rows that are pasted are taken as they are; one word stays in the field', () => {
    render(<Sheet onAppend={take} />);
    const before = taken.length;
    fireEvent.paste(below(), { clipboardData: { getData: () => 'one' } });
    expect(taken).toHaveLength(before);
    fireEvent.paste(below(), { clipboardData: { getData: () => 'one\ttwo\nthree' } });
    expect(taken.at(-1)).toBe('one\ttwo\nthree');
  });

  test('a block that reaches below the last row fills what is there, the rest is taken with its headings', () => {
    render(<Sheet onAppend={take} />);
    fireEvent.click(cell('kq-edge-1'));
    fireEvent.paste(cell('kq-edge-1'), { clipboardData: { getData: () => 'first\t1\nsecond\t2\n' } });
    expect(names().at(-1)).toBe('first');
    expect(taken.at(-1)).toBe('Name\tUnit\nsecond\t2');
  });

  test('an arrow leads there from the last row and back', () => {
    render(<Sheet onAppend={take} />);
    fireEvent.click(cell('kq-edge-1'));
    fireEvent.keyDown(cell('kq-edge-1'), { key: 'ArrowDown' });
    expect(document.activeElement).toBe(below());
    fireEvent.keyDown(below(), { key: 'ArrowUp' });
    expect(document.activeElement?.textContent).toBe('kq-edge-1');
  });
});

test('a value may be drawn: what is said of it stays its text, and typing into it begins with that', () => {
  const drawn: GridColumn[] = [
    {
      ...columns[0],
      key: 'name',
      label: 'Name',
      width: 120,
      editable: true,
      draw: (value) => <b>{`* ${value}`}</b>,
    },
    { key: 'unit', label: 'Unit', width: 60, numeric: true, figure: true },
  ];
  render(<Sheet drawn={drawn} />);
  const shown = screen.getByRole('gridcell', { name: '* kq-acc-2' });
  expect(shown.getAttribute('title')).toBe('kq-acc-2');
  fireEvent.click(shown);
  fireEvent.keyDown(shown, { key: 'F2' });
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Name' }).value).toBe('kq-acc-2');
});

test('figures are written with their thousands apart, with the decimals they have', () => {
  expect([1387, 999, 1234567.5, 0.25].map(figureText)).toEqual(['1 387', '999', '1 234 567.5', '0.25']);
});
