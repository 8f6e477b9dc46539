import { cableFieldLabels, cableFields, type CableColumns, type CableField } from '@visograph/core/cabling';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useWhereabouts } from '../data/location.ts';
import { useProject } from '../data/project.tsx';
import { Choice } from '../kit/choice.tsx';
import { ListPanel } from '../kit/list/ListPanel.tsx';
import { useList } from '../kit/list/useList.ts';
import { Tick } from '../kit/Tick.tsx';
import { sendCableList, type CableListResult } from './cableList.ts';

const Columns = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
  gap: 8px;
`;

/** How a cable list is read: what its columns hold, and whether what it names and is not there is made. */
interface Wish {
  columns: CableColumns | null;
  make: boolean;
}

const optionsOf = ({ first, headed }: CableListResult) => [
  { id: 'none', text: 'not in the file' },
  ...Array.from({ length: Math.max(0, ...first.map((row) => row.length)) }, (_, at) => ({
    id: String(at),
    text: (headed ? first[0]?.[at] : undefined) || `Column ${at + 1}`,
    detail: first[headed ? 1 : 0]?.[at]?.slice(0, 22) ?? '',
  })),
];

/**
 * A cable list from a spreadsheet, or a table of links: columns found by name and content and chosen by hand where they
 * are wrong. Where that is wished, devices and ports that are not there yet are made with the cables.
 */
export function ImportCables({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}): ReactNode {
  const { project, plan, view } = useProject();
  const { scopeId } = useWhereabouts();
  // Where no device is there yet, whatever the table names has to be made.
  const [wish, setWish] = useState<Wish>({ columns: null, make: view.network.count('device') === 0 });
  const list = useList<CableListResult, Wish>(
    (call) => sendCableList({ ...call, ...call.wish, projectId: project.id, plan, placeId: scopeId }),
    { one: 'cable', many: 'cables', onWritten: () => onOpenChange(false) },
  );
  const { read } = list;
  const ask = (next: Wish): void => {
    setWish(next);
    list.again(next);
  };
  const choose = (field: CableField, column: string | null): void => {
    if (read === null) return;
    const columns: CableColumns = { ...read.columns };
    if (column === null || column === 'none') delete columns[field];
    else columns[field] = Number(column);
    ask({ ...wish, columns });
  };
  const where = view.network.get('place', scopeId)?.name;
  return (
    <ListPanel
      title="Import cables"
      file="Cable list"
      note="A spreadsheet (.xlsx or .csv), one cable a row. An end is device:port, a panel and its position, or rack, unit and port, in one column or two, in any order. Label, type, length, status and notes are taken where there are columns for them."
      heads={{ label: 'Label', detail: 'Ends, or why not' }}
      one="cable"
      many="cables"
      wish={wish}
      open={open}
      onOpenChange={(next) => {
        setWish({ columns: null, make: view.network.count('device') === 0 });
        onOpenChange(next);
      }}
      list={list}
    >
      <Tick isSelected={wish.make} onChange={(make) => ask({ ...wish, make })}>
        {`Make devices and ports that are not there yet (${where === undefined ? 'not placed yet' : `in ${where}`})`}
      </Tick>
      {read !== null && (
        <Columns role="group" aria-label="Columns of the file">
          {cableFields.map((field) => (
            <Choice
              key={field}
              label={cableFieldLabels[field]}
              value={read.columns[field] === undefined ? 'none' : String(read.columns[field])}
              options={optionsOf(read)}
              onChange={(column) => choose(field, column)}
            />
          ))}
        </Columns>
      )}
    </ListPanel>
  );
}
