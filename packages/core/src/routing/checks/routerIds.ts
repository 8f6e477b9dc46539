import { defineRule } from '../../check/finding.ts';
import { idsOf, nameOf } from '../../check/names.ts';
import { addressesOf } from '../../addressing/management.ts';
import { update } from '../../change/change.ts';
import { judged } from '../../commands/attempt.ts';
import type { Network } from '../../model/network/network.ts';
import { byName, compareNames } from '../../model/values/order.ts';

/** The first IPv4 address of a router's loopbacks; null where it has none. */
function loopbackOf(network: Network, deviceId: string): string | null {
  const loopbacks = network.find('everyPortByDevice', deviceId).filter(({ form }) => form === 'loopback');
  const addresses = loopbacks.flatMap((port) => addressesOf(network, port.id));
  return (
    addresses.map(({ address }) => address.split('/')[0] ?? '').find((host) => host.includes('.')) ?? null
  );
}

/** A router is known to the others by its id alone. */
export const routerIds = defineRule({
  key: 'router-id-twice',
  title: 'Router ids given twice',
  why: 'Two routers with one id take each other’s announcements for their own: routes come and go without end.',
  standard: 'RFC 2328, appendix C.1; RFC 4271, 4.2',
  reads: { device: ['routerId', 'stack', 'status'] },
  find: (network) => {
    const byId = new Map<string, { id: string; as: string }[]>();
    for (const { id, routerId, stack } of network.all('device')) {
      if (routerId === null) continue;
      // Devices of a stack are one router.
      const routers = byId.get(routerId) ?? [];
      routers.push({ id, as: stack ?? id });
      byId.set(routerId, routers);
    }
    return [...byId].flatMap(([routerId, routers]) => {
      if (new Set(routers.map(({ as }) => as)).size < 2) return [];
      return [
        {
          severity: 'bad' as const,
          subjects: routers.map(({ id }) => ({ kind: 'device' as const, id })),
          facts: { routerId },
        },
      ];
    });
  },
  says: ({ routerId }, network, subjects) =>
    `${idsOf(subjects, 'device')
      .map((id) => nameOf(network, 'device', id))
      .sort(compareNames)
      .join(' and ')} have the router id ${routerId}. Give each its own, such as an address of its loopback.`,
  mends: ({ routerId }, network, subjects) => {
    const taken = new Set([...network.all('device')].map((device) => device.routerId));
    return idsOf(subjects, 'device')
      .flatMap((id) => network.get('device', id) ?? [])
      .sort(byName)
      .flatMap((device) => {
        const own = loopbackOf(network, device.id);
        if (own === null || own === routerId || taken.has(own)) return [];
        return [
          {
            wish: `Take ${own} as the router id of ${device.name}`,
            way: 'Take the address of a loopback as the router id',
            attempt: judged(
              network,
              [update('device', device, { routerId: own })],
              `Gave ${device.name} the router id ${own}`,
            ),
          },
        ];
      });
  },
  about: (_facts, network, subjects) =>
    idsOf(subjects, 'device')
      .map((id) => `device ${nameOf(network, 'device', id)}`)
      .sort(compareNames),
});
