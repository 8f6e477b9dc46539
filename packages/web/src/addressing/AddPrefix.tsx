import {
  addPrefixes,
  bordersOf,
  candidates,
  freeBlocks,
  gatewayBy,
  readSizeWish,
  type Blocks,
} from '@visograph/core/addressing';
import {
  formatPrefix,
  parsePrefix,
  prefixRoles,
  usable,
  type IpPrefix,
  type Network,
  type Prefix,
  noted,
  grouped,
} from '@visograph/core/model';
import type { ReactNode } from 'react';
import { Dialog, Radio, RadioGroup } from 'react-aria-components';
import { styled } from 'styled-components';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { ChoiceIn, TextIn, TickIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { Hint } from '../kit/panel/panels.tsx';
import { mono } from '../theme/mono.ts';

const Frame = styled(Dialog)`
  padding: 12px;
  width: 340px;
  outline: none;
`;
const Found = styled(RadioGroup)`
  display: grid;
  gap: 2px;
`;
const Spot = styled(Radio)`
  display: grid;
  padding: 3px 7px;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  cursor: default;
  ${mono}
  font-size: 12.5px;
  small {
    font-family: 'Atkinson Hyperlegible Next', sans-serif;
    color: ${({ theme }) => theme.inkSoft};
    font-size: 12px;
  }
  &[data-selected] {
    border-color: ${({ theme }) => theme.accent};
    background: ${({ theme }) => theme.accentWash};
  }
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.accent};
  }
`;

const newPrefix = z.object({
  text: noted(z.string().trim().min(1, 'is empty'), { label: 'Prefix or size' }),
  name: noted(z.string().trim(), { label: 'Name' }),
  role: noted(z.enum(prefixRoles), { label: 'Role' }),
  vlanId: noted(z.string().nullable(), { label: 'VLAN' }),
  poolId: noted(z.string().nullable(), { label: 'Taken from' }),
  growth: noted(z.boolean(), { label: 'Room to grow: the neighbour stays free' }),
  aligned: noted(z.boolean(), { label: 'Together under one route' }),
  /** The place that was chosen; null: the first that is free. */
  spot: z.string().nullable(),
});

interface Props {
  vrfId: string | null;
  /** The pool that sizes are taken from. */
  pool: Prefix | null;
  start: IpPrefix | null;
  onDone: (id: string) => void;
}

/** What stands beside a place in the plan, in words. */
function besideText(network: Network, vrfId: string | null, prefix: IpPrefix): string {
  const { before, after } = bordersOf(network, vrfId, prefix);
  const say = (row: Prefix | null): string => (row === null ? 'free space' : (row.name ?? row.prefix));
  return `between ${say(before)} and ${say(after)}`;
}

const hostsText = (prefix: IpPrefix): string =>
  prefix.family === 6 ? '' : `${grouped(usable(prefix).count)} hosts, `;

/** The blocks for several at once, in a few words. */
function blocksText(blocks: Blocks): string {
  const [first] = blocks.prefixes;
  const last = blocks.prefixes.at(-1);
  if (first === undefined || last === undefined) return '';
  const range =
    blocks.prefixes.length === 1 ? formatPrefix(first) : `${formatPrefix(first)} to ${formatPrefix(last)}`;
  return blocks.summary === null ? range : `${range}, one route ${formatPrefix(blocks.summary)}`;
}

/**
 * The calculator that is the plan itself: a prefix by its text, or sizes in words, answered with the places that are
 * free and what they would border.
 */
export function AddPrefix({ vrfId, pool, start, onDone }: Props): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const form = useSchemaForm(newPrefix, {
    text: start === null ? '' : formatPrefix(start),
    name: '',
    role: 'subnet',
    vlanId: null,
    poolId: pool?.id ?? null,
    growth: false,
    aligned: false,
    spot: null,
  });
  const { control, refuse } = form;
  const { text, role, poolId, growth, aligned, spot } = control.watch();
  const pools = [...network.all('prefix')].filter((row) => row.role === 'pool' && row.vrfId === vrfId);
  const from = network.get('prefix', poolId);
  const outer = from === null ? null : parsePrefix(from.prefix);
  const wish = text.trim() === '' ? null : readSizeWish(network, text, outer?.family ?? 4);
  const sizes = wish?.ok === true && wish.form === 'sizes' ? wish : null;
  const spots = sizes?.count === 1 && from !== null && !growth ? candidates(network, from, sizes.length) : [];
  const blocks =
    sizes === null || from === null || spots.length > 0
      ? null
      : freeBlocks(network, from, sizes.length, sizes.count, { growth, aligned: aligned && sizes.count > 1 });
  const chosen = spots.find((one) => formatPrefix(one) === spot) ?? spots[0] ?? null;
  const prefixes: readonly IpPrefix[] =
    wish?.ok === true && wish.form === 'prefix'
      ? [wish.prefix]
      : chosen !== null
        ? [chosen]
        : (blocks?.prefixes ?? []);
  const add = ({ name, role, vlanId }: z.infer<typeof newPrefix>, close: () => void): void => {
    const tell = (field: string, message: string): void => refuse([{ field, message }]);
    if (wish === null) return;
    if (!wish.ok) return tell('text', wish.why);
    if (sizes !== null && from === null) return tell('poolId', 'Choose the pool that it is taken from.');
    if (prefixes.length === 0)
      return tell(
        'text',
        `${from?.prefix ?? ''} has no room for ${sizes?.count ?? 1} × /${sizes?.length ?? 0}. Take less, or another pool.`,
      );
    const attempt = addPrefixes(
      network,
      prefixes.map((prefix, at) => {
        const place = sizes?.places[at];
        const own = [name, place?.name, place === undefined && prefixes.length > 1 ? String(at + 1) : ''];
        return {
          prefix: formatPrefix(prefix),
          vrfId,
          role,
          name: own.filter((part) => part !== undefined && part !== '').join(', ') || null,
          vlanId: role === 'pool' ? null : vlanId,
          placeId: place?.id ?? from?.placeId ?? null,
          gateway: role === 'subnet' ? gatewayBy('first', prefix) : null,
        };
      }),
    );
    if (!attempt.ok) return tell('text', attempt.why);
    const [made] = attempt.set.changes;
    if (!commit(attempt.set).ok) return;
    close();
    if (made !== undefined) onDone(made.id);
  };
  const vlans = [...network.all('vlan')].map((vlan) => ({
    id: vlan.id,
    text: `${vlan.vid} ${vlan.name}`,
    detail: network.get('vlanNumbering', vlan.numberingId)?.name ?? '',
  }));
  return (
    <Frame aria-label="Add prefix">
      {({ close }) => (
        <Form
          label="Add prefix"
          form={form}
          action={prefixes.length > 1 ? `Add ${prefixes.length} prefixes` : 'Add prefix'}
          onSend={(values) => add(values, close)}
        >
          <TextIn
            name="text"
            mono
            autoFocus
            help="10.40.8.0/22, /24, /29 x 12, 500 hosts, one /24 per floor of Kelder Quay"
          />
          {sizes !== null && (
            <ChoiceIn
              name="poolId"
              search
              options={pools.map((one) => ({ id: one.id, text: one.prefix, detail: one.name ?? '' }))}
            />
          )}
          {spots.length > 0 && (
            <Found
              aria-label="Where it can stand"
              value={chosen === null ? null : formatPrefix(chosen)}
              onChange={(next) => control.setValue('spot', next)}
            >
              {spots.map((one, at) => (
                <Spot key={formatPrefix(one)} value={formatPrefix(one)}>
                  {formatPrefix(one)}
                  <small>
                    {`${at === 0 ? 'first free, ' : ''}${hostsText(one)}${besideText(network, vrfId, one)}`}
                  </small>
                </Spot>
              ))}
            </Found>
          )}
          {blocks !== null && <Hint role="status">{`First free: ${blocksText(blocks)}`}</Hint>}
          {sizes !== null && <TickIn name="growth" />}
          {sizes !== null && sizes.count > 1 && <TickIn name="aligned" />}
          <ChoiceIn name="role" options={prefixRoles.map((id) => ({ id, text: id }))} />
          <TextIn name="name" />
          {role !== 'pool' && role !== 'loopback' && <ChoiceIn name="vlanId" search options={vlans} />}
        </Form>
      )}
    </Frame>
  );
}
