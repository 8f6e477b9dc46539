import { numberDrawn } from '@visograph/core/addressing';
import { noted, type Device, type Sheet } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { Dialog } from 'react-aria-components';
import { styled } from 'styled-components';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { NumberIn, TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';

const Ask = styled(Dialog)`
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 10px 12px;
  width: 300px;
  outline: none;
  h2 {
    font-size: 13px;
  }
`;

const wishSchema = z.object({
  linksFrom: noted(z.string().trim().min(1, 'is empty'), { label: 'Links from' }),
  length: noted(z.int('is not a whole number').min(1, 'is below 1').max(127, 'is above 127'), {
    label: 'Length of each',
    help: '31 for two routers (RFC 3021)',
  }),
  loopbacksFrom: noted(z.string().trim().nullable(), {
    label: 'Loopbacks and router ids from',
    help: 'Left empty: none',
  }),
});

/** Numbers what was drawn: a subnet for every link of two routers, a loopback for every router; said before it is done. */
export function NumberPanel({ sheet, routers }: { sheet: Sheet; routers: readonly Device[] }): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const named = (role: 'pool' | 'loopback'): string | undefined =>
    [...network.all('prefix')]
      .filter((row) => row.role === role && row.vrfId === sheet.vrfId)
      .map((row) => row.prefix)
      .sort()[0];
  const form = useSchemaForm(wishSchema, {
    linksFrom: named('pool') ?? '10.0.0.0/24',
    length: 31,
    loopbacksFrom: named('loopback') ?? '10.255.0.0/24',
  });
  const [linksFrom, length, loopbacksFrom] = form.control.watch(['linksFrom', 'length', 'loopbacksFrom']);
  const wish = {
    vrfId: sheet.vrfId,
    linksFrom,
    length,
    loopbacksFrom: loopbacksFrom === '' ? null : loopbacksFrom,
  };
  const made = numberDrawn(network, routers, wish);
  const said = made.ok
    ? `${made.links} ${made.links === 1 ? 'link' : 'links'} and ${made.loopbacks} ${made.loopbacks === 1 ? 'router' : 'routers'} get numbers.`
    : made.why;
  return (
    <Ask aria-label="Number what is drawn">
      {({ close }) => (
        <>
          <h2>Number what is drawn</h2>
          <Form
            label="Number what is drawn"
            form={form}
            action="Number"
            onSend={() => {
              const now = numberDrawn(network, routers, wish);
              if (!now.ok) return form.refuse([{ field: 'linksFrom', message: now.why }]);
              if (!now.attempt.ok) return form.refuse([{ field: null, message: now.attempt.why }]);
              if (commit(now.attempt.set).ok) close();
            }}
          >
            <TextIn name="linksFrom" mono autoFocus />
            <NumberIn name="length" />
            <TextIn name="loopbacksFrom" mono nullable />
          </Form>
          <Hint role="status">{said}</Hint>
        </>
      )}
    </Ask>
  );
}
