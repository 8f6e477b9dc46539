import { firstFault } from '../fault.ts';
import { endLabel } from '../labels.ts';
import { labelPrefix, missingLabels } from '../labelSeries.ts';
import { judgeRun } from '../link.ts';
import { poeLoad } from '../poe.ts';
import { traceRun } from '../trace.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { stockOf, stockText } from '../stock.ts';
import { compareNames } from '../../model/values/order.ts';
import { devicesInScope, whereIs } from '../../model/network/places.ts';
import { filledBy } from '../../model/network/ports.ts';
import { compareLists, standing } from '../walk.ts';
import { cablesInScope } from './cables.ts';
import { gigabits, portsInScope, spoken, table, titleOf } from '../../report/parts.ts';
import type { Table, TableRow } from '../../report/table.ts';

const colourNames: readonly [string, string][] = [
  ['#35A6A0', 'aqua'],
  ['#D9B01F', 'yellow'],
  ['#9BB53C', 'lime'],
  ['#3D6FB4', 'blue'],
  ['#8A98A0', 'grey'],
  ['#A9A294', 'grey'],
  ['#5B6B8C', 'slate'],
  ['#20242B', 'black'],
  ['#2B2B2B', 'black'],
  ['#B5533C', 'red'],
  ['#5A2E2E', 'brown'],
  ['#5C7A99', 'light blue'],
];
/** The word for a jacket colour where it is one of the usual ones, otherwise its code. */
const colourName = (jacket: string | null): string | null =>
  jacket === null
    ? null
    : (colourNames.find(([code]) => code.toLowerCase() === jacket.toLowerCase())?.[1] ?? jacket);

/** What a technician plugs, in walking order: rack by rack from the top, each cable where its first end stands. */
export function patchList(network: Network, scopeId: string | null): Table {
  const rows = cablesInScope(network, scopeId)
    .filter((cable) => cable.status !== 'retired')
    .map((cable) => {
      const ends = [cable.aPortId, cable.bPortId].sort((a, b) =>
        compareLists(standing(network, a), standing(network, b)),
      );
      const type = network.get('model', cable.typeId);
      const place = (id: string | null): string | null => {
        const device = network.get('device', network.get('port', id)?.deviceId ?? null);
        return device === null ? null : whereIs(network, device);
      };
      const [from = null, to = null] = ends;
      return {
        id: cable.id,
        order: standing(network, from ?? to),
        cells: {
          fromPlace: place(from),
          from: spoken(network, from),
          toPlace: place(to),
          to: spoken(network, to),
          label: cable.label,
          type: type === null ? null : modelTitle(type),
          lengthM: cable.lengthM,
          colour: colourName(type?.jacket ?? null),
          status: cable.status,
        },
      };
    })
    .sort((a, b) => compareLists(a.order, b.order));
  return table(
    [
      { key: 'fromPlace', label: 'At' },
      { key: 'from', label: 'From' },
      { key: 'toPlace', label: 'At' },
      { key: 'to', label: 'To' },
      { key: 'label', label: 'Label' },
      { key: 'type', label: 'Type' },
      { key: 'lengthM', label: 'Length', numeric: true, unit: 'm' },
      { key: 'colour', label: 'Colour' },
      { key: 'status', label: 'Status' },
    ],
    rows,
  );
}

/** The labels to print: two for every cable, near end first. */
export function labelSchedule(network: Network, scopeId: string | null): Table {
  const rows = cablesInScope(network, scopeId)
    .filter((cable) => cable.status !== 'retired')
    .flatMap((cable) =>
      (['a', 'b'] as const).map((side) => ({
        id: cable.id,
        cells: { ...endLabel(network, cable, side), end: side.toUpperCase() },
      })),
    );
  return table(
    [
      { key: 'label', label: 'Label' },
      { key: 'end', label: 'End' },
      { key: 'near', label: 'Near end' },
      { key: 'far', label: 'Far end' },
    ],
    rows,
  );
}

/** Runs: every pair of active ports that a run joins, with what lies between them. */
export function runSchedule(network: Network, scopeId: string | null): Table {
  const seen = new Set<string>();
  const rows: { id: string; cells: TableRow }[] = [];
  for (const { port } of portsInScope(network, scopeId)) {
    if (port.role === 'panel' || seen.has(port.id) || filledBy(network, port.id) === null) continue;
    const run = traceRun(network, port.id);
    if (run.to !== null) seen.add(run.to);
    const judged = judgeRun(network, run);
    const labels = run.hops.flatMap((hop) =>
      'cable' in hop
        ? [network.get('cable', hop.cable)?.label ?? '']
        : 'circuit' in hop
          ? [network.get('circuit', hop.circuit)?.number ?? '']
          : [],
    );
    rows.push({
      id: port.id,
      cells: {
        from: spoken(network, port.id),
        to: run.to === null ? (run.ends === 'loop' ? 'loop' : 'open') : spoken(network, run.to),
        cables: labels.join(', '),
        count: labels.length,
        lengthM: Math.round(run.lengthM * 100) / 100,
        speed: gigabits(judged.speedBps),
        marginDb: judged.light === null ? null : Math.round(judged.light.marginDb * 10) / 10,
        fault: firstFault(network, judged.faults),
      },
    });
  }
  return table(
    [
      { key: 'from', label: 'From' },
      { key: 'to', label: 'To' },
      { key: 'cables', label: 'Cables' },
      { key: 'count', label: 'Count', numeric: true },
      { key: 'lengthM', label: 'Length', numeric: true, unit: 'm' },
      { key: 'speed', label: 'Speed' },
      { key: 'marginDb', label: 'Light left', numeric: true, unit: 'dB' },
      { key: 'fault', label: 'Fault' },
    ],
    rows,
  );
}

/** Cables grouped by type: how many, how many metres, and what they cost. */
export function cableTypeSchedule(network: Network, scopeId: string | null): Table {
  const groups = new Map<
    string,
    { count: number; lengthM: number; unknown: number; priceMinor: number; priced: number; odd: Set<number> }
  >();
  for (const cable of cablesInScope(network, scopeId)) {
    if (cable.status === 'retired') continue;
    const group = groups.get(cable.typeId ?? '') ?? {
      count: 0,
      lengthM: 0,
      unknown: 0,
      priceMinor: 0,
      priced: 0,
      odd: new Set<number>(),
    };
    const type = network.get('model', cable.typeId);
    group.count++;
    if (cable.lengthM === null) group.unknown++;
    else group.lengthM += cable.lengthM;
    const stock = type === null ? null : stockOf(type, cable.lengthM);
    if (stock?.in === true && stock.priceMinor !== null) {
      group.priceMinor += stock.priceMinor;
      group.priced++;
    } else if (stock?.in === false && cable.lengthM !== null) group.odd.add(cable.lengthM);
    groups.set(cable.typeId ?? '', group);
  }
  const rows = [...groups]
    .map(([id, group]) => ({
      id,
      cells: {
        type: titleOf(network, id) ?? 'no type',
        count: group.count,
        lengthM: Math.round(group.lengthM * 100) / 100,
        unknown: group.unknown,
        price: group.priced === 0 ? null : group.priceMinor / 100,
        currency: network.get('model', id)?.currency ?? null,
        unpriced: group.count - group.priced,
        stock: oddLengths(network, id, group.odd),
      },
    }))
    .sort((a, b) => compareNames(a.cells.type, b.cells.type));
  return table(
    [
      { key: 'type', label: 'Type' },
      { key: 'count', label: 'Cables', numeric: true },
      { key: 'lengthM', label: 'Length', numeric: true, unit: 'm' },
      { key: 'unknown', label: 'Length unknown', numeric: true },
      { key: 'price', label: 'Price', numeric: true },
      { key: 'currency', label: 'Currency' },
      { key: 'unpriced', label: 'Without a price', numeric: true },
      { key: 'stock', label: 'Lengths not in stock' },
    ],
    rows,
  );
}

/** "3.5 m: not in stock, 5 m next": lengths in use that the type does not come in. */
function oddLengths(network: Network, typeId: string, lengths: ReadonlySet<number>): string | null {
  const type = network.get('model', typeId);
  if (type === null || lengths.size === 0) return null;
  return [...lengths]
    .sort((a, b) => a - b)
    .map((lengthM) => `${lengthM} m: ${stockText(stockOf(type, lengthM)) ?? ''}`)
    .join('; ');
}

/** Numbers missing from label sequences of the scope's cables, and who stands beside the gap. */
export function missingLabelSchedule(network: Network, scopeId: string | null): Table {
  const labels = cablesInScope(network, scopeId).map(({ label }) => label);
  const rows = missingLabels(labels)
    .filter((label) => network.findOne('cableByLabel', label.toLowerCase()) === null)
    .map((label) => {
      const prefix = labelPrefix(label) ?? '';
      const after =
        labels
          .filter((one) => labelPrefix(one)?.toLowerCase() === prefix.toLowerCase())
          .filter((one) => compareNames(one, label) > 0)
          .sort(compareNames)[0] ?? '';
      return {
        id: network.findOne('cableByLabel', after.toLowerCase())?.id ?? '',
        cells: { label, prefix, before: after },
      };
    });
  return table(
    [
      { key: 'label', label: 'Missing' },
      { key: 'prefix', label: 'Sequence' },
      { key: 'before', label: 'Next in use' },
    ],
    rows,
  );
}

/** Circuits with an end in the scope. */
export function circuitSchedule(network: Network, scopeId: string | null): Table {
  const within =
    scopeId === null ? null : new Set(devicesInScope(network, scopeId).map((device) => device.id));
  const rows = [...network.all('circuit')]
    .filter(
      (circuit) =>
        within === null ||
        [circuit.aPortId, circuit.bPortId].some((id) => within.has(network.get('port', id)?.deviceId ?? '')),
    )
    .sort((a, b) => compareNames(a.number, b.number))
    .map((circuit) => ({
      id: circuit.id,
      cells: {
        number: circuit.number,
        provider: circuit.provider,
        kind: circuit.kind,
        bandwidth: gigabits(circuit.bandwidthBps),
        a: spoken(network, circuit.aPortId),
        b: spoken(network, circuit.bPortId),
        handover: circuit.handover,
        status: circuit.status,
      },
    }));
  return table(
    [
      { key: 'number', label: 'Circuit' },
      { key: 'provider', label: 'Provider' },
      { key: 'kind', label: 'Kind' },
      { key: 'bandwidth', label: 'Bandwidth' },
      { key: 'a', label: 'A end' },
      { key: 'b', label: 'B end' },
      { key: 'handover', label: 'Hand-over point' },
      { key: 'status', label: 'Status' },
    ],
    rows,
  );
}

/** Switches that feed others: budget, what is promised by class, what is drawn with cable loss, what is left. */
export function poeSchedule(network: Network, scopeId: string | null): Table {
  const whole = (watts: number): number => Math.round(watts * 10) / 10;
  const rows = devicesInScope(network, scopeId).flatMap((device) => {
    const load = poeLoad(network, device);
    if (load === null) return [];
    return [
      {
        id: device.id,
        cells: {
          device: device.name,
          where: whereIs(network, device),
          budgetW: load.budgetW,
          fed: load.ports.length,
          promisedW: whole(load.promisedW),
          drawnW: Number.isFinite(load.drawnW) ? whole(load.drawnW) : null,
          leftW: load.leftW === null ? null : whole(load.leftW),
        },
      },
    ];
  });
  return table(
    [
      { key: 'device', label: 'Device' },
      { key: 'where', label: 'Where' },
      { key: 'budgetW', label: 'Budget', numeric: true, unit: 'W' },
      { key: 'fed', label: 'Devices fed', numeric: true },
      { key: 'promisedW', label: 'Promised', numeric: true, unit: 'W' },
      { key: 'drawnW', label: 'Drawn at most', numeric: true, unit: 'W' },
      { key: 'leftW', label: 'Left', numeric: true, unit: 'W' },
    ],
    rows,
  );
}
