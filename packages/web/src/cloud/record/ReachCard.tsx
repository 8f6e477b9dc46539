import { exposuresOf, serviceName, wayOut } from '@visograph/core/cloud';
import { portsText, type Device } from '@visograph/core/model';
import { useMemo, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { useShown } from '../../data/shown.ts';
import { Card, Facts, Goto } from '../../record/parts.tsx';

/** How an instance reaches the internet, and what of it the internet may call: worked out, never typed. */
export function ReachCard({ device }: { device: Device }): ReactNode {
  const network = useShown();
  const { view } = useProject();
  const [port] = view.network.find('everyPortByDevice', device.id);
  const out = useMemo(() => (port === undefined ? null : wayOut(network, port.id)), [network, port]);
  const called = useMemo(() => exposuresOf(network, device), [network, device]);
  const through = out === null || out.by === 'none' ? null : network.get('device', out.deviceId);
  const outText =
    out === null || out.by === 'none'
      ? 'no way out'
      : out.by === 'no public address'
        ? 'nothing comes back: no public address'
        : `seen as ${out.seen.join(', ') || 'an address that nobody has noted'}`;
  return (
    <Card title="Internet">
      <Facts>
        <dt>Goes out</dt>
        <dd>
          {outText}
          {through !== null && (
            <>
              {' through '}
              <Goto to={{ kind: 'device', id: through.id }}>{through.name}</Goto>
            </>
          )}
        </dd>
        <dt>Called at</dt>
        <dd>
          {called.length === 0 && 'nothing of it'}
          {called.map(({ address, protocol, ports, anybody, balancerId }) => {
            const range = portsText([ports]);
            const name = protocol === 'other' ? null : serviceName(protocol, range);
            const who = anybody ? 'everybody' : 'some addresses';
            const over = network.get('device', balancerId)?.name;
            return (
              <div key={`${address} ${protocol} ${range} ${balancerId ?? ''}`}>
                {`${address} ${name ?? `${protocol} ${range}`} by ${who}${over === undefined ? '' : ` over ${over}`}`}
              </div>
            );
          })}
        </dd>
      </Facts>
    </Card>
  );
}
