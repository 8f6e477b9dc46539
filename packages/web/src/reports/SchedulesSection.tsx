import { scopeTitle } from '@visograph/core/cabling';
import { reports } from '@visograph/core/report';
import { useCallback, useMemo, useState, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { useProject } from '../data/project.tsx';
import { addressOf } from '../data/api.ts';
import { useMeantQuery, useShown } from '../data/shown.ts';
import { useWhereabouts } from '../data/location.ts';
import { Choice } from '../kit/choice.tsx';
import { Button } from '../kit/controls.tsx';
import { Grid, type GridColumn } from '../kit/grid/Grid.tsx';
import { Empty, Work, WorkHead } from '../kit/panel/panels.tsx';
import { PrintTable } from './PrintTable.tsx';

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
  device: 112,
  port: 66,
  where: 92,
  connector: 84,
  speed: 56,
  transceiver: 120,
  cable: 82,
  next: 130,
  far: 130,
  from: 134,
  to: 134,
  fromPlace: 84,
  toPlace: 84,
  near: 190,
  cables: 190,
  fault: 260,
  handover: 150,
  colour: 70,
  ports: 48,
};

/** Saved tabular reports for the scope, on screen and as CSV. */
export default function SchedulesSection(): ReactNode {
  const { project } = useProject();
  const network = useShown();
  const meant = useMeantQuery();
  const { scopeId, selection, select } = useWhereabouts();
  const [search, setSearch] = useSearchParams();
  const [printing, setPrinting] = useState(false);
  const printed = useCallback(() => setPrinting(false), []);
  const report = reports.find((one) => one.key === search.get('schedule')) ?? reports[0];
  const table = useMemo(() => report?.make(network, scopeId) ?? null, [report, network, scopeId]);
  const columns = useMemo<GridColumn[]>(
    () =>
      table?.columns.map((column) => ({
        key: column.key,
        label: column.unit === undefined ? column.label : `${column.label} (${column.unit})`,
        width: widths[column.key] ?? 96,
        numeric: column.numeric ?? false,
        figure: column.unit !== undefined && column.unit !== '%',
        text: ['type', 'model', 'aPlace', 'bPlace', 'place', 'role', 'status'].includes(column.key),
      })) ?? [],
    [table],
  );
  const rows = useMemo(
    () => table?.rows.map((cells, at) => ({ id: `${table.ids[at] ?? ''}#${at}`, cells })) ?? [],
    [table],
  );
  if (report === undefined) return null;
  const address = (format: string): string =>
    addressOf('GET /projects/:project/reports/:report', {
      params: { project: project.id, report: report.key },
      query: { ...meant, format, scope: scopeId ?? undefined },
    });
  const { kind } = report;
  const at = selection?.kind === kind ? (table?.ids.indexOf(selection.id) ?? -1) : -1;
  const selectedRow = at < 0 ? null : `${selection?.id ?? ''}#${at}`;
  return (
    <Work>
      <WorkHead>
        <h1>{`${report.title} · ${scopeTitle(network, scopeId)}`}</h1>
        <p>{`${rows.length} rows`}</p>
        <div>
          <Choice
            label="Schedule"
            hideLabel
            width={170}
            value={report.key}
            options={reports.map((one) => ({ id: one.key, text: one.title }))}
            onChange={(key) => {
              const next = new URLSearchParams(search);
              next.set('schedule', key ?? 'cables');
              setSearch(next, { replace: true });
            }}
          />
          <Button onPress={() => setPrinting(true)}>Print</Button>
          <Button onPress={() => window.location.assign(address('xlsx'))}>Save XLSX</Button>
          <Button $tone="primary" onPress={() => window.location.assign(address('csv'))}>
            Save CSV
          </Button>
        </div>
      </WorkHead>
      <Grid
        label={report.title}
        columns={columns}
        rows={rows}
        selectedId={selectedRow}
        onSelect={(id) => select({ kind, id: id.slice(0, id.indexOf('#')) })}
        empty={<Empty title="Nothing to list here">Choose a wider scope in the path at the top.</Empty>}
      />
      {printing && table !== null && (
        <PrintTable
          title={`${report.title} · ${scopeTitle(network, scopeId)}`}
          table={table}
          onDone={printed}
        />
      )}
    </Work>
  );
}
