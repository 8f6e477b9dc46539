import { deleteRow, editHeld } from '@visograph/core/commands';
import {
  factFieldsOf,
  kinds,
  rowTitle,
  titleOf,
  type FactField,
  type Kind,
  type Row,
  type Rows,
  held,
} from '@visograph/core/model';
import type { ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Button } from '../kit/controls.tsx';
import { Tick } from '../kit/Tick.tsx';
import { Card, ChosenFact, EditableFact, Facts, Goto, Head } from './parts.tsx';
import { ListFacts } from './ListFacts.tsx';
import { canChooseAmong, ReferenceFact } from './ReferenceFact.tsx';
import { RowHistory } from './RowHistory.tsx';

interface FactProps {
  kind: Kind;
  row: Row;
  fact: FactField;
}

function Fact({ kind, row, fact }: FactProps): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const field = fact.field as keyof Rows[Kind] & string;
  const value = held(row)[fact.field];
  if (fact.to !== null) {
    // What a row belongs to stays; what it points at, or is held by, can be another.
    const owner = kinds[kind].refs[fact.field]?.onRemove === 'goes';
    const chosen = typeof value === 'string' ? value : null;
    return (
      <>
        <dt>{fact.label}</dt>
        <dd>
          {canEdit && !owner && canChooseAmong(network.count(fact.to)) ? (
            <ReferenceFact kind={kind} row={row} fact={fact} value={chosen} />
          ) : typeof value === 'string' ? (
            <Goto to={{ kind: fact.to, id: value }}>{titleOf(network, fact.to, value)}</Goto>
          ) : (
            '–'
          )}
        </dd>
      </>
    );
  }
  if (fact.form === 'yes or no')
    return (
      <>
        <dt>{fact.label}</dt>
        <dd>
          <Tick
            aria-label={fact.label}
            isSelected={value === true}
            isDisabled={!canEdit}
            onChange={(on) => void commit(editHeld(network, kind, row, { [field]: on }))}
          >
            {value === true ? 'yes' : 'no'}
          </Tick>
        </dd>
      </>
    );
  if (fact.form === 'choice')
    return (
      <ChosenFact
        kind={kind}
        row={row}
        field={field}
        options={fact.optional ? [null, ...fact.words] : fact.words}
      />
    );
  return (
    <EditableFact
      kind={kind}
      row={row}
      field={field}
      numeric={fact.form === 'number'}
      optional={fact.optional}
    />
  );
}

/** What a kind says of its rows, without what they belong to: for cards of records of something else. */
export function RowFacts({
  kind,
  row,
  without = [],
}: {
  kind: Kind;
  row: Row;
  /** Fields that the card tells itself. */
  without?: readonly string[];
}): ReactNode {
  const facts = factFieldsOf(kind).filter(
    ({ field }) => kinds[kind].refs[field]?.onRemove !== 'goes' && !without.includes(field),
  );
  return (
    <Facts>
      {facts.map((fact) => (
        <Fact key={fact.field} kind={kind} row={row} fact={fact} />
      ))}
    </Facts>
  );
}

/** The record of a row as its kind describes it, with cards of its own below its facts. */
export function KindRecord({
  kind,
  row,
  children,
}: {
  kind: Kind;
  row: Row;
  children?: ReactNode;
}): ReactNode {
  const { view, canEdit, commit, sync } = useProject();
  const { select } = useWhereabouts();
  const { network } = view;
  const remove = (): void => {
    const attempt = deleteRow(network, kind, row);
    if (!attempt.ok) sync.announce({ tone: 'bad', text: attempt.why });
    else if (commit(attempt.set).ok) select(null);
  };
  return (
    <>
      <Head>
        <h2>{rowTitle(network, kind, row)}</h2>
        <p>{kinds[kind].one}</p>
        <div>{canEdit && <Button onPress={remove}>Delete</Button>}</div>
      </Head>
      <Card title="Facts">
        <Facts>
          {factFieldsOf(kind).map((fact) => (
            <Fact key={fact.field} kind={kind} row={row} fact={fact} />
          ))}
        </Facts>
      </Card>
      {children}
      <ListFacts kind={kind} row={row} />
      <RowHistory rowId={row.id} />
    </>
  );
}
