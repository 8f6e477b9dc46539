import { connectPremises, networksIn, peerNetworks, whyNotJoin } from '@visograph/core/cloud';
import { isInCloud, readPrefix, type Device, type Network, type Place } from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useDo } from '../data/useDo.ts';
import { Choice } from '../kit/choice.tsx';
import { Field } from '../kit/controls.tsx';
import { ActPanel } from '../kit/panel/ActPanel.tsx';
import { Hint } from '../kit/panel/panels.tsx';

const Grid = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: flex-end;
`;

/** Routers and firewalls of the premises that a tunnel can end on. */
const enders = (network: Network) =>
  [...network.all('device')]
    .filter((device) => (device.role === 'FW' || device.role === 'RT') && !isInCloud(network, device))
    .sort((a, b) => (a.name < b.name ? -1 : 1));

interface End {
  deviceId: string | null;
  outer: string;
  far: string;
}
const noEnd: End = { deviceId: null, outer: '', far: '' };

/** Joins a network to another by peering, or to the premises by tunnels; the routes of both sides come along. */
export function JoinPanel({
  place,
  device = null,
  onClose,
}: {
  place: Place;
  /** Of the premises, where the first tunnel is to end: then nothing else is asked of whom it is joined with. */
  device?: Device | null;
  onClose: () => void;
}): ReactNode {
  const { network } = useProject().view;
  const act = useDo();
  const others = networksIn(network, null).filter(({ id }) => id !== place.id);
  const [to, setTo] = useState<string>(device === null ? (others[0]?.id ?? 'premises') : 'premises');
  const [ends, setEnds] = useState<readonly [End, End]>([{ ...noEnd, deviceId: device?.id ?? null }, noEnd]);
  const vrfs = [...network.all('vrf')].filter(({ id }) => network.countOf('virtualNetworkByVrf', id) === 0);
  const [vrfId, setVrf] = useState<string | null>(vrfs[0]?.id ?? null);
  const [premises, setPremises] = useState('10.0.0.0/8');
  const [routing, setRouting] = useState<'BGP' | 'static'>('BGP');
  const [cloudAs, setCloudAs] = useState('64600');
  const [typedAs, setOwnAs] = useState<string | null>(null);
  const other = network.get('place', to);
  const used = ends.filter(({ deviceId }) => deviceId !== null);
  // What the devices say of themselves is ours.
  const known = used.flatMap(({ deviceId }) => network.get('device', deviceId)?.asNumber ?? [])[0];
  const ownAs = typedAs ?? (known === undefined ? '' : String(known));
  const wrongAs = routing === 'BGP' && ![cloudAs, ownAs].every((one) => /^[1-9]\d{0,9}$/.test(one.trim()));
  const prefixes = premises.split(/[\s,]+/).filter((one) => one !== '');
  const wrong = prefixes.find((one) => !readPrefix(one).ok);
  const attempt = useMemo(() => {
    if (other !== null) return peerNetworks(network, place, other);
    if (used.length === 0 || wrong !== undefined || wrongAs) return null;
    return connectPremises(network, place, {
      ends: used.flatMap(({ deviceId, outer }) => {
        const device = network.get('device', deviceId);
        return device === null ? [] : [{ device, over: null, outer: outer.trim() }];
      }),
      vrfId,
      publicAddresses: used.map(({ far }) => far.trim()).filter((one) => one !== ''),
      routing:
        routing === 'BGP' ? { by: 'BGP', cloudAs: Number(cloudAs), ownAs: Number(ownAs) } : { by: 'static' },
      premises: prefixes,
    });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what is typed
  }, [network, place, other, ends, vrfId, premises, routing, cloudAs, ownAs]);
  const warning = other === null ? null : whyNotJoin(network, place, other);
  const change = (at: 0 | 1, part: Partial<End>): void =>
    setEnds(([a, b]) => (at === 0 ? [{ ...a, ...part }, b] : [a, { ...b, ...part }]));
  const devices = enders(network);
  return (
    <ActPanel
      title={`Join ${place.name}`}
      wide
      open
      onOpenChange={(open) => !open && onClose()}
      fields={
        <Choice
          label="With"
          width={230}
          value={to}
          options={[
            ...others.map(({ id, name }) => ({ id, text: `network ${name}, by peering` })),
            { id: 'premises', text: 'the premises, by tunnels' },
          ]}
          onChange={(next) => setTo(next ?? 'premises')}
        />
      }
      note={
        other === null && used.length === 0
          ? 'Choose the devices that the tunnels end on: two of them, so that one may fail.'
          : null
      }
      trouble={
        other === null && used.length > 0 && wrongAs
          ? 'BGP needs the AS number of both sides: write numbers such as 64500.'
          : wrong !== undefined && other === null
            ? `“${wrong}” is not a prefix such as 10.40.0.0/14.`
            : attempt !== null && !attempt.ok
              ? attempt.why
              : warning
      }
      action={other === null ? 'Make the tunnels' : 'Peer the networks'}
      onAct={attempt === null || !attempt.ok ? null : () => act(attempt)}
    >
      {other === null ? (
        <>
          {([0, 1] as const).map((at) => (
            <Grid key={at} role="group" aria-label={`Tunnel ${at + 1}`}>
              <Choice
                label={`Tunnel ${at + 1} ends on`}
                width={150}
                value={ends[at].deviceId ?? ''}
                options={[
                  { id: '', text: 'no device' },
                  ...devices.map(({ id, name }) => ({ id, text: name })),
                ]}
                onChange={(id) => change(at, { deviceId: id === '' ? null : id })}
              />
              <Field
                label="Its outer address"
                mono
                width={140}
                value={ends[at].outer}
                onChange={(outer) => change(at, { outer })}
              />
              <Field
                label="Address of the cloud"
                mono
                width={140}
                value={ends[at].far}
                onChange={(far) => change(at, { far })}
              />
            </Grid>
          ))}
          <Grid>
            <Choice
              label="VRF"
              width={120}
              value={vrfId ?? ''}
              options={[
                ...vrfs.map(({ id, name }) => ({ id, text: name })),
                { id: '', text: 'Global table' },
              ]}
              onChange={(id) => setVrf(id === '' ? null : id)}
            />
            <Choice
              label="Routes by"
              width={110}
              value={routing}
              options={[
                { id: 'BGP', text: 'BGP' },
                { id: 'static', text: 'static' },
              ]}
              onChange={(id) => setRouting(id === 'static' ? 'static' : 'BGP')}
            />
            {routing === 'BGP' && (
              <>
                <Field label="Our AS" mono width={90} value={ownAs} onChange={setOwnAs} />
                <Field label="AS of the cloud" mono width={104} value={cloudAs} onChange={setCloudAs} />
              </>
            )}
            <Field label="The cloud is told" mono width={190} value={premises} onChange={setPremises} />
          </Grid>
          <Hint>
            Inner addresses come from the pool of transit networks, a /31 for each tunnel; tables take in what
            the tunnels bring.
          </Hint>
        </>
      ) : (
        <Hint>
          {`A peering carries between ${place.name} and ${other.name} and no further. Each table that subnets are tied to, on both sides, gets a route to the blocks of the other.`}
        </Hint>
      )}
    </ActPanel>
  );
}
