import { giveAddressText, takeBackAddress } from '@visograph/core/addressing';
import { type Address, type Port } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Button, Choice, Field } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panels.tsx';

const Form = styled.form`
  display: flex;
  gap: 6px;
  align-items: flex-end;
  margin-top: 6px;
`;

/** Gives a port an address: by its text, or the next free one of a prefix. */
export function GiveAddress({ port }: { port: Port }): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const vrfs = [...network.all('vrf')];
  const own = port.vrfId ?? network.find('addressesByPort', port.id)[0]?.vrfId ?? null;
  const [vrf, setVrf] = useState<string>(own ?? 'global');
  const [text, setText] = useState('');
  const [why, setWhy] = useState<string | null>(null);
  const give = (): void => {
    const attempt = giveAddressText(network, port, text, vrf === 'global' ? null : vrf);
    setWhy(attempt.ok ? null : attempt.why);
    if (attempt.ok && commit(attempt.set).ok) setText('');
  };
  return (
    <>
      <Form
        onSubmit={(event) => {
          event.preventDefault();
          give();
        }}
      >
        <Field label="Address, or a prefix" mono width={150} value={text} onChange={setText} />
        {vrfs.length > 0 && (
          <Choice
            label="VRF"
            width={86}
            value={vrf}
            options={[
              ...vrfs.map((one) => ({ id: one.id, text: one.name })),
              { id: 'global', text: 'global' },
            ]}
            onChange={(id) => setVrf(id ?? 'global')}
          />
        )}
        <Button type="submit" isDisabled={text.trim() === ''}>
          Give
        </Button>
      </Form>
      <Hint>10.40.8.5, 10.40.8.5/22, or 10.40.8.0/22 for its next free one.</Hint>
      {why !== null && <Hint role="alert">{why}</Hint>}
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
