import type { Subject } from '../../change/removal.ts';
import { judged } from '../../commands/attempt.ts';
import { disconnect } from '../commands/cables.ts';
import { portTitle } from '../../model/network/ports.ts';
import { defineRule } from '../../check/finding.ts';
import { nameOf } from '../../check/names.ts';
import { rowParts } from '../../check/rowParts.ts';

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
  mends: ({ cableId }, network) => {
    const cable = network.get('cable', cableId);
    if (cable === null) return [];
    const { changes } = disconnect(network, cable);
    return [
      {
        wish: `Remove ${cable.label}`,
        way: 'Remove the cable',
        attempt: judged(network, changes, `Removed ${cable.label}, which led nowhere`),
      },
    ];
  },
});
