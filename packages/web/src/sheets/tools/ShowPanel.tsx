import {
  projectionNatures,
  facetState,
  bundleManners,
  facetStates,
  type BundleManner,
  nameField,
  type FacetState,
  type Sheet,
  isOneOf,
} from '@visograph/core/model';
import {
  facetName,
  removeView,
  saveView,
  setBundles,
  setFacet,
  setGroup,
  ungroup,
  useView as viewSet,
} from '@visograph/core/sheets';
import type { ReactNode } from 'react';
import { Dialog, Radio, RadioGroup } from 'react-aria-components';
import { styled } from 'styled-components';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useFormActs } from '../../data/useFormActs.ts';
import { Button } from '../../kit/controls.tsx';
import { TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';

const Panel = styled(Dialog)`
  width: 372px;
  max-height: min(640px, 78vh);
  overflow: auto;
  padding: 10px 12px 12px;
  outline: none;
  display: flex;
  flex-direction: column;
  gap: 3px;
  h2 {
    font-size: 12px;
    margin: 8px 0 2px;
    color: ${({ theme }) => theme.inkSoft};
  }
`;
const Row = styled(RadioGroup)`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  gap: 8px;
  min-height: 24px;
  > span:first-child {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  > div {
    display: flex;
    border: 1px solid ${({ theme }) => theme.rule};
    border-radius: 3px;
  }
`;
const State = styled(Radio)`
  padding: 1px 7px;
  font-size: 12px;
  line-height: 18px;
  color: ${({ theme }) => theme.inkSoft};
  cursor: default;
  &[data-selected] {
    background: ${({ theme }) => theme.accentWash};
    color: ${({ theme }) => theme.ink};
    box-shadow: inset 0 -2px ${({ theme }) => theme.accent};
  }
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.accent};
  }
`;
const Views = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  align-items: center;
`;
const newView = z.object({ name: trimmed(nameField('Name of the view', 60)) });

function StateRow({
  label,
  value,
  onChange,
}: {
  label: string;
  value: FacetState;
  onChange: (state: FacetState) => void;
}): ReactNode {
  return (
    <Row aria-label={label} value={value} onChange={(next) => isOneOf(facetStates, next) && onChange(next)}>
      <span>{label}</span>
      <div>
        {facetStates.map((state) => (
          <State key={state} value={state}>
            {state}
          </State>
        ))}
      </div>
    </Row>
  );
}

const bundleWords: Record<BundleManner, string> = {
  closed: 'one line',
  open: 'lanes',
  never: 'single',
};
const capital = (text: string): string => `${text.slice(0, 1).toUpperCase()}${text.slice(1)}`;

/** Each kind of fact on the sheet: shown, faded, locked or hidden; own groups; and saved choices of all of these. */
export function ShowPanel({ sheet }: { sheet: Sheet }): ReactNode {
  const { commit } = useProject();
  const form = useSchemaForm(newView, { name: '' });
  const { make } = useFormActs(form);
  return (
    <Panel aria-label="What the sheet shows">
      {projectionNatures[sheet.projection].shows.map((facet) => (
        <StateRow
          key={facet}
          label={capital(facetName(facet))}
          value={facetState(sheet, facet)}
          onChange={(state) => void commit(setFacet(sheet, facet, state))}
        />
      ))}
      {sheet.projection !== 'routing' && (
        <Row
          aria-label="Links of one purpose"
          value={sheet.reading.bundles?.drawn ?? 'closed'}
          onChange={(next) => isOneOf(bundleManners, next) && void commit(setBundles(sheet, next))}
        >
          <span>Links of one purpose</span>
          <div>
            {bundleManners.map((manner) => (
              <State key={manner} value={manner}>
                {bundleWords[manner]}
              </State>
            ))}
          </div>
        </Row>
      )}
      {sheet.groups.length > 0 && <h2>Own groups</h2>}
      {sheet.groups.map((group) => (
        <div key={group.id}>
          <StateRow
            label={`${group.name} (${group.members.length})`}
            value={group.state}
            onChange={(state) => void commit(setGroup(sheet, group.id, { state }))}
          />
          <Button $tone="quiet" onPress={() => void commit(ungroup(sheet, group.id))}>
            {`Remove group ${group.name}; its things stay`}
          </Button>
        </div>
      ))}
      <h2>Saved views</h2>
      <Views>
        {sheet.views.map((view) => (
          <span key={view.name}>
            <Button onPress={() => void commit(viewSet(sheet, view))}>{view.name}</Button>
            <Button
              $tone="quiet"
              aria-label={`Remove view ${view.name}`}
              onPress={() => void commit(removeView(sheet, view.name))}
            >
              ×
            </Button>
          </span>
        ))}
        {sheet.views.length === 0 && <Hint>Save what is shown now, such as “For the field team”.</Hint>}
      </Views>
      <Form
        label="Keep a view"
        form={form}
        row
        quiet
        action="Save view"
        onSend={({ name }) => make(saveView(sheet, name))}
      >
        <TextIn name="name" width={230} />
      </Form>
    </Panel>
  );
}
