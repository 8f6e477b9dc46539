import {
  blockNeeded,
  cutBlock,
  freeBlock,
  freePrivateBlock,
  meansOf,
  poolsForClouds,
  proposeNetwork,
  type NetworkWish,
  type TierWish,
} from '@visograph/core/cloud';
import { childPlaces, profileAround, type Network, type Place } from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { Choice } from '../kit/choice.tsx';
import { Field } from '../kit/controls.tsx';
import { ActPanel } from '../kit/panel/ActPanel.tsx';
import { Hint } from '../kit/panel/panels.tsx';
import { Tick } from '../kit/Tick.tsx';
import { mono } from '../theme/mono.ts';

const Lines = styled.div`
  display: flex;
  flex-direction: column;
  gap: 6px;
  > div {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 10px;
    align-items: flex-end;
  }
`;
const Planned = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: 12.5px;
  th {
    text-align: left;
    font-weight: 600;
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
  }
  th,
  td {
    padding: 2px 10px 2px 0;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
  }
  td:nth-child(3) {
    ${mono}
  }
`;

/** What is asked for by need, as it is typed. */
interface Need {
  name: string;
  hosts: string;
}
const needs = ['open', 'outward only', 'closed'] as const;
type Needs = Record<(typeof needs)[number], Need>;
const questions: Record<(typeof needs)[number], string> = {
  open: 'Reached from the internet',
  'outward only': 'Goes out on its own, is not reached',
  closed: 'Does neither',
};
const usual: Needs = {
  open: { name: 'front', hosts: '20' },
  'outward only': { name: 'service', hosts: '100' },
  closed: { name: 'data', hosts: '20' },
};

const tiersOf = (wishes: Needs): TierWish[] =>
  needs.flatMap((nature) => {
    const { name, hosts } = wishes[nature];
    const count = Number(hosts);
    return hosts.trim() === '' || count === 0 ? [] : [{ name: name.trim(), nature, hosts: count }];
  });

const isCount = (text: string): boolean => text.trim() === '' || /^\d{1,6}$/.test(text.trim());

/** The block that these needs are proposed: from the pool of the plan that is meant for clouds, or private space. */
function proposedBlock(
  network: Network,
  regionId: string,
  tiers: readonly TierWish[],
  zoneIds: readonly string[],
): string {
  const profile = profileAround(network, regionId);
  const length = Math.max(profile?.shortestBlock ?? 16, blockNeeded(profile, tiers, zoneIds) - 1);
  for (const pool of poolsForClouds(network)) {
    const found = freeBlock(network, pool, length);
    if (found !== null) return found;
  }
  return freePrivateBlock(network, length) ?? '';
}

/** A new virtual network by need, everything that is made shown before. */
export function NewNetwork({
  region,
  onClose,
  onDone,
}: {
  region: Place;
  onClose: () => void;
  onDone: (placeId: string) => void;
}): ReactNode {
  const { view, commit, sync } = useProject();
  const { network } = view;
  const all = childPlaces(network, region.id).filter(({ kind }) => kind === 'zone');
  const [name, setName] = useState('');
  const [zoneIds, setZones] = useState<readonly string[]>(() => all.slice(0, 2).map(({ id }) => id));
  const [wishes, setWishes] = useState(usual);
  const [typedBlock, setBlock] = useState<string | null>(null);
  const [translation, setTranslation] = useState<NetworkWish['translation']>('in each zone');
  const tiers = useMemo(() => tiersOf(wishes), [wishes]);
  const proposed = useMemo(
    () => proposedBlock(network, region.id, tiers, zoneIds),
    [network, region.id, tiers, zoneIds],
  );
  const block = typedBlock ?? proposed;
  const wish: NetworkWish = { name: name.trim(), regionId: region.id, zoneIds, block, tiers, translation };
  const wrongCount = needs.find((nature) => !isCount(wishes[nature].hosts));
  const attempt = useMemo(
    () => (name.trim() === '' || wrongCount !== undefined ? null : proposeNetwork(network, wish)),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the wish is made of these
    [network, name, zoneIds, tiers, block, translation, wrongCount],
  );
  const plan = useMemo(() => cutBlock(network, { ...wish, tiers }), [network, tiers, zoneIds, block]); // eslint-disable-line react-hooks/exhaustive-deps
  const change = (nature: (typeof needs)[number], part: Partial<Need>): void =>
    setWishes((before) => ({ ...before, [nature]: { ...before[nature], ...part } }));
  const trouble =
    wrongCount !== undefined
      ? `Hosts of “${questions[wrongCount]}” is not a number of hosts: write 20, or leave it empty.`
      : attempt !== null && !attempt.ok
        ? attempt.why
        : 'why' in plan
          ? plan.why
          : null;
  const outward = tiers.some(({ nature }) => nature === 'outward only');
  return (
    <ActPanel
      title={`New network in ${region.name}`}
      wide
      open
      onOpenChange={(open) => !open && onClose()}
      fields={
        <>
          <Field label="Name" value={name} onChange={setName} autoFocus />
          <Field
            label="Block"
            mono
            width={150}
            value={block}
            onChange={(text) => setBlock(text.trim() === '' ? null : text.trim())}
          />
        </>
      }
      note={
        name.trim() === ''
          ? 'Give it a name; what it will be made of stands below.'
          : typedBlock === null
            ? 'The block is proposed from the address plan; type another to take that.'
            : null
      }
      trouble={trouble}
      action="Make the network"
      onAct={
        attempt === null || !attempt.ok
          ? null
          : () => {
              const { set, placeId } = attempt;
              const made = commit(set);
              if (!made.ok) {
                sync.announce({ tone: 'bad', text: made.problems[0]?.message ?? 'It cannot be made.' });
                return false;
              }
              onDone(placeId);
              return true;
            }
      }
    >
      <Lines>
        {needs.map((nature) => (
          <div key={nature} role="group" aria-label={questions[nature]}>
            <Field
              label={questions[nature]}
              width={190}
              value={wishes[nature].name}
              onChange={(text) => change(nature, { name: text })}
            />
            <Field
              label="Hosts in a zone"
              width={104}
              mono
              value={wishes[nature].hosts}
              onChange={(text) => change(nature, { hosts: text })}
            />
          </div>
        ))}
        <div>
          {all.map((zone) => (
            <Tick
              key={zone.id}
              isSelected={zoneIds.includes(zone.id)}
              onChange={(on) =>
                setZones((before) =>
                  all.map(({ id }) => id).filter((id) => (id === zone.id ? on : before.includes(id))),
                )
              }
            >
              {`Zone ${zone.name}`}
            </Tick>
          ))}
        </div>
        {outward && zoneIds.length > 1 && (
          <div>
            <Choice
              label="Translates"
              width={150}
              value={translation}
              options={[
                { id: 'in each zone', text: 'in each zone' },
                { id: 'once', text: 'once, for all zones' },
              ]}
              onChange={(next) => setTranslation(next === 'once' ? 'once' : 'in each zone')}
            />
          </div>
        )}
        {meansOf(network, wish).map((text) => (
          <Hint key={text}>{text}</Hint>
        ))}
      </Lines>
      {!('why' in plan) && (
        <Planned aria-label="Subnets">
          <thead>
            <tr>
              <th>Subnet</th>
              <th>Zone</th>
              <th>Prefix</th>
              <th>To the internet</th>
            </tr>
          </thead>
          <tbody>
            {plan.subnets.map((one) => (
              <tr key={one.name}>
                <td>{one.name}</td>
                <td>{network.get('place', one.zoneId)?.name ?? 'region'}</td>
                <td>{one.prefix}</td>
                <td>{one.tier.nature}</td>
              </tr>
            ))}
          </tbody>
        </Planned>
      )}
    </ActPanel>
  );
}
