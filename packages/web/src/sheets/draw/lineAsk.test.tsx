import { beforeAll, describe, expect, test } from '@jest/globals';
import { fireEvent, render, screen } from '@testing-library/react';
import type { CircuitWish } from '@visograph/core/cabling';
import { create } from '@visograph/core/change';
import { blankPlace, newId, type Network } from '@visograph/core/model';
import type { Plate } from '@visograph/core/sheets';
import { called, changed, drawn, emptyProject } from '../../../../core/src/testing/testDrawn.ts';
import { type, withSizes } from '../../testing/testScreen.tsx';
import { FixedTheme } from '../../theme/theme.tsx';
import { askFor, endOfPlate, lineText, makeLines, type LineManner } from './lineAsk.ts';
import { CircuitFields } from './LineFields.tsx';

beforeAll(withSizes);

const quiet: LineManner = { routed: null, provider: null };
const on = (projection: 'cabling' | 'switching' | 'routing' | 'sites') => ({ projection, vrfId: null });
const plate = (part: Partial<Plate>): Plate =>
  ({ form: 'device', deviceIds: [], subjects: [], name: '', ...part }) as Plate;

describe('what is asked of a line', () => {
  const network = drawn({ 'rt-1': 'Generic router', 'rt-2': 'Generic router', 'sw-1': 'AX-2448P' });
  const ends = (a: string, b: string) =>
    [{ deviceId: called(network, a).id }, { deviceId: called(network, b).id }] as const;

  test('follows from the sheet: a cable, a subnet, VLANs', () => {
    const sort = (projection: 'cabling' | 'switching' | 'routing') =>
      askFor(network, on(projection), ends('rt-1', 'rt-2'), null, quiet);
    expect(sort('cabling').sort).toBe('cable');
    expect(sort('switching')).toMatchObject({ sort: 'switched', how: {} });
    expect(sort('routing')).toMatchObject({ sort: 'routed', how: { linksFrom: '10.0.0.0/24', length: 31 } });
  });

  test('what was said of the last line holds for the next one', () => {
    const said = { ...quiet, routed: { vrfId: null, linksFrom: '10.9.0.0/24', length: 30 } };
    expect(askFor(network, on('routing'), ends('rt-1', 'rt-2'), null, said)).toMatchObject({
      how: { linksFrom: '10.9.0.0/24', length: 30 },
    });
  });

  test('an end that is a place or a provider makes it a circuit, on any sheet', () => {
    const [a] = ends('rt-1', 'rt-2');
    const ask = askFor(network, on('cabling'), [a, { provider: 'Holm Carrier' }], null, quiet);
    expect(ask.sort).toBe('circuit');
    const made = makeLines(network, [ask]);
    if (!made.ok || made.lines[0] === undefined) throw new Error('not made');
    expect(lineText(made.network, made.lines[0], 1)).toBe('rt-1 eth0 to Holm Carrier, internet, circuit 1');
  });

  test('a plate is an end by what it stands for', () => {
    expect(endOfPlate(plate({ form: 'place', subjects: ['p'], deviceIds: ['d'] }))).toEqual({ placeId: 'p' });
    expect(endOfPlate(plate({ form: 'provider', name: 'Skerrynet' }))).toEqual({ provider: 'Skerrynet' });
    expect(endOfPlate(plate({ form: 'pair', deviceIds: ['d', 'e'] }))).toEqual({ deviceId: 'd' });
    expect(endOfPlate(plate({ form: 'subnet' }))).toBeNull();
    expect(endOfPlate(plate({}))).toBeNull();
  });

  test('several lines are one step, each on what is left; the first that cannot be made is the reason', () => {
    const asks = ['rt-1', 'rt-2'].map((name) =>
      askFor(network, on('cabling'), ends(name, 'sw-1'), null, quiet),
    );
    const made = makeLines(network, asks);
    if (!made.ok) throw new Error(made.why);
    expect(made.sentence).toBe('Connected 2 pairs with 2 lines');
    expect(new Set(made.lines.map(({ bPortId }) => bPortId)).size).toBe(2);
    const own = askFor(network, on('cabling'), ends('sw-1', 'sw-1'), null, quiet);
    expect(makeLines(network, [...asks, own])).toMatchObject({ ok: false });
  });
});

describe('the fields of a circuit that was pulled', () => {
  function opened(b: CircuitWish['b'] | null) {
    const [kq, br] = [newId(), newId()];
    const start = changed(
      emptyProject(),
      [kq, br].map((id, at) =>
        create('place', { ...blankPlace, id, name: ['Kelder Quay', 'Brinsay'][at] ?? '', kind: 'site' }),
      ),
    );
    const wish: CircuitWish = { a: { placeId: kq }, b: b ?? { placeId: br } };
    const made = makeLines(start, [{ sort: 'circuit', wish }]);
    if (!made.ok) throw new Error(made.why);
    const network: Network = made.network;
    const [circuit] = [...network.all('circuit')];
    const port = (id: string | null) => network.get('port', id);
    const near = port(circuit?.aPortId ?? null);
    if (circuit === undefined || near === null) throw new Error('no circuit');
    const wishes: CircuitWish[] = [];
    render(
      <FixedTheme name="paper">
        <CircuitFields
          network={network}
          wish={wish}
          circuit={circuit}
          ends={[near, port(circuit.bPortId)]}
          onWish={(next) => wishes.push(next)}
        />
      </FixedTheme>,
    );
    const field = (name: string): HTMLInputElement => screen.getByRole('textbox', { name });
    return { wishes, field };
  }

  test('are taken with Enter, all that were written together; what is no speed is said and takes nothing', () => {
    const { wishes, field } = opened(null);
    type(field('Circuit number'), 'HC-88');
    type(field('Provider'), 'Holm Carrier');
    type(field('Bandwidth'), 'fast');
    fireEvent.keyDown(field('Bandwidth'), { key: 'Enter' });
    expect(wishes).toEqual([]);
    expect(screen.getByText('Write it as 100M or 1G')).toBeTruthy();
    type(field('Bandwidth'), '1G');
    fireEvent.keyDown(field('Bandwidth'), { key: 'Enter' });
    expect(wishes.at(-1)).toMatchObject({ number: 'HC-88', provider: 'Holm Carrier', bandwidthBps: 1e9 });
  });

  test('the name of a provider at its end is that end', () => {
    const { wishes, field } = opened({ provider: 'provider not named yet' });
    type(field('Provider'), 'Skerrynet');
    fireEvent.blur(field('Provider'));
    expect(wishes.at(-1)).toMatchObject({ b: { provider: 'Skerrynet' }, provider: null });
  });
});
