import type { Subject } from '../../change/removal.ts';
import { judged } from '../../commands/attempt.ts';
import { disconnect, moveEnd } from '../commands/cables.ts';
import { findFreePorts } from '../freePorts.ts';
import { placeOfDevice } from '../../model/network/places.ts';
import type { Network } from '../../model/network/network.ts';
import type { Cable } from '../../model/kinds/lines/cable.ts';
import type { Offer } from '../../check/mend.ts';
import { portTitle } from '../../model/network/ports.ts';
import { defineRule } from '../../check/finding.ts';
import { nameOf } from '../../check/names.ts';
import { rowParts } from '../../check/rowParts.ts';

/** So many of the free ports nearby are looked at, and so many of those that fit are offered. */
const [looked, offered] = [12, 2];

/** The nearest free ports on other devices that the open end fits: where it may well be plugged in already. */
function plugIns(network: Network, cable: Cable, side: 'a' | 'b', pluggedId: string): Offer[] {
  const plugged = network.get('port', pluggedId);
  const device = network.get('device', plugged?.deviceId ?? null);
  if (plugged === null || device === null) return [];
  const wish = {
    ...{ count: looked, connector: plugged.connector, speedBps: null, withOptic: false, poeClass: null },
    ...{ differentDevices: true, nearPlaceId: placeOfDevice(network, device), panels: true },
  };
  return (
    findFreePorts(network, wish)
      // Behind a panel is fixed cabling: what comes from a device is patched in front.
      .filter(({ port, device: other }) => {
        const behind = port.role === 'panel' && port.face === 'rear';
        return other.id !== device.id && (!behind || plugged.role === 'panel');
      })
      .map(({ port, where }): Offer => ({
        wish: `Plug its ${side.toUpperCase()} end into ${portTitle(network, port.id)}, free ${where}`,
        attempt: moveEnd(network, cable, side, port),
      }))
      .filter(({ attempt }) => attempt.ok)
      .slice(0, offered)
  );
}

/** A cable in service has two ends. */
export const openCables = defineRule({
  key: 'cable-one-end',
  title: 'Cable with an end left open',
  why: 'A cable that ends nowhere is still in the way, or its other end is plugged in and not recorded.',
  standard: 'ISO/IEC 14763-2',
  looksAt: 'all',
  reads: { cable: ['status', 'aPortId', 'bPortId'] },
  find: rowParts('cable', (network, { id, status, aPortId, bPortId }) => {
    if (status === 'retired' || (aPortId !== null && bPortId !== null)) return null;
    const portId = aPortId ?? bPortId;
    const deviceId = network.get('port', portId)?.deviceId ?? null;
    const subjects: Subject[] = [{ kind: 'cable', id }];
    if (deviceId !== null) subjects.push({ kind: 'device', id: deviceId });
    const open: string = aPortId === null ? (bPortId === null ? 'both' : 'a') : 'b';
    return { severity: 'bad', subjects, facts: { cableId: id, portId, open } };
  }),
  says: ({ cableId, portId, open }, network) => {
    const plugged = portTitle(network, portId);
    const missing = open === 'both' ? 'both ends are' : `the ${open.toUpperCase()} end is`;
    return `${nameOf(network, 'cable', cableId)} is plugged in ${plugged === '' ? 'nowhere' : `at ${plugged} only`}: ${missing} open. Connect it or remove the cable.`;
  },
  mends: ({ cableId, portId, open }, network) => {
    const cable = network.get('cable', cableId);
    if (cable === null) return [];
    const { changes } = disconnect(network, cable);
    return [
      ...(portId === null ? [] : plugIns(network, cable, open === 'a' ? 'a' : 'b', portId)),
      {
        wish: `Remove ${cable.label}`,
        way: 'Remove the cable',
        attempt: judged(network, changes, `Removed ${cable.label}, which led nowhere`),
      },
    ];
  },
});
