import {
  equipmentFieldLabel,
  equipmentFields,
  type EquipmentColumns,
  type EquipmentWish,
} from '@visograph/core/racks';
import { useEffect, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useWhereabouts } from '../../data/location.ts';
import { useProject } from '../../data/project.tsx';
import { Choice } from '../../kit/choice.tsx';
import { Field } from '../../kit/controls.tsx';
import { ListPanel } from '../../kit/list/ListPanel.tsx';
import { useList } from '../../kit/list/useList.ts';
import { Tick } from '../../kit/Tick.tsx';
import { AskModels } from './AskModels.tsx';
import { sendEquipmentList, type EquipmentListResult } from './equipmentList.ts';

const Columns = styled.details`
  > div {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
    gap: 8px;
    margin-top: 8px;
    max-height: 200px;
    overflow: auto;
  }
`;
const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
`;

/** The same columns with another meaning of one of them. */
function told(columns: EquipmentColumns, column: number, meaning: string): EquipmentColumns {
  const fields = { ...columns.fields };
  for (const field of equipmentFields) if (fields[field] === column) delete fields[field];
  const field = equipmentFields.find((one) => one === meaning);
  if (field !== undefined) fields[field] = column;
  const own = columns.own.filter((one) => one !== column);
  return { fields, own: meaning === 'own' ? [...own, column].sort((a, b) => a - b) : own };
}

/** What each column of the file holds: found by its heading or content, chosen here where that is wrong. */
function ColumnsOf({
  read: { columns, first, headed },
  onChoose,
}: {
  read: EquipmentListResult;
  onChoose: (columns: EquipmentColumns) => void;
}): ReactNode {
  const width = Math.max(0, ...first.map((row) => row.length));
  const meaning = (column: number): string =>
    equipmentFields.find((field) => columns.fields[field] === column) ??
    (columns.own.includes(column) ? 'own' : 'none');
  const left = Array.from({ length: width }, (_, column) => column).filter((one) => meaning(one) === 'none');
  return (
    <Columns>
      <summary>
        {`${width} columns: ${width - left.length - columns.own.length} known, ${columns.own.length} as ${columns.own.length === 1 ? 'an own field' : 'own fields'}, ${left.length} left out`}
      </summary>
      <div role="group" aria-label="Columns of the file">
        {Array.from({ length: width }, (_, column) => (
          <Choice
            key={column}
            label={(headed ? first[0]?.[column] : undefined) || `Column ${column + 1}`}
            value={meaning(column)}
            options={[
              { id: 'none', text: 'left out', detail: first[headed ? 1 : 0]?.[column]?.slice(0, 22) ?? '' },
              { id: 'own', text: 'an own field' },
              ...equipmentFields.map((field) => ({ id: field, text: equipmentFieldLabel(field) })),
            ]}
            onChange={(next) => onChoose(told(columns, column, next ?? 'none'))}
          />
        ))}
      </div>
    </Columns>
  );
}

const start = (placeId: string | null): EquipmentWish => ({
  columns: null,
  models: {},
  makePlaces: true,
  managementVid: null,
  placeId,
});

/** The number of the VLAN that switches without another port for it are managed in. */
function ManagementVlan({ count, onSay }: { count: number; onSay: (vid: number) => void }): ReactNode {
  const [text, setText] = useState('');
  const vid = Number(text);
  const wrong = text !== '' && (!Number.isInteger(vid) || vid < 1 || vid > 4094);
  return (
    <Field
      label="Management VLAN"
      help={count === 0 ? '' : `${count} ${count === 1 ? 'address has' : 'addresses have'} no port yet`}
      value={text}
      onChange={setText}
      onBlur={() => text !== '' && !wrong && onSay(vid)}
      error={wrong ? 'A number from 1 to 4094' : null}
      width={190}
    />
  );
}

interface Props {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  /** Rows that were pasted: they are read at once. */
  pasted: string | null;
}

/**
 * An equipment list from a spreadsheet or from the clipboard: every row told, models that the catalogue does not know
 * asked once, places and racks made with it where that is wished.
 */
export function ImportEquipment({ open, onOpenChange, pasted }: Props): ReactNode {
  const { project, plan, view } = useProject();
  const { scopeId } = useWhereabouts();
  const [wish, setWish] = useState(() => start(scopeId));
  const list = useList<EquipmentListResult, EquipmentWish>(
    (call) => sendEquipmentList({ ...call, projectId: project.id, plan }),
    { one: 'device', many: 'devices', onWritten: () => onOpenChange(false) },
  );
  const { read } = list;
  const ask = (next: EquipmentWish): void => {
    setWish(next);
    list.again(next);
  };
  const { take } = list;
  useEffect(() => {
    if (!open) return;
    const begun = start(scopeId);
    setWish(begun);
    if (pasted !== null) void take('Pasted rows', new TextEncoder().encode(pasted), begun);
    // Once for each opening and each text that is pasted.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [open, pasted]);
  const where = view.network.get('place', wish.placeId)?.name;
  return (
    <ListPanel
      title="Import an equipment list"
      file="Equipment list"
      note="A spreadsheet (.xlsx or .csv), one device a row: name, model, place, rack, unit, serial, status, dates, price, management address and whatever else you keep. Columns are found by their headings; those that nothing is known of become own fields. Nothing is written before you have seen every row."
      heads={{ label: 'Device', detail: 'What it is and where, or why not' }}
      one="device"
      many="devices"
      wish={wish}
      open={open}
      onOpenChange={onOpenChange}
      list={list}
    >
      {read !== null && (
        <>
          <ColumnsOf read={read} onChoose={(columns) => ask({ ...wish, columns })} />
          <AskModels
            unknown={read.unknown}
            answers={wish.models}
            onAnswer={(models) => ask({ ...wish, models })}
          />
          <Line>
            <Tick isSelected={wish.makePlaces} onChange={(makePlaces) => ask({ ...wish, makePlaces })}>
              Make places and racks that are not there yet
            </Tick>
            {where !== undefined && <span>{`A new device without a place stands in ${where}.`}</span>}
            {(read.withoutPort > 0 || wish.managementVid !== null) && (
              <ManagementVlan
                count={read.withoutPort}
                onSay={(managementVid) => ask({ ...wish, managementVid })}
              />
            )}
          </Line>
        </>
      )}
    </ListPanel>
  );
}
