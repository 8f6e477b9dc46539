import { giveAddressText, takeBackAddress } from '@visograph/core/addressing';
import { noted, type Address, type Port } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useFormActs } from '../../data/useFormActs.ts';
import { Button } from '../../kit/controls.tsx';
import { ChoiceIn, TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';

const wish = z.object({
  text: noted(z.string().trim().min(1, 'is empty'), { label: 'Address, or a prefix' }),
  vrf: noted(z.string(), { label: 'VRF' }),
});

/** Gives a port an address: by its text, or the next free one of a prefix. */
export function GiveAddress({ port }: { port: Port }): ReactNode {
  const { network } = useProject().view;
  const vrfs = [...network.all('vrf')];
  const own = port.vrfId ?? network.find('addressesByPort', port.id)[0]?.vrfId ?? null;
  const form = useSchemaForm(wish, { text: '', vrf: own ?? 'global' });
  const { act } = useFormActs(form);
  return (
    <>
      <Form
        label="Give an address"
        form={form}
        row
        quiet
        action="Give"
        onSend={({ text, vrf }) => act(giveAddressText(network, port, text, vrf === 'global' ? null : vrf))}
      >
        <TextIn name="text" mono width={150} />
        {vrfs.length > 0 && (
          <ChoiceIn
            name="vrf"
            width={86}
            options={[
              ...vrfs.map((one) => ({ id: one.id, text: one.name })),
              { id: 'global', text: 'global' },
            ]}
          />
        )}
      </Form>
      <Hint>10.40.8.5, 10.40.8.5/22, or 10.40.8.0/22 for its next free one.</Hint>
    </>
  );
}

/** Takes an address back. */
export function TakeBack({ row }: { row: Address }): ReactNode {
  const { view, commit } = useProject();
  return (
    <Button
      $tone="quiet"
      aria-label={`Take back ${row.address}`}
      onPress={() => {
        const attempt = takeBackAddress(view.network, row);
        if (attempt.ok) commit(attempt.set);
      }}
    >
      ×
    </Button>
  );
}
