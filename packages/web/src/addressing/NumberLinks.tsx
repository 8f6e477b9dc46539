import { numberLinks, numberLoopbacks, routedLinks, withoutLoopback } from '@visograph/core/addressing';
import type { ChangeSet } from '@visograph/core/change';
import { byName, formatPrefix, portTitle, type Network, type Prefix } from '@visograph/core/model';
import { isRouter } from '@visograph/core/routing';
import { useMemo, useState, type ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { ActPanel } from '../kit/panel/ActPanel.tsx';
import { Choice, Picker } from '../kit/choice.tsx';
import { Preview } from '../kit/panel/Preview.tsx';
import { Tick } from '../kit/Tick.tsx';

interface Props {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}

const option = (network: Network, row: Prefix): { id: string; text: string; detail: string } => ({
  id: row.id,
  text: row.prefix,
  detail: [row.name, network.get('vrf', row.vrfId)?.name].filter(Boolean).join(' · '),
});

/** Subnets for links between routers, in order of distance from a root; what is forgotten is told before. */
export function NumberLinks({ open, onOpenChange }: Props): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const routers = useMemo(
    () => [...network.all('device')].filter((device) => isRouter(network, device)).sort(byName),
    [network],
  );
  const pools = [...network.all('prefix')].filter((row) => row.role === 'pool');
  const [rootId, setRoot] = useState<string | null>(null);
  const [poolId, setPool] = useState<string | null>(null);
  const [length, setLength] = useState('/31');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const root = network.get('device', rootId ?? routers[0]?.id ?? null);
  const pool = network.get('prefix', poolId);
  const links = useMemo(() => (root === null ? [] : routedLinks(network, root.id)), [network, root]);
  const open1 = links.filter((link) => !link.numbered);
  const chosen = open1.filter((link) => link.why === null && !left.has(link.key));
  const plan =
    pool === null || chosen.length === 0
      ? null
      : numberLinks(network, pool, Number(length.replace('/', '')), chosen);
  const why = plan === null ? null : !plan.ok ? plan.why : plan.attempt.ok ? null : plan.attempt.why;
  const planned = new Map(plan?.ok === true ? plan.links.map((one) => [one.link.key, one]) : []);
  const acting = (set: ChangeSet) => (): boolean => commit(set).ok;
  const title = (id: string): string => portTitle(network, id).replace(':', ' ');
  return (
    <ActPanel
      title="Number links"
      open={open}
      onOpenChange={onOpenChange}
      note={
        open1.length === 0
          ? `All ${links.length} routed links have their subnet.`
          : `${open1.length} of ${links.length} routed links have no subnet yet. The nearer end gets the first address.`
      }
      trouble={why}
      action={`Number ${chosen.length} ${chosen.length === 1 ? 'link' : 'links'}`}
      onAct={plan?.ok === true && plan.attempt.ok ? acting(plan.attempt.set) : null}
      fields={
        <>
          <Picker
            label="From the side of"
            width={170}
            value={root?.id ?? null}
            options={routers.map((device) => ({ id: device.id, text: device.name }))}
            onChange={setRoot}
          />
          <Picker
            label="Pool"
            width={220}
            value={poolId}
            options={pools.map((row) => option(network, row))}
            onChange={setPool}
          />
          <Choice
            label="Length"
            width={90}
            value={length}
            options={['/31', '/30', '/29', '/127', '/126', '/64'].map((one) => ({ id: one, text: one }))}
            onChange={(next) => setLength(next ?? '/31')}
          />
        </>
      }
    >
      {open1.length > 0 && (
        <Preview>
          <table aria-label="Links without a subnet">
            <thead>
              <tr>
                <th scope="col">Link</th>
                <th scope="col">Away</th>
                <th scope="col">Subnet</th>
              </tr>
            </thead>
            <tbody>
              {open1.map((link) => {
                const one = planned.get(link.key);
                const name = `${title(link.near.id)} – ${title(link.far.id)}`;
                return (
                  <tr key={link.key}>
                    <td>
                      {link.why === null ? (
                        <Tick
                          isSelected={!left.has(link.key)}
                          onChange={(on) => {
                            const next = new Set(left);
                            if (on) next.delete(link.key);
                            else next.add(link.key);
                            setLeft(next);
                          }}
                        >
                          {name}
                        </Tick>
                      ) : (
                        name
                      )}
                    </td>
                    <td>{Number.isFinite(link.distance) ? link.distance : '–'}</td>
                    <td className={link.why === null ? 'mono' : 'wrong'}>
                      {link.why ?? (one === undefined ? '' : formatPrefix(one.prefix))}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </Preview>
      )}
    </ActPanel>
  );
}

/** Loopbacks for the routers that have none, one after the other from a prefix for these. */
export function NumberLoopbacks({ open, onOpenChange }: Props): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const prefixes = [...network.all('prefix')].filter((row) => row.role === 'loopback');
  const [chosenId, setChosen] = useState<string | null>(null);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const row = network.get('prefix', chosenId) ?? prefixes[0] ?? null;
  const missing = row === null ? [] : withoutLoopback(network, row.vrfId);
  const chosen = missing.filter((device) => !left.has(device.id));
  const attempt = row === null || chosen.length === 0 ? null : numberLoopbacks(network, row, chosen);
  const given = new Map(
    attempt?.ok === true
      ? attempt.set.changes.flatMap((change) =>
          change.kind === 'address' && change.op === 'create'
            ? [[change.after.portId ?? '', change.after.address] as const]
            : [],
        )
      : [],
  );
  const acting = (set: ChangeSet) => (): boolean => commit(set).ok;
  const addressOf = (deviceId: string): string => {
    for (const [portId, address] of given) {
      const port =
        network.get('port', portId)?.deviceId ??
        (attempt?.ok === true
          ? attempt.set.changes.flatMap((change) =>
              change.kind === 'port' && change.op === 'create' && change.id === portId
                ? [change.after.deviceId]
                : [],
            )[0]
          : undefined);
      if (port === deviceId) return address;
    }
    return '';
  };
  return (
    <ActPanel
      title="Number loopbacks"
      open={open}
      onOpenChange={onOpenChange}
      note={
        row === null
          ? 'Add a prefix of the role loopback first.'
          : missing.length === 0
            ? 'Every router has a loopback in this VRF already.'
            : null
      }
      trouble={attempt?.ok === false ? attempt.why : null}
      action={`Number ${chosen.length} ${chosen.length === 1 ? 'router' : 'routers'}`}
      onAct={attempt?.ok === true ? acting(attempt.set) : null}
      fields={
        <Picker
          label="Prefix for loopbacks"
          width={240}
          value={row?.id ?? null}
          options={prefixes.map((one) => option(network, one))}
          onChange={setChosen}
        />
      }
    >
      {missing.length > 0 && (
        <Preview>
          <table aria-label="Routers without a loopback">
            <tbody>
              {missing.map((device) => (
                <tr key={device.id}>
                  <td>
                    <Tick
                      isSelected={!left.has(device.id)}
                      onChange={(on) => {
                        const next = new Set(left);
                        if (on) next.delete(device.id);
                        else next.add(device.id);
                        setLeft(next);
                      }}
                    >
                      {device.name}
                    </Tick>
                  </td>
                  <td className="mono">{addressOf(device.id)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Preview>
      )}
    </ActPanel>
  );
}
