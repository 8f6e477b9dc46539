import { reports, scopeTitle } from '@visograph/core';
import { useMemo, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { useProject } from '../data/project.tsx';
import { useWhereabouts, type SelectedKind } from '../data/location.ts';
import { Choice, Button } from '../kit/controls.tsx';
import { Grid, type GridColumn } from '../kit/Grid.tsx';
import { Empty, Work, WorkHead } from '../kit/panels.tsx';

const widths: Record<string, number> = {
  label: 82,
  type: 114,
  lengthM: 78,
  aDevice: 98,
  aPort: 64,
  aPlace: 112,
  bDevice: 98,
  bPort: 64,
  bPlace: 112,
  name: 112,
  role: 96,
  model: 146,
  status: 58,
  place: 100,
  rack: 60,
  unit: 46,
  serial: 108,
  portsUsed: 80,
  ports: 48,
};

/** Saved tabular reports for the scope, on screen and as CSV. */
export default function SchedulesSection(): ReactNode {
  const { view, project } = useProject();
  const { network } = view;
  const { scopeId, selection, select } = useWhereabouts();
  const [search, setSearch] = useSearchParams();
  const report = reports.find((one) => one.key === search.get('schedule')) ?? reports[0];
  const table = useMemo(() => report?.make(network, scopeId) ?? null, [report, network, scopeId]);
  const columns = useMemo<GridColumn[]>(
    () =>
      table?.columns.map((column) => ({
        key: column.key,
        label: column.unit === undefined ? column.label : `${column.label} (${column.unit})`,
        width: widths[column.key] ?? 96,
        numeric: column.numeric ?? false,
        text: ['type', 'model', 'aPlace', 'bPlace', 'place', 'role', 'status'].includes(column.key),
      })) ?? [],
    [table],
  );
  const rows = useMemo(
    () => table?.rows.map((cells, at) => ({ id: table.ids[at] ?? '', cells })) ?? [],
    [table],
  );
  if (report === undefined) return null;
  const address = `/api/v1/projects/${project.id}/reports/${report.key}?format=csv${scopeId === null ? '' : `&scope=${scopeId}`}`;
  const kind = report.kind as SelectedKind;
  return (
    <Work>
      <WorkHead>
        <h1>{`${report.title} · ${scopeTitle(network, scopeId)}`}</h1>
        <p>{`${rows.length} rows`}</p>
        <div>
          <Choice
            label="Schedule"
            hideLabel
            width={150}
            value={report.key}
            options={reports.map((one) => ({ id: one.key, text: one.title }))}
            onChange={(key) => {
              const next = new URLSearchParams(search);
              next.set('schedule', key ?? 'cables');
              setSearch(next, { replace: true });
            }}
          />
          <Button $tone="primary" onPress={() => window.location.assign(address)}>
            Save CSV
          </Button>
        </div>
      </WorkHead>
      <Grid
        label={report.title}
        columns={columns}
        rows={rows}
        selectedId={selection?.kind === kind ? selection.id : null}
        onSelect={(id) => select({ kind, id })}
        empty={<Empty title="Nothing to list here">Choose a wider scope in the path at the top.</Empty>}
      />
    </Work>
  );
}
