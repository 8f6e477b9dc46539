import { printedLabelEntries } from '../labels/exchange/printedLabels.ts';
import { waiverEntries } from '../check/exchange/waivers.ts';
import { cablingRules } from '../cabling/rules.ts';
import { sameValue } from '../change/change.ts';
import { expectedPorts } from '../catalogue/modelPorts.ts';
import type { Cable } from '../model/kinds/lines/cable.ts';
import { blankModel, type CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import { blankDevice, type Device } from '../model/kinds/equipment/device.ts';
import { blankRack } from '../model/kinds/sites/rack.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import { defaultCablingRules } from '../model/kinds/sites/project.ts';
import { modelTitle } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { byName, compareNames } from '../model/values/order.ts';
import { placePath } from '../model/network/places.ts';
import { endsOf, everyPortOf, portsOf, portTitle } from '../model/network/ports.ts';
import { writeSections } from './sections.ts';
import { sparse } from './sparse.ts';
import { logicalEntries, logicalFields, routingFields } from './writeLogical.ts';
import { sheetEntryOf } from '../sheets/exchange/writeSheets.ts';
import {
  formatName,
  formatVersion,
  type DeviceEntry,
  type ExchangeFile,
  type ModelEntry,
  type PortEntry,
} from './format.ts';

function modelEntry(model: CatalogueModel): ModelEntry {
  const { id: _id, ...entry } = model;
  const groups = entry.portGroups.map((group) =>
    sparse(group, { role: 'network', face: 'front', rows: 1, order: 'down', block: 0, mdi: 'auto' }),
  );
  return sparse<ModelEntry>(
    { ...entry, portGroups: groups },
    { ...blankModel, units: model.form === 'device' ? 1 : 0 },
  );
}

function portEntry(network: Network, port: Port): PortEntry {
  const partner = network.get('port', port.leadsToId);
  const transceiver = network.get('model', port.transceiverId);
  return sparse<PortEntry>(
    {
      name: port.name,
      connector: port.connector,
      speedBps: port.speedBps,
      role: port.role,
      face: port.face,
      leadsTo: partner?.name ?? null,
      strand: port.leadsToStrand,
      transceiver: transceiver === null ? null : modelTitle(transceiver),
      transceiverSerial: port.transceiverSerial,
      reserved: port.reserved,
      mac: port.mac,
      ...logicalFields(network, port),
      notes: port.notes,
    },
    { role: partner === null ? 'network' : 'panel', face: 'front' },
  );
}

/** Facts that a model gives; all others are stated beside it without listing all ports. */
const modelFacts = new Set(['name', 'connector', 'speedBps', 'role', 'face', 'leadsTo', 'strand']);

/**
 * Ports as the file needs to state them: none when the model says it all, those with facts of their own, or all of
 * them where they differ from the model's.
 */
function portEntries(network: Network, device: Device): Pick<DeviceEntry, 'ports' | 'onlyListedPorts'> {
  const ports = portsOf(network, device.id);
  const configured = everyPortOf(network, device.id).slice(ports.length);
  const expected = expectedPorts(network, device);
  const plain = (port: Port, partner: string | null): unknown[] => [
    port.name,
    port.connector,
    port.speedBps,
    port.role,
    port.face,
    port.ordinal,
    port.leadsToStrand,
    partner,
  ];
  const names = new Map(expected.map((port) => [port.id, port.name]));
  const same =
    ports.length === expected.length &&
    ports.every((port, at) => {
      const other = expected[at];
      return (
        other !== undefined &&
        sameValue(
          plain(port, network.get('port', port.leadsToId)?.name ?? null),
          plain(other, names.get(other.leadsToId ?? '') ?? null),
        )
      );
    });
  if (!same)
    return {
      ports: [...ports, ...configured].map((port) => portEntry(network, port)),
      onlyListedPorts: true,
    };
  const own = ports.flatMap((port): PortEntry[] => {
    const entry = portEntry(network, port);
    const facts = Object.entries(entry).filter(([fact]) => !modelFacts.has(fact));
    return facts.length === 0 ? [] : [{ name: port.name, ...Object.fromEntries(facts) }];
  });
  own.push(...configured.map((port) => portEntry(network, port)));
  return own.length === 0 ? {} : { ports: own };
}

function deviceEntry(network: Network, device: Device): DeviceEntry {
  const model = network.get('model', device.modelId);
  const { id: _id, modelId: _model, rackId: _rack, placeId: _place, ...own } = device;
  const modules = network
    .find('modulesByDevice', device.id)
    .sort((a, b) => compareNames(a.slot, b.slot))
    .map((module) => {
      const of = network.get('model', module.modelId);
      return sparse({
        slot: module.slot,
        model: of === null ? '' : modelTitle(of),
        serial: module.serial,
        notes: module.notes,
      });
    });
  const entry: DeviceEntry = {
    ...own,
    model: model === null ? null : modelTitle(model),
    rack: network.get('rack', device.rackId)?.name ?? null,
    place: device.rackId === null ? placePath(network, device.placeId) || null : null,
    modules,
    ...portEntries(network, device),
    ...routingFields(network, device.id),
  };
  return sparse<DeviceEntry>(entry, {
    ...blankDevice,
    units: model?.units ?? 1,
    fillsBothFaces: model?.fillsBothFaces ?? true,
    side: model?.halfWidth === true ? 'left' : 'full',
    modules: [],
  });
}

/** The second and further plugs of a cable at one end. */
function legsOf(network: Network, cable: Cable, side: 'a' | 'b'): (string | null)[] {
  const further = endsOf(network, cable, side).slice(1);
  return further.some((id) => id !== null) ? further.map((id) => portTitle(network, id) || null) : [];
}

/**
 * The network as an exchange file. Reading it into an empty project gives the same network: same names, facts
 * and connections, other ids.
 */
export function writeExchange(network: Network): ExchangeFile {
  const project = [...network.all('project')][0];
  const { prefixes, reserved, ...numbering } = logicalEntries(network);
  return {
    format: formatName,
    version: formatVersion,
    ...(project === undefined
      ? {}
      : {
          project: {
            name: project.name,
            labelDigits: project.labelDigits,
            ...(Object.keys(project.symbols).length === 0 ? {} : { symbols: project.symbols }),
            ...(sameValue(cablingRules(network), defaultCablingRules)
              ? {}
              : { cabling: sparse(cablingRules(network), defaultCablingRules) }),
          },
        }),
    ...numbering,
    places: [...network.all('place')]
      .map(({ id, name: _name, parentId: _parent, vlanNumberingId, ...place }) =>
        sparse({
          path: placePath(network, id),
          ...place,
          vlanNumbering: network.get('vlanNumbering', vlanNumberingId)?.name ?? null,
        }),
      )
      .sort((a, b) => compareNames(a.path, b.path)),
    racks: [...network.all('rack')]
      .sort(byName)
      .map(({ id: _id, placeId, ...rack }) =>
        sparse(
          { ...rack, place: placePath(network, placeId) },
          { ...blankRack, units: undefined, position: undefined },
        ),
      ),
    models: [...network.all('model')]
      .sort((a, b) => compareNames(modelTitle(a), modelTitle(b)))
      .map(modelEntry),
    devices: [...network.all('device')].sort(byName).map((device) => deviceEntry(network, device)),
    cables: [...network.all('cable')]
      .sort((a, b) => compareNames(a.label, b.label))
      .map((cable) => {
        const type = network.get('model', cable.typeId);
        return sparse(
          {
            label: cable.label,
            type: type === null ? null : modelTitle(type),
            lengthM: cable.lengthM,
            splices: cable.splices,
            status: cable.status,
            a: portTitle(network, cable.aPortId) || null,
            b: portTitle(network, cable.bPortId) || null,
            aLegs: legsOf(network, cable, 'a'),
            bLegs: legsOf(network, cable, 'b'),
            notes: cable.notes,
          },
          { status: 'active', splices: 0, aLegs: [], bLegs: [] },
        );
      }),
    ...(network.count('circuit') === 0
      ? {}
      : {
          circuits: [...network.all('circuit')]
            .sort((a, b) => compareNames(a.number, b.number))
            .map(({ id: _id, aPortId, bPortId, ...circuit }) =>
              sparse(
                {
                  ...circuit,
                  a: portTitle(network, aPortId) || null,
                  b: portTitle(network, bPortId) || null,
                },
                { status: 'active' },
              ),
            ),
        }),
    ...(network.count('pathway') === 0
      ? {}
      : {
          pathways: [...network.all('pathway')]
            .sort(byName)
            .map(({ id: _id, aPlaceId, bPlaceId, ...pathway }) =>
              sparse({ ...pathway, from: placePath(network, aPlaceId), to: placePath(network, bPlaceId) }),
            ),
        }),
    ...(prefixes === undefined ? {} : { prefixes }),
    ...(reserved === undefined ? {} : { reserved }),
    sheets: [...network.all('sheet')].sort(byName).map((sheet) => sheetEntryOf(network, sheet)),
    ...(network.count('printedLabel') === 0 ? {} : { printedLabels: printedLabelEntries(network) }),
    ...(network.count('waiver') === 0 ? {} : { waivers: waiverEntries(network) }),
    ...writeSections(network),
  };
}
