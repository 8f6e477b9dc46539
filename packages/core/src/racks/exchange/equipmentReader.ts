import { grouped } from '../../model/values/numbers.ts';
import { create, sameValue, update, type Change } from '../../change/change.ts';
import { keptAs, netOf, noNet, type Net } from '../../addressing/exchange/managementAddress.ts';
import { changeModel } from '../../catalogue/commands/changeModel.ts';
import { firstOfTheirRole } from '../../catalogue/generic.ts';
import { portsFromModel } from '../../catalogue/modelPorts.ts';
import { Wrong, type ListRow } from '../../exchange/listRows.ts';
import type { CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';
import { blankDevice, deviceSchema, type Device } from '../../model/kinds/equipment/device.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import { modelTitle, notesOf } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import { roleOfName } from '../../model/values/roleWords.ts';
import { CellReader, type Cells } from './equipmentCells.ts';
import type { EquipmentColumns } from './equipmentColumns.ts';
import { changedText, newText } from './equipmentText.ts';
import { ListNames } from './listNames.ts';
import { ListModels, namesModel, roleIn, type ModelAnswer } from './unknownModels.ts';
import { Whereabouts } from './whereabouts.ts';

/** How an equipment list is to be read. */
export interface EquipmentWish {
  /** What each column holds; null: by headings and content. */
  columns: EquipmentColumns | null;
  /** What the models are that the catalogue does not know, by their key. */
  models: Readonly<Record<string, ModelAnswer>>;
  /** Whether places and racks that are not there are made. */
  makePlaces: boolean;
  /** The VLAN that switches are managed in, where nothing else tells; null: it is not said. */
  managementVid: number | null;
  /** Where new devices stand that name no place; null: they are not placed yet. */
  placeId: string | null;
}
type Standing = Pick<Device, 'placeId' | 'rackId' | 'unit'>;

/** A row whose facts are good: its device as it will be, and what else changes with it. */
interface Parsed {
  row: number;
  before: Device | null;
  device: Device;
  model: CatalogueModel | null;
  /** Ports that come and go with the model. */
  ports: Change[];
  address: string;
  mac: string;
}

const plain = (text: string): string =>
  text.replace(/\.$/, '').replace(/^./, (letter) => letter.toLowerCase());

/** Reads rows in two passes: what they say, then whether they can stand together. */
export class EquipmentReader {
  private readonly cells: CellReader;
  private readonly models: ListModels;
  private readonly where: Whereabouts;
  private readonly names: ListNames;
  /** Rows by the device they are about, the serial and the address that they give. */
  private readonly rowOf = new Map<string, number>();
  private readonly moved = new Set<string>();
  private readonly parsed: Parsed[] = [];
  private readonly results = new Map<number, ListRow>();
  /** Devices whose management address would have a port if the management VLAN were said. */
  withoutPort = 0;

  constructor(
    private readonly network: Network,
    private readonly columns: EquipmentColumns,
    private readonly wish: Omit<EquipmentWish, 'columns' | 'models'>,
    rows: readonly (readonly string[])[],
    headings: readonly string[],
    models: ListModels,
  ) {
    this.cells = new CellReader(rows, columns, headings);
    this.models = models;
    this.where = new Whereabouts(network, wish.makePlaces, (id) => this.moved.has(id));
    const named = columns.fields.name;
    const names = rows.map((row) => (named === undefined ? '' : (row[named] ?? '').trim().toLowerCase()));
    this.names = new ListNames(network, new Set(names));
  }

  read(row: number, cells: readonly string[]): void {
    const text: Cells = (field) => cells[this.columns.fields[field] ?? -1]?.trim() ?? '';
    const label = text('name') || text('serial') || text('assetNumber');
    try {
      const parsed = this.parse(row, cells, text);
      this.parsed.push(parsed);
      if (parsed.before !== null) this.moved.add(parsed.before.id);
    } catch (error) {
      if (!(error instanceof Wrong)) throw error;
      this.cannot(row, label, error.message);
    }
  }

  private cannot(row: number, label: string, why: string): void {
    this.results.set(row, { row, label: label || '–', does: 'cannot', detail: why });
  }

  /** The device that a row is about: by name, else by serial, else by asset number; null where it is new. */
  private deviceOf(text: Cells): Device | null {
    const one = (index: 'deviceByName' | 'deviceBySerial' | 'deviceByAsset', word: string): Device | null =>
      word === '' ? null : this.network.findOne(index, word.toLowerCase());
    const [name, serial, asset] = [text('name'), text('serial'), text('assetNumber')];
    const byName = one('deviceByName', name);
    const bySerial = one('deviceBySerial', serial);
    if (byName !== null && bySerial !== null && byName.id !== bySerial.id)
      throw new Wrong(`${name} is there, but the serial ${serial} is that of ${bySerial.name}`);
    return byName ?? bySerial ?? one('deviceByAsset', asset);
  }

  /** Takes a key for a row, such as the name of a new device; throws where an earlier row has it. */
  private claim(row: number, key: string, what: string): void {
    const earlier = this.rowOf.get(key);
    if (earlier !== undefined) throw new Wrong(`row ${earlier} ${what}`);
    this.rowOf.set(key, row);
  }

  private parse(row: number, cells: readonly string[], text: Cells): Parsed {
    const words = { maker: text('maker'), name: text('model'), partNumber: text('partNumber') };
    const before = this.deviceOf(text);
    const given = text('name');
    if (before === null && given === '' && !namesModel(words))
      throw new Wrong(
        'it names no device: there is no name, no serial or asset number that is known, and no model',
      );
    const facts = this.cells.facts(text, cells, before);
    const listed = namesModel(words)
      ? this.models.find(words, { name: given, role: text('role'), units: text('units') })
      : null;
    const model = listed ?? this.modelWithout(before, text);
    const where = this.standing(text, before);
    const start = before ?? this.fresh(model, text);
    const changed = listed !== null && before !== null && before.modelId !== listed.id;
    const swap = changed ? this.swap(before, listed) : { ports: [], device: {} };
    const device: Device = {
      ...start,
      ...swap.device,
      ...where.at,
      ...facts,
      name: given || before?.name || this.names.next(where.named, start.role, start.modelId),
    };
    return this.checked({
      row,
      before,
      device,
      model,
      ports: swap.ports,
      address: text('address'),
      mac: text('mac'),
    });
  }

  /** What stands for a row that names no model: what the device is, or the first one of its role. */
  private modelWithout(before: Device | null, text: Cells): CatalogueModel | null {
    if (before !== null) return this.network.get('model', before.modelId);
    const said = roleIn(text('role'));
    if (said === null && text('role') !== '')
      throw new Wrong(`the role “${text('role')}” is not one of router, switch, firewall, server and so on`);
    return firstOfTheirRole(this.network, said ?? roleOfName(text('name')));
  }

  private fresh(model: CatalogueModel | null, text: Cells): Device {
    const role = roleIn(text('role')) ?? model?.role ?? roleOfName(text('name'));
    const height = text('units').replace(/\s*u$/i, '').replace(',', '.');
    if (height !== '' && !Number.isFinite(Number(height)))
      throw new Wrong(`the height “${text('units')}” is not a number of units`);
    const own = model?.maker === null && height !== '' ? Number(height) : null;
    return {
      ...blankDevice,
      id: newId(),
      name: '',
      role,
      modelId: model?.id ?? null,
      units: own ?? model?.units ?? 1,
      fillsBothFaces: model?.fillsBothFaces ?? true,
      side: model?.halfWidth === true ? 'left' : 'full',
    };
  }

  /** Where a row says that its device stands, and the place by whose pattern it is named. */
  private standing(text: Cells, before: Device | null): { at: Standing; named: string | null } {
    const place = text('place') === '' ? null : this.where.place(text('place'));
    if (text('rack') !== '') {
      const rack = this.where.rack(text('rack'), place);
      const unit = before?.rackId === rack.id ? before.unit : null;
      return { at: { placeId: null, rackId: rack.id, unit }, named: rack.placeId };
    }
    if (text('unit') !== '' && (before?.rackId ?? null) === null)
      throw new Wrong(`unit ${text('unit')} is given without a rack`);
    const now = before ?? { placeId: this.wish.placeId, rackId: null, unit: null };
    const rack = this.network.get('rack', now.rackId);
    // A rack in the very place that is named: it stays there.
    if (place === null || rack?.placeId === place.id)
      return { at: { placeId: now.placeId, rackId: now.rackId, unit: now.unit }, named: now.placeId };
    return { at: { placeId: place.id, rackId: null, unit: null }, named: place.id };
  }

  /** Another model for a device that is there: its ports change, and no cable may hang loose by a list. */
  private swap(before: Device, model: CatalogueModel): { ports: Change[]; device: Partial<Device> } {
    const staged = this.network.draft();
    staged.put('model', model);
    const change = changeModel(staged.finish(), before, model);
    if (change.lost.length > 0)
      throw new Wrong(
        `as a ${modelTitle(model)} ${change.lost.length} of its cables would hang loose: change its model in its record`,
      );
    if (!change.attempt.ok) throw new Wrong(plain(change.attempt.why));
    const { changes } = change.attempt.set;
    const own = changes.find((one) => one.op === 'update' && one.kind === 'device');
    return {
      ports: changes.filter((one) => one !== own),
      device: own?.op === 'update' && own.kind === 'device' ? own.after : {},
    };
  }

  private checked(parsed: Parsed): Parsed {
    const { row, before, device } = parsed;
    const read = deviceSchema.safeParse(device);
    const issue = read.success ? undefined : read.error.issues[0];
    if (issue !== undefined) {
      const field = String(issue.path[0] ?? '');
      throw new Wrong(`${notesOf('device', field)?.label ?? field} ${issue.message}`);
    }
    const holder = this.network.findOne('deviceByName', device.name.toLowerCase());
    if (holder !== null && holder.id !== before?.id)
      throw new Wrong(`${device.name} is the name of another device`);
    this.claim(row, `device ${device.name.toLowerCase()}`, `is about ${device.name} too`);
    if (before !== null && before.name !== device.name)
      this.claim(row, `id ${before.id}`, `is about ${before.name} too`);
    if (device.serial !== null)
      this.claim(row, `serial ${device.serial.toLowerCase()}`, `has the serial ${device.serial} too`);
    return parsed;
  }

  /** Judges who stands where and who has which address, and makes the changes of the good rows. */
  *finish(): Generator<number, { changes: Change[]; alsoMade: string; results: ListRow[] }> {
    const good: { parsed: Parsed; changes: Change[] }[] = [];
    for (const [at, parsed] of this.parsed.entries()) {
      if (at % 1000 === 999) yield at;
      try {
        good.push({ parsed, changes: this.changesOf(parsed) });
      } catch (error) {
        if (!(error instanceof Wrong)) throw error;
        this.cannot(parsed.row, parsed.device.name, error.message);
      }
    }
    const devices = good.map(({ parsed }) => parsed.device);
    const models = this.models.madeFor(new Set(devices.flatMap((one) => one.modelId ?? [])));
    const around = this.where.changesFor(devices);
    const changes = [...models.map((model) => create('model', model)), ...around];
    for (const one of good) changes.push(...one.changes);
    return { changes, alsoMade: alsoMade(models.length, around), results: this.inOrder() };
  }

  private inOrder(): ListRow[] {
    return [...this.results.values()].sort((a, b) => a.row - b.row);
  }

  private changesOf(parsed: Parsed): Change[] {
    const { before, model } = parsed;
    const fresh = before === null && model !== null ? portsFromModel(model, parsed.device.id) : [];
    const net = this.net(parsed, fresh);
    const device = withKept(parsed, net);
    const change = before === null ? create('device', device) : update('device', before, device);
    this.where.take(device);
    const changes = [
      ...(change === null ? [] : [change]),
      ...parsed.ports,
      ...fresh.map((port) => create('port', port.id === net.portId ? { ...port, mac: net.mac } : port)),
      ...net.changes,
    ];
    const told =
      before === null
        ? newText(this.where, device, model, net.said)
        : changedText(this.network, this.where, before, { device, model, said: net.said });
    const does = before === null ? 'new' : changes.length === 0 ? 'same' : 'changes';
    this.results.set(parsed.row, { row: parsed.row, label: device.name, does, detail: told });
    return changes;
  }

  /** What is told of the network of a row, once no other row has given the same address. */
  private net(
    { row, before, device, model, address, mac, ports: swapped }: Parsed,
    fresh: readonly Port[],
  ): Net {
    if (address === '' && mac === '') return noNet;
    if (swapped.length > 0)
      throw new Wrong(
        'it gives another model and an address at once: take over the model first, then the address',
      );
    const ports = before === null ? fresh : this.network.find('everyPortByDevice', before.id);
    const { managementVid } = this.wish;
    const managed = { device, model, ports, fresh: before === null, managementVid };
    const net = netOf(this.network, managed, { address, mac });
    if (net.wantsVlan) this.withoutPort++;
    if (address !== '')
      this.claim(row, `address ${address.split('/')[0] ?? ''}`, `has the address ${address} too`);
    return net;
  }
}

/** The device with what no port could be found for, and without what has one now. */
function withKept({ device, address, mac }: Parsed, { kept }: Net): Device {
  const extra: Record<string, string> = { ...device.extra };
  for (const [name, said] of [
    [keptAs.address, address],
    [keptAs.mac, mac],
  ] as const) {
    const value = kept[name];
    if (value !== undefined) extra[name] = value;
    else if (said !== '') delete extra[name];
  }
  return sameValue(extra, device.extra) ? device : { ...device, extra };
}

function alsoMade(models: number, around: readonly Change[]): string {
  const count = (kind: string): number => around.filter((change) => change.kind === kind).length;
  const parts = [
    [models, 'model', 'models'],
    [count('place'), 'place', 'places'],
    [count('rack'), 'rack', 'racks'],
  ] as const;
  return parts
    .filter(([number]) => number > 0)
    .map(([number, one, many]) => `${grouped(number)} ${number === 1 ? one : many}`)
    .join(', ');
}
