import { addPublicAddress } from '@visograph/core/cloud';
import { addressStays, noted, type Place } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useFormActs } from '../data/useFormActs.ts';
import { ChoiceIn, TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { Asked } from './Asked.tsx';

const addressForm = z.object({
  address: noted(z.string(), { label: 'Address', help: 'One of the internet, such as 203.0.113.40' }),
  hold: noted(z.enum(addressStays), { label: 'Stays' }),
});

/** Keeps an address of the internet in the region of a place; for nothing yet. */
export function KeepAddress({
  place,
  row = false,
  onDone,
}: {
  place: Place;
  row?: boolean;
  onDone?: (addressId: string) => void;
}): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(addressForm, { address: '', hold: 'kept' as const });
  const { act } = useFormActs(form);
  return (
    <Form
      label="Keep a public address"
      form={form}
      row={row}
      quiet={row}
      action={row ? 'Keep' : 'Keep address'}
      onSend={(wish) => {
        const attempt = addPublicAddress(network, place, { ...wish, port: null });
        act(attempt, () => attempt.ok && onDone?.(attempt.addressId));
      }}
    >
      <TextIn name="address" {...(row ? { width: 122 } : { autoFocus: true })} />
      <ChoiceIn
        name="hold"
        {...(row ? { width: 74 } : {})}
        options={addressStays.map((id) => ({ id, text: id }))}
      />
    </Form>
  );
}

export function KeepAddressButton({ place }: { place: Place }): ReactNode {
  const { select } = useWhereabouts();
  return (
    <Asked text="Keep address" primary end>
      {(close) => (
        <KeepAddress
          place={place}
          onDone={(id) => {
            select({ kind: 'publicAddress', id });
            close();
          }}
        />
      )}
    </Asked>
  );
}
