/** Random edits of a network and its content as text, for properties over any history. */
import fc from 'fast-check';
import { applyChanges } from '../change/apply.ts';
import { create, update, type Change } from '../change/change.ts';
import { removal } from '../change/removal.ts';
import { blankCable } from '../model/kinds/lines/cable.ts';
import { blankDevice } from '../model/kinds/equipment/device.ts';
import { newId } from '../model/values/ids.ts';
import { kindNames } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';

/** All rows, whatever their order and that of their fields. */
export const content = (network: Network): string =>
  JSON.stringify(
    kindNames.map((kind) => [...network.all(kind)].sort((a, b) => (a.id < b.id ? -1 : 1))),
    (_key, value: unknown) =>
      typeof value === 'object' && value !== null && !Array.isArray(value)
        ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
        : value,
  );

export const changed = (network: Network, changes: readonly (Change | null)[]): Network => {
  const applied = applyChanges(
    network,
    changes.filter((change) => change !== null),
  );
  return applied.ok ? applied.network : network;
};

/** A device in a rack, under one of a few names so that two edits may want the same. */
function added(network: Network, which: number): Change | null {
  const rack = [...network.all('rack')][which % 2];
  const name = `new-${which % 5}`;
  return rack === undefined
    ? null
    : create('device', {
        ...blankDevice,
        id: newId(),
        name,
        role: 'SW',
        rackId: rack.id,
        unit: 5 + (which % 6),
      });
}

/** A cable between two ports that have none yet. */
function plugged(network: Network, which: number): Change | null {
  const free = [...network.all('port')]
    .filter(({ id, form }) => form === 'physical' && network.countOf('cablesByPort', id) === 0)
    .sort((a, b) => (a.id < b.id ? -1 : 1));
  const [a, b] = [free[which % Math.max(1, free.length)], free[(which + 1) % Math.max(1, free.length)]];
  return a === undefined || b === undefined || a === b
    ? null
    : create('cable', { ...blankCable, id: newId(), label: `N-${which % 7}`, aPortId: a.id, bPortId: b.id });
}

/** A status, a name, a place on a sheet, something added, plugged in, unplugged or taken out: what an engineer does all day. */
export const edit = fc.tuple(
  fc.constantFrom('status', 'rename', 'unplug', 'remove', 'sheet', 'move', 'plug', 'add'),
  fc.nat(),
  fc.constantFrom('planned', 'active', 'retired'),
);
export function edited(network: Network, [what, which, status]: [string, number, string]): Network {
  if (what === 'add') return changed(network, [added(network, which)]);
  if (what === 'plug') return changed(network, [plugged(network, which)]);
  const pick = (...kinds: (typeof kindNames)[number][]) => {
    const rows = kinds.flatMap((kind) => [...network.all(kind)].map((row) => ({ kind, row })));
    rows.sort((a, b) => (a.row.id < b.row.id ? -1 : 1));
    return rows[which % Math.max(1, rows.length)];
  };
  const found =
    what === 'status'
      ? pick('device', 'cable', 'circuit', 'prefix')
      : what === 'rename'
        ? pick('device', 'rack', 'sheet')
        : what === 'unplug'
          ? pick('cable')
          : what === 'sheet'
            ? pick('sheetItem', 'mark')
            : what === 'move'
              ? pick('device')
              : pick('cable', 'port', 'address', 'route', 'prefix', 'device');
  if (found === undefined) return network;
  const { kind, row } = found;
  if (what === 'remove') return changed(network, removal(network, [{ kind, id: row.id }]).changes);
  const fields =
    what === 'status'
      ? { status }
      : what === 'rename'
        ? { name: `n${which % 1000}` }
        : what === 'unplug'
          ? { aPortId: null }
          : what === 'move'
            ? { unit: 1 + (which % 12) }
            : { x: which % 100 };
  return changed(network, [update(kind, row as never, fields as never)]);
}
