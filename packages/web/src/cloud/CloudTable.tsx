import type { Kind } from '@visograph/core/model';
import type { Table } from '@visograph/core/report';
import { useMemo, type ReactNode } from 'react';
import { useWhereabouts } from '../data/location.ts';
import { Empty } from '../kit/panel/panels.tsx';
import type { GridColumn } from '../kit/grid/Grid.tsx';
import { ViewedGrid } from '../views/ViewedGrid.tsx';

const widths: Readonly<Record<string, number>> = {
  name: 150,
  notes: 170,
  why: 170,
  labels: 160,
  destination: 150,
  traffic: 150,
  peer: 150,
  subnets: 170,
  direction: 80,
  position: 76,
  zone: 80,
  free: 70,
  interfaces: 84,
};

/** The rows of a schedule about a network, each leading to its record. Several may be about one thing. */
export function CloudTable({
  table,
  kind,
  view,
  label,
  schedule,
  none,
}: {
  table: Table;
  kind: Kind;
  view: string;
  label: string;
  schedule: string;
  none: string;
}): ReactNode {
  const { selection, select } = useWhereabouts();
  const columns = useMemo(
    (): GridColumn[] =>
      table.columns
        .filter(({ key }) => key !== 'network')
        .map(({ key, label: head, numeric }) => ({
          ...{ key, label: head, width: widths[key] ?? 124, numeric: numeric === true },
        })),
    [table.columns],
  );
  // A row is known by its place where several are about one thing.
  const rows = useMemo(
    () => table.rows.map((cells, at) => ({ id: `${table.ids[at] ?? ''}~${at}`, cells })),
    [table],
  );
  const chosen = selection?.kind === kind ? table.ids.findIndex((id) => id === selection.id) : -1;
  return (
    <ViewedGrid
      view={view}
      schedule={schedule}
      label={label}
      columns={columns}
      rows={rows}
      selectedId={chosen < 0 ? null : `${table.ids[chosen] ?? ''}~${chosen}`}
      onSelect={(id) => select({ kind, id: id.slice(0, id.indexOf('~')) })}
      empty={<Empty title={none} />}
    />
  );
}
