import { grouped, placePath, type AskedFilter, type View } from '@visograph/core/model';
import { headingKey, viewColumns, viewRows, type ViewedGroup } from '@visograph/core/report';
import { SlidersHorizontal } from 'lucide-react';
import { useDeferredValue, useMemo, type ComponentProps, type ReactNode } from 'react';
import { DialogTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import { today } from '../data/today.ts';
import { useWhereabouts } from '../data/location.ts';
import { useProject } from '../data/project.tsx';
import { Button, Floating } from '../kit/controls.tsx';
import { Grid, type GridColumn, type GridRow, type OwnOrder } from '../kit/grid/Grid.tsx';
import { Empty } from '../kit/panel/panels.tsx';
import { testWords } from './questionParts.tsx';
import { useView } from './useView.ts';
import { ViewPanel } from './ViewPanel.tsx';

const Around = styled.div`
  position: relative;
  flex: 1;
  min-height: 0;
  min-width: 0;
  display: flex;
  flex-direction: column;
  /* The button stands over the last head. */
  [role='columnheader']:last-child > button {
    padding-right: 42px;
  }
`;
const Corner = styled(Button)`
  position: absolute;
  z-index: 3;
  top: 1px;
  right: 13px;
  width: 26px;
  height: 23px;
  padding: 0;
  display: grid;
  place-items: center;
`;
const Said = styled.div`
  flex: none;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  padding: 4px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  color: ${({ theme }) => theme.inkSoft};
  button {
    height: 22px;
    padding: 0 8px;
  }
  strong {
    font-weight: 600;
    color: ${({ theme }) => theme.ink};
  }
  [role='alert'] {
    flex-basis: 100%;
    color: ${({ theme }) => theme.warn};
    overflow-wrap: anywhere;
  }
`;

const filterWords = ({ key, test, value }: AskedFilter, labelOf: (key: string) => string): string =>
  `${labelOf(key)} ${testWords[test]}${value === '' ? '' : ` ${value}`}`;

/** A heading of a group as a row of the grid: it stands in the first column that is shown. */
const asRow = (row: GridRow | ViewedGroup, first: string): GridRow =>
  'heading' in row && row.heading !== undefined && headingKey in row.cells
    ? { ...row, cells: { [first]: row.cells[headingKey] ?? null } }
    : row;

type GridWishes = Omit<ComponentProps<typeof Grid>, 'order' | 'onWidth'>;
interface Props extends GridWishes {
  /** What the grid is called in addresses and in views that are kept. */
  view: string;
  /** The built-in schedule of the same rows: what is looked at can be kept as a schedule. */
  schedule?: string;
}

/** Up, down, as the rows come: by the heads, kept in the view. */
const orderOf = ({ order }: View, change: (fields: Partial<View>) => void): OwnOrder => ({
  of: (key) => (order?.key !== key ? 'none' : order.descending ? 'descending' : 'ascending'),
  turn: (key) =>
    change({
      order:
        order?.key !== key ? { key, descending: false } : order.descending ? null : { key, descending: true },
    }),
});

/** A grid of which one chooses columns, rows, groups and order; all of it in the address, kept under names. */
export function ViewedGrid({ view: name, schedule, ...grid }: Props): ReactNode {
  const { columns, rows, filter = '', empty } = grid;
  const { view: project } = useProject();
  const { scopeId } = useWhereabouts();
  const { view, trouble, plain, change } = useView(name);
  const wanted = useMemo(() => ({ columns, rows, view, filter }), [columns, rows, view, filter]);
  const late = useDeferredValue(wanted);
  const shownColumns = useMemo(
    (): GridColumn[] =>
      viewColumns(columns, view).map((column) => ({
        ...column,
        width: view.widths[column.key] ?? column.width,
      })),
    [columns, view],
  );
  const first = shownColumns[0]?.key ?? '';
  const looked = useMemo(() => {
    const made = viewRows(late.columns, late.rows, late.view, late.filter, today());
    return { ...made, rows: made.rows.map((row) => asRow(row, first)) };
  }, [late, first]);
  const order = useMemo(() => orderOf(view, change), [view, change]);
  const labelOf = (key: string): string => columns.find((column) => column.key === key)?.label ?? key;
  const said = [
    ...view.filters.map((one) => filterWords(one, labelOf)),
    ...(view.group === null ? [] : [`in groups of ${labelOf(view.group)}`]),
    ...(view.columns.length === 0 ? [] : [`${shownColumns.length} of ${columns.length} columns`]),
  ];
  const troubles = [...(trouble === null ? [] : [trouble]), ...looked.problems];
  const scope = scopeId === null ? '' : ` in ${placePath(project.network, scopeId)}`;
  return (
    <Around>
      {(said.length > 0 || troubles.length > 0) && (
        <Said>
          <strong>{`${grouped(looked.count)} of ${grouped(rows.length)} rows`}</strong>
          {said.map((text) => (
            <span key={text}>{text}</span>
          ))}
          <Button onPress={() => change({ columns: [], filters: [], group: null, order: null })}>
            All as it comes
          </Button>
          {troubles.map((text) => (
            <span key={text} role="alert">
              {text}
            </span>
          ))}
        </Said>
      )}
      <Around>
        <Grid
          {...grid}
          columns={shownColumns}
          rows={looked.rows}
          order={order}
          onWidth={(key, width) => change({ widths: { ...view.widths, [key]: width } })}
          empty={
            view.filters.length > 0 && rows.length > 0 ? (
              <Empty title="No row passes the filters">
                {`There are ${grouped(rows.length)} without them${scope}.`}
                <Button onPress={() => change({ filters: [] })}>Take the filters out</Button>
              </Empty>
            ) : (
              empty
            )
          }
        />
        <DialogTrigger>
          <Corner aria-label={`View of ${grid.label}`} $tone={plain ? undefined : 'primary'}>
            <SlidersHorizontal size={14} aria-hidden="true" />
          </Corner>
          <Floating placement="bottom end">
            <ViewPanel
              name={name}
              label={grid.label}
              schedule={schedule}
              filter={filter}
              columns={columns}
              view={view}
              onChange={change}
            />
          </Floating>
        </DialogTrigger>
      </Around>
    </Around>
  );
}
