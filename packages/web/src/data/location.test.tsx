import { describe, expect, test } from '@jest/globals';
import { act, render } from '@testing-library/react';
import { MemoryRouter, Route, Routes, useLocation } from 'react-router';
import { useWhereabouts, type Whereabouts } from './location.ts';

/** Goes through the application from an address; gives what is known there and the address itself. */
function at(address: string): { where: () => Whereabouts; address: () => string } {
  let where: Whereabouts | null = null;
  let now = '';
  function Here(): null {
    where = useWhereabouts();
    const { pathname, search } = useLocation();
    now = `${pathname}${search}`;
    return null;
  }
  render(
    <MemoryRouter initialEntries={[address]}>
      <Routes>
        <Route path="/p/:project/*" element={<Here />} />
      </Routes>
    </MemoryRouter>,
  );
  return {
    where: () => {
      if (where === null) throw new Error('nowhere');
      return where;
    },
    address: () => decodeURIComponent(now),
  };
}

describe('where the person is', () => {
  test('is read from the address; what cannot be is nothing', () => {
    const { where } = at('/p/P/places?scope=S&rack=R&beside=a.b&sel=device:D');
    expect(where()).toMatchObject({
      section: 'places',
      scopeId: 'S',
      rackId: 'R',
      beside: ['a', 'b'],
      selection: { kind: 'device', id: 'D' },
    });
    expect(at('/p/P/places?beside=room&sel=castle:1').where()).toMatchObject({
      beside: 'room',
      selection: null,
    });
    expect(at('/p/P/places?sel=device:').where().selection).toBeNull();
  });

  test('going somewhere keeps what is not said, and what says which network is meant', () => {
    const { where, address } = at('/p/P/places?scope=S&plan=N&built=1');
    act(() => where().go({ section: 'cables', selection: { kind: 'cable', id: 'C' } }));
    expect(address()).toBe('/p/P/cables?scope=S&plan=N&built=1&sel=cable:C');
    act(() => where().go({ scopeId: null }));
    expect(address()).toBe('/p/P/cables?plan=N&built=1&sel=cable:C');
  });

  test('a rack is open in Places alone, and those beside it with it', () => {
    const { where, address } = at('/p/P/places?scope=S');
    act(() => where().go({ rackId: 'R', beside: ['T', 'U'] }));
    expect(address()).toBe('/p/P/places?scope=S&rack=R&beside=T.U');
    act(() => where().go({ section: 'equipment' }));
    expect(address()).toBe('/p/P/equipment?scope=S');
    const other = at('/p/P/places?rack=R&beside=room');
    act(() => other.where().go({ rackId: null }));
    expect(other.address()).toBe('/p/P/places');
  });

  test('a sheet is a path of its own; null leads to the list of them', () => {
    const { where, address } = at('/p/P/places?scope=S&rack=R');
    act(() => where().go({ sheetId: 'X', selection: null }));
    expect(address()).toBe('/p/P/sheets/X?scope=S');
    act(() => where().go({ sheetId: null }));
    expect(address()).toBe('/p/P/sheets?scope=S');
  });

  test('selecting replaces the entry of the browser’s history, and null empties it', () => {
    const { where, address } = at('/p/P/vlans');
    act(() => where().select({ kind: 'vlan', id: 'V' }));
    expect(address()).toBe('/p/P/vlans?sel=vlan:V');
    act(() => where().select(null));
    expect(address()).toBe('/p/P/vlans');
  });
});
