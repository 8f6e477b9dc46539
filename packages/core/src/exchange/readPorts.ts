import { portsFromModel, portsFromModule } from '../catalogue/modelPorts.ts';
import type { CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Module } from '../model/kinds/equipment/module.ts';
import { blankPort, type Port } from '../model/kinds/lines/port.ts';
import { newId } from '../model/values/ids.ts';
import type { DeviceEntry, PortEntry } from './format.ts';
import { findModel } from '../catalogue/exchange/findModel.ts';
import { readPortAddresses, setLogicalFields } from './readLogical.ts';
import type { Staging } from './staging.ts';

function modulePorts(
  staging: Staging,
  { model, modules }: { model: CatalogueModel | null; modules: readonly Module[] },
): Port[] {
  if (model === null) return [];
  return modules.flatMap((module) => {
    const of = staging.network.get('model', module.modelId);
    return of === null ? [] : portsFromModule(model, of, module);
  });
}

/**
 * The ports of a device in a file: those of its model, or those it had, changed and added to by those listed.
 */
export function mergePorts(
  staging: Staging,
  build: { device: Device; model: CatalogueModel | null; modules: readonly Module[] },
  entry: DeviceEntry,
  isNew: boolean,
  at: string,
): void {
  const { device, model } = build;
  const existing = isNew ? [] : staging.network.find('everyPortByDevice', device.id);
  const rows = new Map<string, { port: Port; listed: PortEntry | null; path: string }>();
  const base = !isNew
    ? [...existing]
    : model === null || entry.onlyListedPorts === true
      ? []
      : portsFromModel(model, device.id);
  const brought = modulePorts(staging, build);
  const known = new Set(base.map((port) => port.name.toLowerCase()));
  if (entry.onlyListedPorts !== true)
    base.push(...brought.filter((port) => !known.has(port.name.toLowerCase())));
  const moduleOf = new Map(brought.map((port) => [port.name.toLowerCase(), port.moduleId]));
  for (const port of base) rows.set(port.name.toLowerCase(), { port: { ...port }, listed: null, path: at });
  (entry.ports ?? []).forEach((listed, index) => {
    const path = `${at}.ports[${index}]`;
    const key = listed.name.toLowerCase();
    const known = rows.get(key);
    if (known?.listed) {
      staging.problem(
        path,
        `The port ${device.name}:${listed.name} stands in the file twice. Keep one of the two.`,
      );
      return;
    }
    const port: Port = known?.port ?? {
      ...blankPort,
      id: newId(),
      deviceId: device.id,
      name: listed.name,
      ordinal: rows.size,
      moduleId: moduleOf.get(key) ?? null,
    };
    if (entry.onlyListedPorts === true) port.ordinal = index;
    if (listed.connector !== undefined) port.connector = listed.connector;
    if (listed.speedBps !== undefined) port.speedBps = listed.speedBps;
    if (listed.face !== undefined) port.face = listed.face;
    if (listed.notes !== undefined) port.notes = listed.notes;
    if (listed.reserved !== undefined) port.reserved = listed.reserved;
    if (listed.mac !== undefined) port.mac = listed.mac;
    if (listed.transceiverSerial !== undefined) port.transceiverSerial = listed.transceiverSerial;
    if (listed.transceiver !== undefined)
      port.transceiverId =
        listed.transceiver === null
          ? null
          : (findModel(staging, listed.transceiver, 'transceiver', `${path}.transceiver`)?.id ?? null);
    setLogicalFields(staging, port, listed, path);
    port.role = listed.role ?? (listed.leadsTo ? 'panel' : port.role);
    rows.set(key, { port, listed, path });
  });
  for (const { port, listed, path } of rows.values()) {
    if (listed?.leadsTo === undefined) continue;
    const partner = listed.leadsTo === null ? null : rows.get(listed.leadsTo.toLowerCase());
    if (partner === undefined)
      staging.problem(
        `${path}.leadsTo`,
        `${device.name} has no port ${listed.leadsTo ?? ''}. Correct the name or add the port.`,
      );
    port.leadsToId = partner?.port.id ?? null;
    port.leadsToStrand = listed.strand ?? null;
    if (partner && port.leadsToStrand === null && partner.listed?.leadsTo === undefined)
      partner.port.leadsToId = port.id;
    if (partner) partner.port.role = partner.listed?.role ?? 'panel';
  }
  const portNamed = (text: string, path: string): Port | null => {
    const found = rows.get(text.toLowerCase())?.port ?? null;
    if (found === null)
      staging.problem(path, `${device.name} has no port “${text}”. Correct the name or add the port.`);
    return found;
  };
  for (const { port, listed, path } of rows.values()) {
    if (listed?.over) port.parentId = portNamed(listed.over, `${path}.over`)?.id ?? null;
    if (listed?.members === undefined) continue;
    for (const { port: member } of rows.values())
      if (member.aggregateId === port.id) member.aggregateId = null;
    listed.members.forEach((text, at2) => {
      const member = portNamed(text, `${path}.members[${at2}]`);
      if (member !== null) member.aggregateId = port.id;
    });
  }
  for (const { port, path } of rows.values()) staging.put('port', port, path);
  for (const { port, listed, path } of rows.values())
    if (listed !== null) readPortAddresses(staging, port, listed, path);
}
