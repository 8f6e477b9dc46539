import { create, remove } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import {
  gatewayPlaces,
  nameField,
  newId,
  noted,
  prefixRoles,
  templatePartSchema,
  type SiteTemplate,
} from '@visograph/core/model';
import { useMemo, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { useFormActs } from '../data/useFormActs.ts';
import { Button } from '../kit/controls.tsx';
import { ChoiceIn, NumberIn, TextIn, TickIn } from '../kit/form/fields.tsx';
import { FormArea, Send, Trouble } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { OrderedList } from '../kit/OrderedList.tsx';

const { length, vid, dhcpShare } = templatePartSchema.shape;
const part = z.object({
  /** Of the line on the screen. */
  id: z.string(),
  name: trimmed(nameField('Name', 120)),
  length: noted(length, { label: 'Length' }),
  vid: noted(vid.unwrap(), { label: 'VLAN' }),
  role: noted(z.enum(prefixRoles), { label: 'Role' }),
  gateway: noted(z.enum(gatewayPlaces).nullable(), { label: 'Gateway' }),
  dhcpShare: noted(dhcpShare.unwrap(), { label: 'DHCP', unit: '%' }),
  growth: noted(z.boolean(), { label: 'Room to grow' }),
});
type Part = z.infer<typeof part>;
const template = z.object({
  name: trimmed(nameField('Name of the template', 60)),
  parts: noted(z.array(part).min(1, 'are none').max(60, 'are more than 60'), { label: 'Prefixes' }),
});

const fresh = (): Part => ({
  id: newId(),
  name: '',
  length: 24,
  vid: null,
  role: 'subnet',
  gateway: 'first',
  dhcpShare: 0,
  growth: false,
});

const Lines = styled.div`
  .part {
    display: flex;
    gap: 8px;
    align-items: flex-start;
    padding: 5px 0;
  }
  /* What has no label stands beside the fields. */
  .part > label:last-of-type,
  .part > button {
    margin-top: 20px;
  }
`;
const Acts = styled.div`
  display: flex;
  gap: 8px;
  margin-top: 10px;
  align-items: center;
`;

function PartFields({ at, onRemove }: { at: number; onRemove: (() => void) | null }): ReactNode {
  const name = (field: keyof Part): string => `parts.${at}.${field}`;
  return (
    <div className="part" role="group" aria-label={`Prefix ${at + 1}`}>
      <TextIn name={name('name')} width={140} />
      <NumberIn name={name('length')} width={60} />
      <NumberIn name={name('vid')} width={64} />
      <ChoiceIn name={name('role')} width={92} options={prefixRoles.map((id) => ({ id, text: id }))} />
      <ChoiceIn
        name={name('gateway')}
        width={80}
        none="none"
        options={gatewayPlaces.map((id) => ({ id, text: id }))}
      />
      <NumberIn name={name('dhcpShare')} width={64} />
      <TickIn name={name('growth')} />
      {onRemove !== null && (
        <Button $tone="quiet" aria-label={`Remove prefix ${at + 1}`} onPress={onRemove}>
          ×
        </Button>
      )}
    </div>
  );
}

/** A site template being made or changed: its prefixes, put in order by hand. */
export function SiteTemplateForm({
  of,
  onDone,
}: {
  of: SiteTemplate | null;
  onDone: (id: string | null) => void;
}): ReactNode {
  const { view, canEdit, commit } = useProject();
  const now = useMemo(
    () => ({ name: of?.name ?? '', parts: of?.parts.map((one) => ({ ...one, id: newId() })) ?? [fresh()] }),
    [of],
  );
  const form = useSchemaForm(template, now, now);
  const { make } = useFormActs(form);
  const { control } = form;
  const parts = control.watch('parts');
  const put = (next: Part[]): void => control.setValue('parts', next, { shouldDirty: true });
  const keep = ({ name, parts }: z.infer<typeof template>): void => {
    const fields = { name, parts: parts.map(({ id: _line, ...one }) => one) };
    const id = of?.id ?? newId();
    const set =
      of === null
        ? {
            changes: [create('siteTemplate', { ...fields, id, notes: null })],
            sentence: `Added site template ${name}`,
          }
        : editRow(view.network, 'siteTemplate', of, fields);
    make(set, () => onDone(id));
  };
  return (
    <FormArea label={of?.name ?? 'New template'} form={form} readOnly={!canEdit} onSend={keep}>
      <Lines>
        <TextIn name="name" width={240} />
        <OrderedList
          label="Prefixes of the template, in order"
          items={parts}
          textOf={(one) => one.name || 'a prefix without a name'}
          onOrder={put}
          fixed={!canEdit}
        >
          {(one, at) => (
            <PartFields
              // Its fields show another line's once the order is another.
              key={`${one.id} ${at}`}
              at={at}
              onRemove={canEdit ? () => put(parts.filter(({ id }) => id !== one.id)) : null}
            />
          )}
        </OrderedList>
      </Lines>
      {canEdit && (
        <Acts>
          <Button onPress={() => put([...parts, fresh()])}>Add a prefix</Button>
          <Send>{of === null ? 'Add template' : 'Keep template'}</Send>
          {of !== null && (
            <Button
              onPress={() => {
                onDone(null);
                void commit({
                  changes: [remove('siteTemplate', of)],
                  sentence: `Deleted site template ${of.name}`,
                });
              }}
            >
              Delete
            </Button>
          )}
          <Trouble of={['parts']} />
        </Acts>
      )}
    </FormArea>
  );
}
