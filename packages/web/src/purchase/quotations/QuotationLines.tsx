import { quotationKind, type Quotation, type QuotationSection } from '@visograph/core/model';
import { changeQuotation, movedLine, movedSection, readPercent, totalsOf } from '@visograph/core/purchase';
import { useMemo, useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { Button, Field } from '../../kit/controls.tsx';
import { Grid, type GridColumn } from '../../kit/grid/Grid.tsx';
import { Empty, Hint } from '../../kit/panel/panels.tsx';
import { Bar } from '../layout.tsx';
import { useKeep } from '../../data/useDo.ts';
import { blankLine, quotationRows, spotOf, typedInto } from './quotationRows.ts';

const columnsOf = (currency: string, writes: boolean): GridColumn[] => [
  { key: 'what', label: 'Item', width: 206, text: true, editable: writes },
  { key: 'partNumber', label: 'Part number', width: 96, editable: writes },
  { key: 'count', label: 'Count', width: 56, numeric: true, editable: writes },
  { key: 'price', label: `Each (${currency})`, width: 92, numeric: true, editable: writes },
  { key: 'discount', label: 'Discount', width: 70, numeric: true, editable: writes },
  { key: 'tax', label: 'Tax', width: 52, numeric: true, editable: writes },
  { key: 'net', label: `Net (${currency})`, width: 94, numeric: true, worked: writes },
  { key: 'optional', label: 'Option', width: 64, text: true, editable: writes },
  { key: 'detail', label: 'Detail', width: 170, text: true, editable: writes },
];

/** The lines of a quotation under their sections, written in as a spreadsheet is. */
export function QuotationLines({ row, writes }: { row: Quotation; writes: boolean }): ReactNode {
  const { view } = useProject();
  const keep = useKeep();
  const [chosen, setChosen] = useState<string | null>(null);
  const rows = useMemo(
    () =>
      quotationRows(
        row,
        totalsOf(row).sections.map(({ netMinor }) => netMinor),
      ),
    [row],
  );
  const change = (sections: QuotationSection[]): string | null =>
    keep(changeQuotation(view.network, row, { sections }));
  const withSection = (at: number, to: (section: QuotationSection) => QuotationSection): QuotationSection[] =>
    row.sections.map((section, index) => (index === at ? to(section) : section));
  const edit = (id: string, key: string, text: string): string | null => {
    const { section: at, line: index } = spotOf(id);
    const line = index === null ? undefined : row.sections[at]?.lines[index];
    if (line === undefined) return 'Choose a line below it.';
    const next = typedInto(line, key, text, row.currency);
    if ('why' in next) return next.why;
    return change(
      withSection(at, (section) => ({
        ...section,
        lines: section.lines.map((one, place) => (place === index ? next : one)),
      })),
    );
  };
  const spot = chosen === null ? null : spotOf(chosen);
  const section = spot === null ? undefined : row.sections[spot.section];
  return (
    <>
      <Grid
        label={`Lines of ${quotationKind.nameOf(row)}`}
        columns={columnsOf(row.currency, writes)}
        rows={rows}
        selectedId={rows.some(({ id }) => id === chosen) ? chosen : null}
        onSelect={setChosen}
        {...(writes ? { onEdit: edit } : {})}
        empty={
          <Empty title="Nothing is offered yet">
            {writes ? 'Add a section, then lines to it.' : 'It was issued so.'}
          </Empty>
        }
      />
      {writes && (
        <SectionBar
          key={`${spot?.section ?? ''}`}
          section={section ?? null}
          onAdd={(name) => change([...row.sections, { name, discount: 0, lines: [] }])}
          onLine={(what) =>
            spot === null
              ? 'Choose a section, or a line of one.'
              : change(
                  withSection(spot.section, (one) => ({
                    ...one,
                    lines: [...one.lines, blankLine(what, one)],
                  })),
                )
          }
          onDiscount={(discount) =>
            spot === null ? null : change(withSection(spot.section, (one) => ({ ...one, discount })))
          }
          onMove={(by) => {
            if (spot === null) return null;
            if (spot.line === null) return 'Choose a line.';
            const moved = movedLine(row.sections, { section: spot.section, line: spot.line }, by);
            if (moved === null) return by === 1 ? 'It is the last line.' : 'It is the first line.';
            const why = change(moved.sections);
            if (why === null) setChosen(`${moved.spot.section}.${moved.spot.line}`);
            return why;
          }}
          onMoveSection={(by) => {
            if (spot === null) return null;
            const moved = movedSection(row.sections, spot.section, by);
            if (moved === null) return by === 1 ? 'It is the last section.' : 'It is the first section.';
            const why = change(moved);
            if (why === null) setChosen(`${spot.section + by}${spot.line === null ? '' : `.${spot.line}`}`);
            return why;
          }}
          onRemove={() => {
            if (spot === null) return null;
            const gone =
              spot.line === null
                ? row.sections.filter((_one, at) => at !== spot.section)
                : withSection(spot.section, (one) => ({
                    ...one,
                    lines: one.lines.filter((_line, at) => at !== spot.line),
                  }));
            setChosen(null);
            return change(gone);
          }}
          removes={spot === null ? null : spot.line === null ? 'section' : 'line'}
        />
      )}
    </>
  );
}

interface SectionProps {
  section: QuotationSection | null;
  removes: 'section' | 'line' | null;
  onAdd: (name: string) => string | null;
  onLine: (what: string) => string | null;
  onDiscount: (discount: number) => string | null;
  onMove: (by: -1 | 1) => string | null;
  onMoveSection: (by: -1 | 1) => string | null;
  onRemove: () => string | null;
}

/** What is done with sections and lines beside typing into them. */
function SectionBar({
  section,
  removes,
  onAdd,
  onLine,
  onDiscount,
  onMove,
  onMoveSection,
  onRemove,
}: SectionProps): ReactNode {
  const [name, setName] = useState('');
  const [off, setOff] = useState(section === null ? '' : String(section.discount / 100));
  const [why, setWhy] = useState<string | null>(null);
  const named = (act: (text: string) => string | null): void => {
    const problem = name.trim() === '' ? 'Name is empty: type what it is called.' : act(name.trim());
    setWhy(problem);
    if (problem === null) setName('');
  };
  return (
    <Bar
      as="form"
      style={{ alignItems: 'flex-end' }}
      aria-label="Sections and lines"
      onSubmit={(event) => event.preventDefault()}
    >
      <Field label="Called" width={200} value={name} onChange={setName} />
      <Button onPress={() => named(onAdd)}>Add a section</Button>
      {section !== null && <Button onPress={() => named(onLine)}>{`Add a line to ${section.name}`}</Button>}
      {section !== null && (
        <>
          <Field label={`Discount on ${section.name} (%)`} width={150} value={off} onChange={setOff} />
          <Button
            onPress={() => {
              const discount = readPercent(off);
              setWhy(discount === null ? `“${off}” is no percentage such as 7.5.` : onDiscount(discount));
            }}
          >
            Set
          </Button>
        </>
      )}
      {removes === 'line' &&
        ([-1, 1] as const).map((by) => (
          <Button
            key={by}
            aria-label={by === 1 ? 'Move the line down' : 'Move the line up'}
            onPress={() => setWhy(onMove(by))}
          >
            {by === 1 ? 'Line ↓' : 'Line ↑'}
          </Button>
        ))}
      {section !== null &&
        ([-1, 1] as const).map((by) => (
          <Button
            key={by}
            aria-label={`Move ${section.name} ${by === 1 ? 'down' : 'up'}`}
            onPress={() => setWhy(onMoveSection(by))}
          >
            {by === 1 ? 'Section ↓' : 'Section ↑'}
          </Button>
        ))}
      {removes !== null && (
        <Button onPress={() => setWhy(onRemove())}>
          {removes === 'line' ? 'Take the line out' : 'Take the section out'}
        </Button>
      )}
      {why !== null && <Hint role="alert">{why}</Hint>}
    </Bar>
  );
}
