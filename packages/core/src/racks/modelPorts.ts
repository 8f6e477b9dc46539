import type { CatalogueModel } from '../model/kinds/catalogueModel.ts';
import type { Port } from '../model/kinds/port.ts';
import { newId } from '../model/ids.ts';
import { expandPortPattern } from '../model/portPattern.ts';

const namesOf = (pattern: string | null): string[] => {
  const result = pattern === null ? null : expandPortPattern(pattern);
  return result?.ok ? result.names : [];
};

/** The ports a device of this model has: in the order of the groups, pass-through pairs tied to each other. */
export function portsFromModel(model: Pick<CatalogueModel, 'portGroups'>, deviceId: string): Port[] {
  const ports: Port[] = [];
  for (const group of model.portGroups) {
    const rear = namesOf(group.rearPattern);
    namesOf(group.pattern).forEach((name, at) => {
      const port: Port = {
        id: newId(),
        deviceId,
        name,
        connector: group.connector,
        speedBps: group.speedBps,
        role: group.role,
        face: group.face,
        ordinal: ports.length,
        passThroughId: null,
        notes: null,
      };
      ports.push(port);
      const rearName = rear[at];
      if (rearName === undefined) return;
      const partner: Port = {
        ...port,
        id: newId(),
        name: rearName,
        face: group.face === 'front' ? 'rear' : 'front',
        ordinal: ports.length,
        passThroughId: port.id,
      };
      port.passThroughId = partner.id;
      ports.push(partner);
    });
  }
  return ports;
}
