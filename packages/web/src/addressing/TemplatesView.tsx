import { create, remove, applyChanges } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import {
  byName,
  gatewayPlaces,
  newId,
  prefixRoles,
  type SiteTemplate,
  type TemplatePart,
} from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject, useWhoCan } from '../data/project.tsx';
import { Choice } from '../kit/choice.tsx';
import { Button, Field } from '../kit/controls.tsx';
import { Empty, Hint } from '../kit/panel/panels.tsx';
import { OrderedList } from '../kit/OrderedList.tsx';
import { Tick } from '../kit/Tick.tsx';

const Page = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 12px 16px;
  .templates {
    display: flex;
    gap: 6px;
    flex-wrap: wrap;
    margin-bottom: 12px;
  }
  .templates button[aria-pressed='true'] {
    border-color: ${({ theme }) => theme.accent};
    background: ${({ theme }) => theme.accentWash};
  }
  .part {
    display: flex;
    gap: 8px;
    align-items: flex-end;
    padding: 5px 0;
  }
  .acts {
    display: flex;
    gap: 8px;
    margin-top: 10px;
    align-items: center;
  }
`;

interface Typed {
  /** Of the line on the screen. */
  id: string;
  name: string;
  length: string;
  vid: string;
  role: TemplatePart['role'];
  gateway: TemplatePart['gateway'];
  dhcp: string;
  growth: boolean;
}
const blank: Omit<Typed, 'id'> = {
  name: '',
  length: '24',
  vid: '',
  role: 'subnet',
  gateway: 'first',
  dhcp: '0',
  growth: false,
};
const fresh = (): Typed => ({ ...blank, id: newId() });
const typedOf = (part: TemplatePart): Typed => ({
  id: newId(),
  name: part.name,
  length: String(part.length),
  vid: part.vid === null ? '' : String(part.vid),
  role: part.role,
  gateway: part.gateway,
  dhcp: String(part.dhcpShare),
  growth: part.growth,
});
const partOf = (typed: Typed): TemplatePart => ({
  name: typed.name.trim(),
  length: Number(typed.length.replace('/', '')),
  vid: typed.vid.trim() === '' ? null : Number(typed.vid),
  role: typed.role,
  gateway: typed.gateway,
  dhcpShare: Number(typed.dhcp),
  growth: typed.growth,
});

/** What every site of a kind gets: prefixes by length, VLAN number, gateway and share of DHCP. */
export function TemplatesView(): ReactNode {
  const { view, canEdit, commit } = useProject();
  const whoCan = useWhoCan();
  const { network } = view;
  const templates = [...network.all('siteTemplate')].sort(byName);
  const [chosenId, setChosen] = useState<string | null>(templates[0]?.id ?? null);
  const template = network.get('siteTemplate', chosenId);
  const [of, setOf] = useState<SiteTemplate | null>(null);
  const [name, setName] = useState('');
  const [parts, setParts] = useState<readonly Typed[]>(() => [fresh()]);
  const [why, setWhy] = useState<string | null>(null);
  if (of !== template) {
    setOf(template);
    setName(template?.name ?? '');
    setParts(template?.parts.map(typedOf) ?? [fresh()]);
    setWhy(null);
  }
  const put = (at: number, fields: Partial<Typed>): void =>
    setParts(parts.map((part, index) => (index === at ? { ...part, ...fields } : part)));
  const keep = (): void => {
    const fields = { name: name.trim(), parts: parts.filter((part) => part.name.trim() !== '').map(partOf) };
    const id = template?.id ?? newId();
    const set =
      template === null
        ? {
            changes: [create('siteTemplate', { ...fields, id, notes: null })],
            sentence: `Added site template ${fields.name}`,
          }
        : editRow(network, 'siteTemplate', template, fields);
    const tried = applyChanges(network, set.changes);
    if (!tried.ok) return setWhy(tried.problems[0]?.message ?? 'It cannot be kept.');
    setWhy(null);
    if (commit(set).ok) setChosen(id);
  };
  return (
    <Page>
      <div className="templates" role="group" aria-label="Site templates">
        {templates.map((one) => (
          <Button key={one.id} aria-pressed={one.id === chosenId} onPress={() => setChosen(one.id)}>
            {one.name}
          </Button>
        ))}
        {canEdit && (
          <Button aria-pressed={chosenId === null} onPress={() => setChosen(null)}>
            New template
          </Button>
        )}
      </div>
      {!canEdit && template === null ? (
        <Empty title="No site templates yet">{whoCan('add one')}</Empty>
      ) : (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            keep();
          }}
        >
          <Field label="Name of the template" width={240} value={name} onChange={setName} />
          <OrderedList
            label="Prefixes of the template, in order"
            items={parts}
            textOf={(part) => part.name || 'a prefix without a name'}
            onOrder={setParts}
            fixed={!canEdit}
          >
            {(part, at) => (
              <div className="part" role="group" aria-label={`Prefix ${at + 1}`}>
                <Field
                  label="Name"
                  width={140}
                  value={part.name}
                  onChange={(next) => put(at, { name: next })}
                />
                <Field
                  label="Length"
                  width={60}
                  mono
                  value={part.length}
                  onChange={(length) => put(at, { length })}
                />
                <Field label="VLAN" width={64} mono value={part.vid} onChange={(vid) => put(at, { vid })} />
                <Choice
                  label="Role"
                  width={92}
                  value={part.role}
                  options={prefixRoles.map((role) => ({ id: role, text: role }))}
                  onChange={(id) => put(at, { role: prefixRoles.find((role) => role === id) ?? 'subnet' })}
                />
                <Choice
                  label="Gateway"
                  width={80}
                  value={part.gateway ?? 'none'}
                  options={['none', ...gatewayPlaces].map((one) => ({ id: one, text: one }))}
                  onChange={(id) => put(at, { gateway: gatewayPlaces.find((one) => one === id) ?? null })}
                />
                <Field
                  label="DHCP (%)"
                  width={64}
                  mono
                  value={part.dhcp}
                  onChange={(dhcp) => put(at, { dhcp })}
                />
                <Tick isSelected={part.growth} onChange={(growth) => put(at, { growth })}>
                  Room to grow
                </Tick>
                {canEdit && (
                  <Button
                    $tone="quiet"
                    aria-label={`Remove prefix ${at + 1}`}
                    onPress={() => setParts(parts.filter((_one, index) => index !== at))}
                  >
                    ×
                  </Button>
                )}
              </div>
            )}
          </OrderedList>
          {canEdit && (
            <div className="acts">
              <Button onPress={() => setParts([...parts, fresh()])}>Add a prefix</Button>
              <Button type="submit" $tone="primary">
                {template === null ? 'Add template' : 'Keep template'}
              </Button>
              {template !== null && (
                <Button
                  onPress={() => {
                    setChosen(null);
                    void commit({
                      changes: [remove('siteTemplate', template)],
                      sentence: `Deleted site template ${template.name}`,
                    });
                  }}
                >
                  Delete
                </Button>
              )}
              {why !== null && <Hint role="alert">{why}</Hint>}
            </div>
          )}
        </form>
      )}
    </Page>
  );
}
