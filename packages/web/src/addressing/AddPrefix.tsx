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
  type PrefixRole,
  grouped,
} from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { Dialog, Radio, RadioGroup } from 'react-aria-components';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { Choice, Picker } from '../kit/choice.tsx';
import { Button, Field } from '../kit/controls.tsx';
import { Hint } from '../kit/panel/panels.tsx';
import { Tick } from '../kit/Tick.tsx';
import { mono } from '../theme/mono.ts';

const Form = styled(Dialog)`
  padding: 12px;
  width: 340px;
  outline: none;
  form {
    display: grid;
    gap: 8px;
  }
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
  const [text, setText] = useState(start === null ? '' : formatPrefix(start));
  const [name, setName] = useState('');
  const [role, setRole] = useState<PrefixRole>('subnet');
  const [vlanId, setVlan] = useState<string | null>(null);
  const [growth, setGrowth] = useState(false);
  const [aligned, setAligned] = useState(false);
  const [spot, setSpot] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const pools = [...network.all('prefix')].filter((row) => row.role === 'pool' && row.vrfId === vrfId);
  const [poolId, setPool] = useState<string | null>(pool?.id ?? null);
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
  const add = (close: () => void): void => {
    if (wish === null) return setWrong('Type a prefix, or a size.');
    if (!wish.ok) return setWrong(wish.why);
    if (sizes !== null && from === null) return setWrong('Choose the pool that it is taken from.');
    if (prefixes.length === 0)
      return setWrong(
        `${from?.prefix ?? ''} has no room for ${sizes?.count ?? 1} × /${sizes?.length ?? 0}. Take less, or another pool.`,
      );
    const attempt = addPrefixes(
      network,
      prefixes.map((prefix, at) => {
        const place = sizes?.places[at];
        const stem = name.trim();
        const own = [stem, place?.name, place === undefined && prefixes.length > 1 ? String(at + 1) : ''];
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
    if (!attempt.ok) return setWrong(attempt.why);
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
  const put = (next: string): void => {
    setText(next);
    setWrong(null);
    setSpot(null);
  };
  return (
    <Form aria-label="Add prefix">
      {({ close }) => (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            add(close);
          }}
        >
          <Field
            label="Prefix or size"
            value={text}
            onChange={put}
            mono
            autoFocus
            help="10.40.8.0/22, /24, /29 x 12, 500 hosts, one /24 per floor of Kelder Quay"
          />
          {sizes !== null && (
            <Picker
              label="Taken from"
              options={pools.map((one) => ({ id: one.id, text: one.prefix, detail: one.name ?? '' }))}
              value={poolId}
              onChange={setPool}
            />
          )}
          {spots.length > 0 && (
            <Found
              aria-label="Where it can stand"
              value={chosen === null ? null : formatPrefix(chosen)}
              onChange={setSpot}
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
          {sizes !== null && (
            <Tick isSelected={growth} onChange={setGrowth}>
              Room to grow: the neighbour stays free
            </Tick>
          )}
          {sizes !== null && sizes.count > 1 && (
            <Tick isSelected={aligned} onChange={setAligned}>
              Together under one route
            </Tick>
          )}
          <Choice
            label="Role"
            value={role}
            options={prefixRoles.map((one) => ({ id: one, text: one }))}
            onChange={(next) => setRole(prefixRoles.find((one) => one === next) ?? 'subnet')}
          />
          <Field label="Name" value={name} onChange={setName} />
          {role !== 'pool' && role !== 'loopback' && (
            <Picker label="VLAN" options={vlans} value={vlanId} onChange={setVlan} />
          )}
          {wrong !== null && <Hint role="alert">{wrong}</Hint>}
          <Button type="submit" $tone="primary">
            {prefixes.length > 1 ? `Add ${prefixes.length} prefixes` : 'Add prefix'}
          </Button>
        </form>
      )}
    </Form>
  );
}
