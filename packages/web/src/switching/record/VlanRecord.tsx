import { editRow } from '@visograph/core/commands';
import { compareNames, portTitle, type Vlan } from '@visograph/core/model';
import {
  deleteVlan,
  layer2Of,
  reachOf,
  treeOfPart,
  type SpanningTree,
  seatOf,
  stopSaid,
} from '@visograph/core/switching';
import { useMemo, useState, type ReactNode } from 'react';
import { styled, useTheme } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { useShown } from '../../data/shown.ts';
import { useWhereabouts } from '../../data/location.ts';
import { Choice } from '../../kit/choice.tsx';
import { Button } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Tick } from '../../kit/Tick.tsx';
import { Card, EditableFact, Facts, Goto, Head } from '../../record/parts.tsx';
import { RowHistory } from '../../record/RowHistory.tsx';

const Swatches = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  button {
    width: 18px;
    height: 18px;
    padding: 0;
    border-radius: 3px;
  }
  button[aria-pressed='true'] {
    outline: 2px solid ${({ theme }) => theme.ink};
    outline-offset: 1px;
  }
`;
const List = styled.ul`
  list-style: none;
  margin: 0 0 6px;
  padding: 0;
  li {
    min-height: 20px;
  }
`;

const counted = (count: number, one: string): string => `${count} ${count === 1 ? one : `${one}s`}`;

/** Names beyond these are counted. */
const mostNamed = 12;

/** The colour of a VLAN or VRF, chosen from the fixed set. */
function ColourFact({ vlan }: { vlan: Vlan }): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { set } = useTheme();
  return (
    <Swatches role="group" aria-label="Colour">
      {set.map((colour, at) => (
        <Button
          key={colour}
          aria-label={`Colour ${at + 1}`}
          aria-pressed={vlan.colour === at}
          isDisabled={!canEdit}
          style={{ background: colour }}
          onPress={() => void commit(editRow(view.network, 'vlan', vlan, { colour: at }))}
        />
      ))}
    </Swatches>
  );
}

/** The root of a part, what decided for it, and how many of its links are blocked. */
function rootText(tree: SpanningTree | null): string {
  if (tree === null) return 'no spanning tree';
  const by = {
    alone: '',
    priority: ' by priority',
    address: ' by address',
    name: ' if its address is the lowest, which is not recorded',
  }[tree.rootBy];
  const kind = { vlan: '', all: ', one tree for all VLANs', instance: ', by instance' }[tree.of.form];
  return `root ${tree.root.name}${by}${kind}${tree.blocked.size > 0 ? `, ${counted(tree.blocked.size, 'link')} blocked` : ''}`;
}

/** How far the VLAN reaches: its parts, where it stops, who uses it. */
function ReachCards({ vlan }: { vlan: Vlan }): ReactNode {
  const network = useShown();
  const { reach, roots } = useMemo(() => {
    const layer2 = layer2Of(network);
    const found = reachOf(layer2, vlan);
    return {
      reach: found,
      roots: found.islands.map((part) => treeOfPart(layer2, part)),
    };
  }, [network, vlan]);
  return (
    <>
      <Card title="Reach">
        {reach.islands.length === 0 && <Hint>No port carries it yet.</Hint>}
        {reach.islands.map((part, at) => (
          <List key={part.id} aria-label={`Part ${at + 1}`}>
            <li>
              {part.bridges
                .filter(({ bridge }) => bridge.form === 'switch')
                .map(({ bridge }) => bridge.name)
                .sort(compareNames)
                .join(', ')}
            </li>
            <li>
              <Hint>
                {`${counted(part.ports.length, 'port')}, ${counted(part.listeners.length, 'user')} · ${rootText(roots[at] ?? null)}`}
              </Hint>
            </li>
          </List>
        ))}
      </Card>
      {reach.stops.length > 0 && (
        <Card title="Where it stops">
          <List>
            {reach.stops.map((stop) => (
              <li key={`${stop.link.key}${stop.from.key}`}>
                <Goto to={{ kind: 'port', id: (stop.at.members[0] ?? stop.at.port).id }}>
                  {stopSaid(network, vlan.vid, { ...stop, from: seatOf(stop.from), at: seatOf(stop.at) })}
                </Goto>
              </li>
            ))}
          </List>
        </Card>
      )}
      {reach.users.length > 0 && (
        <Card title="Used by">
          <List>
            {reach.users.slice(0, mostNamed).map((port) => (
              <li key={port.id}>
                <Goto to={{ kind: 'port', id: port.id }}>
                  {portTitle(network, port.id).replace(':', ' ')}
                </Goto>
              </li>
            ))}
          </List>
          {reach.users.length > mostNamed && <Hint>{`and ${reach.users.length - mostNamed} more`}</Hint>}
        </Card>
      )}
    </>
  );
}

export function VlanRecord({ vlan }: { vlan: Vlan }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const { select } = useWhereabouts();
  const [why, setWhy] = useState<string | null>(null);
  const numbering = network.get('vlanNumbering', vlan.numberingId);
  const prefixes = network.find('prefixesByVlan', vlan.id);
  const vrfs = [...network.all('vrf')];
  return (
    <>
      <Head>
        <h2>{`VLAN ${vlan.vid} ${vlan.name}`}</h2>
        <p>{`numbering ${numbering?.name ?? ''}`}</p>
        <div>
          {canEdit && (
            <Button
              onPress={() => {
                const attempt = deleteVlan(network, vlan);
                if (!attempt.ok) return setWhy(attempt.why);
                if (commit(attempt.set).ok) select(null);
              }}
            >
              Delete
            </Button>
          )}
        </div>
        {why !== null && <Hint role="alert">{why}</Hint>}
      </Head>
      <Card title="Facts">
        <Facts>
          <EditableFact kind="vlan" row={vlan} field="vid" numeric optional={false} />
          <EditableFact kind="vlan" row={vlan} field="name" optional={false} />
          <EditableFact kind="vlan" row={vlan} field="purpose" />
          <dt>VRF</dt>
          <dd>
            <Choice
              label="VRF"
              hideLabel
              width={150}
              value={vlan.vrfId ?? 'global'}
              options={[
                { id: 'global', text: 'global table' },
                ...vrfs.map((vrf) => ({ id: vrf.id, text: vrf.name })),
              ]}
              onChange={(id) =>
                canEdit && void commit(editRow(network, 'vlan', vlan, { vrfId: id === 'global' ? null : id }))
              }
            />
          </dd>
          <dt>Colour</dt>
          <dd>
            <ColourFact vlan={vlan} />
          </dd>
          <EditableFact kind="vlan" row={vlan} field="notes" />
        </Facts>
        <Tick
          isSelected={vlan.unused}
          isDisabled={!canEdit}
          onChange={(unused) => void commit(editRow(network, 'vlan', vlan, { unused }))}
        >
          Parking: ports are put here to be cut off
        </Tick>
      </Card>
      {numbering !== null && (
        <Card title="Numbering">
          <Facts>
            <EditableFact kind="vlanNumbering" row={numbering} field="name" optional={false} />
            <EditableFact kind="vlanNumbering" row={numbering} field="notes" />
          </Facts>
          <Hint>It holds in the places that name it in their record.</Hint>
        </Card>
      )}
      <Card title="Prefixes">
        {prefixes.length === 0 && <Hint>None.</Hint>}
        <List>
          {prefixes.map((prefix) => (
            <li key={prefix.id}>
              <Goto to={{ kind: 'prefix', id: prefix.id }}>{prefix.prefix}</Goto>{' '}
              <Hint>{network.get('place', prefix.placeId)?.name ?? ''}</Hint>
            </li>
          ))}
        </List>
      </Card>
      <ReachCards vlan={vlan} />
      <RowHistory rowId={vlan.id} />
    </>
  );
}
