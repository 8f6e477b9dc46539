import { linkColourings } from '@visograph/core/cabling';
import {
  hasChoice,
  placePath,
  projectionNatures,
  roleCodes,
  roles,
  type Reading,
  type Sheet,
  type SheetChoice,
} from '@visograph/core/model';
import {
  colourings,
  deleteSheet,
  ownFieldNames,
  placeOnSheet,
  setSheet,
  templateFacts,
  unknownFacts,
} from '@visograph/core/sheets';
import { useState, type ReactNode } from 'react';
import { Label, TextArea, TextField } from 'react-aria-components';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { Choice } from '../../kit/choice.tsx';
import { Button } from '../../kit/controls.tsx';
import { Trouble } from '../../kit/panel/dock.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Tick } from '../../kit/Tick.tsx';
import { standing } from '../surface/acts/moved.ts';
import { keptScene, planFor } from '../useScene.ts';
import { Card, EditableFact, Facts, Head } from '../../record/parts.tsx';
import { RowHistory } from '../../record/RowHistory.tsx';

const Stack = styled.div`
  display: flex;
  flex-direction: column;
  gap: 6px;
`;
const Lines = styled(TextField)`
  display: flex;
  flex-direction: column;
  gap: 3px;
  label {
    color: ${({ theme }) => theme.inkSoft};
    font-size: 12px;
  }
  textarea {
    font-family: 'Atkinson Hyperlegible Mono', monospace;
    font-size: 12.5px;
    min-height: 62px;
    padding: 5px 8px;
    resize: vertical;
    border: 1px solid ${({ theme }) => theme.rule};
    border-radius: 3px;
    background: ${({ theme }) => theme.surface};
    color: ${({ theme }) => theme.ink};
  }
`;

const colourNames: Record<string, string> = {
  role: 'Role',
  status: 'Status',
  model: 'Model',
  place: 'Place',
  age: 'Age',
  support: 'End of support',
  warranty: 'End of warranty',
  contract: 'End of contract',
  power: 'Power drawn',
  feedState: 'Power state',
  medium: 'Kind of cable',
  speed: 'Speed',
};

/** Lines below the names of plates: for all, or for one role. */
function TemplateEditor({ sheet }: { sheet: Sheet }): ReactNode {
  const { view, commit } = useProject();
  const [role, setRole] = useState<keyof Sheet['templates']>('all');
  const kept = sheet.templates[role] ?? '';
  const [text, setText] = useState(kept);
  const [of, setOf] = useState(`${role}/${kept}`);
  if (of !== `${role}/${kept}`) {
    setOf(`${role}/${kept}`);
    setText(kept);
  }
  const unknown = unknownFacts(text, [...view.network.all('device')]);
  const keep = (): void => {
    if (text === kept || unknown.length > 0) return;
    const { [role]: _old, ...others } = sheet.templates;
    void commit(
      setSheet(
        sheet,
        { templates: text.trim() === '' ? others : { ...others, [role]: text } },
        'the label template',
      ),
    );
  };
  return (
    <Stack>
      <Choice
        label="Role"
        value={role}
        options={[
          { id: 'all', text: 'All without their own' },
          ...roleCodes.map((code) => ({ id: code, text: `${code} ${roles[code].label}` })),
        ]}
        onChange={setRole}
      />
      <Lines value={text} onChange={setText} onBlur={keep}>
        <Label>Lines below the name</Label>
        <TextArea placeholder={'{model}\n{rack} {unit}\n{management address}'} />
      </Lines>
      {unknown.length > 0 ? (
        <Trouble role="alert">{`There is no fact {${unknown[0] ?? ''}}. The template was not kept.`}</Trouble>
      ) : (
        <Hint>{`${Object.keys(templateFacts)
          .map((name) => `{${name}}`)
          .join(' ')} and own fields. A line whose fact is missing is left out.`}</Hint>
      )}
      <div>
        <Button onPress={keep} isDisabled={text === kept || unknown.length > 0}>
          Keep
        </Button>
      </div>
    </Stack>
  );
}

export function SheetRecord({ sheet }: { sheet: Sheet }): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const { go } = useWhereabouts();
  const { reading } = sheet;
  const read = (fields: Partial<Reading>): void =>
    void commit(setSheet(sheet, { reading: { ...reading, ...fields } }, 'the reading'));
  /** New devices can only wait on a sheet that does not arrange itself: what is on it stays where it stands. */
  const letWait = (): void => {
    const waiting = setSheet(sheet, { reading: { ...reading, newcomers: 'wait' } }, 'the reading');
    const plan = planFor(network, sheet);
    const scene = plan.arranged ? null : keptScene(plan);
    const fixed = scene === null ? [] : placeOnSheet(network, sheet, standing(scene)).changes;
    void commit({ ...waiting, changes: [...waiting.changes, ...fixed] });
  };
  const has = (choice: SheetChoice): boolean => hasChoice(sheet.projection, choice);
  const own = has('colourOfPlates') ? ownFieldNames([...network.all('device')]) : [];
  return (
    <>
      <Head>
        <h2>{sheet.name}</h2>
        <p>{`${projectionNatures[sheet.projection].title} sheet · ${sheet.picked ? 'picked devices' : placePath(network, sheet.scopeId).replaceAll('/', ' › ') || 'All sites'}`}</p>
      </Head>
      <Card title="Facts">
        <Facts>
          <EditableFact kind="sheet" row={sheet} field="name" optional={false} />
        </Facts>
      </Card>
      {canEdit && (
        <Card title="Drawing">
          <Stack>
            {has('throughPanels') && (
              <Tick isSelected={reading.throughPanels} onChange={(on) => read({ throughPanels: on })}>
                Through panels: active ends only
              </Tick>
            )}
            {has('racks') && (
              <Tick isSelected={reading.racks} onChange={(on) => read({ racks: on })}>
                Racks as containers
              </Tick>
            )}
            {has('pairs') && (
              <Tick isSelected={reading.pairs} onChange={(on) => read({ pairs: on })}>
                Pairs and stacks as one plate
              </Tick>
            )}
            {has('endDevices') && (
              <Tick
                isSelected={reading.unfolded === true}
                onChange={(on) => read({ unfolded: on ? true : [] })}
              >
                Every end device by itself
              </Tick>
            )}
            {has('newcomers') && (
              <Tick
                isSelected={reading.newcomers === 'wait'}
                onChange={(on) => (on ? letWait() : read({ newcomers: 'place' }))}
              >
                New devices wait to be placed
              </Tick>
            )}
            {has('wholeAddresses') && (
              <Tick
                isSelected={reading.wholeAddresses === true}
                onChange={(on) => read({ wholeAddresses: on })}
              >
                Whole addresses at the ends of links
              </Tick>
            )}
            <Tick isSelected={reading.straight} onChange={(on) => read({ straight: on })}>
              Straight links
            </Tick>
            {has('colourOfLinks') && (
              <Choice
                label="Colour by"
                value={sheet.colourBy}
                options={[
                  ...(has('colourOfPlates') ? colourings : (['role'] as const)),
                  ...linkColourings,
                  ...own.map((name) => `own:${name}`),
                ].map((id) => ({ id, text: colourNames[id] ?? id.replace('own:', '') }))}
                onChange={(colourBy) =>
                  colourBy !== null && void commit(setSheet(sheet, { colourBy }, 'the colours'))
                }
              />
            )}
          </Stack>
        </Card>
      )}
      {canEdit && has('templates') && (
        <Card title="Label template">
          <TemplateEditor sheet={sheet} />
        </Card>
      )}
      {canEdit && (
        <Card title="Sheet">
          <Button
            onPress={() => {
              if (commit(deleteSheet(network, sheet)).ok) go({ sheetId: null, selection: null });
            }}
          >
            Delete sheet
          </Button>
        </Card>
      )}
      <RowHistory rowId={sheet.id} />
    </>
  );
}
