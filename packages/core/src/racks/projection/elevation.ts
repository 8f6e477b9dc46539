import { grouped } from '../../model/values/numbers.ts';
import { spanText } from '../../change/constraints/rackSpace.ts';
import { faceLayout, faceWidthMm, sideLayout, unitHeightMm } from '../../catalogue/faceplate.ts';
import { rackCapacity } from '../capacity.ts';
import { unitsTouched } from '../occupancy.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { nineteenInchMm, type Rack } from '../../model/kinds/sites/rack.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Role } from '../../model/values/roles.ts';
import { roles } from '../../model/values/roles.ts';
import type { Network } from '../../model/network/network.ts';
import { isFree, portsOf } from '../../model/network/ports.ts';
import type { Box } from '../../sheets/scene/scene.ts';
import type { Shade, ShadeKey, Shading } from '../../sheets/graph/shading.ts';

/** Sheet units: the height of one rack unit, the width between the rails of a 19-inch rack, a rail, and the side beyond it. */
export const unitHeight = 16;
export const railWidth = 26;
export const sideWidth = 15;
const nineteenInch = 330;

/** What may stand below or beside the name on a plate. */
export const plateFacts = ['model', 'serial', 'power', 'notes'] as const;
export type PlateFact = (typeof plateFacts)[number];

export interface ElevationPort {
  id: string;
  name: string;
  box: Box;
  used: boolean;
}

export interface ElevationPlate {
  deviceId: string;
  name: string;
  /** A chosen fact, where one is wanted and known. */
  fact: string | null;
  role: Role;
  shade: Shade;
  box: Box;
  form: 'device' | 'blank' | 'side';
  /** Seen from its back: it is mounted at the other face and reaches through. */
  back: boolean;
  status: Device['status'];
  ports: ElevationPort[];
  slots: { name: string; box: Box; filled: boolean }[];
  spoken: string;
}

export interface ElevationFace {
  face: 'front' | 'rear';
  units: { unit: number; y: number; free: boolean }[];
  plates: ElevationPlate[];
}

/** A rack seen from the front and the rear, in sheet units from the top left of the rack. */
export interface ElevationScene {
  form: 'elevation';
  rackId: string;
  title: string;
  width: number;
  height: number;
  /** Left edge and width of the space between the rails. */
  inner: { x: number; width: number };
  numbering: Rack['numbering'];
  faces: ElevationFace[];
  gauges: Gauge[];
  key: ShadeKey[];
}

/** A figure of the rack against its limit. */
export interface Gauge {
  label: string;
  /** "14 of 42 U". */
  text: string;
  /** Filled part, 0 to 1 and above; null without a limit. */
  share: number | null;
  state: 'ok' | 'warn' | 'bad';
}

export interface ElevationWishes {
  shading?: Shading;
  fact?: PlateFact | null;
}

/** Top of a unit in a rack, counted from the rack's top edge. */
export const unitTop = (rack: Pick<Rack, 'units' | 'numbering'>, unit: number, units: number): number =>
  (rack.numbering === 'up' ? rack.units - (unit + units - 1) : unit - 1) * unitHeight;

/** The unit whose lower-numbered edge is nearest to a height on the rack, for something `units` high. */
export function unitAt(rack: Pick<Rack, 'units' | 'numbering'>, y: number, units: number): number {
  const step = Number.isInteger(units) ? 1 : 0.5;
  const raw = rack.numbering === 'up' ? rack.units - y / unitHeight - units + 1 : y / unitHeight + 1;
  const snapped = Math.round(raw / step) * step;
  return Math.max(1, Math.min(rack.units - units + 1, snapped));
}

/** The space between the rails, at the scale of the rack's width. */
export const innerOf = (rack: Pick<Rack, 'widthMm'>): { x: number; width: number } => ({
  x: sideWidth + railWidth,
  width: Math.round((nineteenInch * rack.widthMm) / nineteenInchMm),
});

/** Where a device stands on one face: half-width gear changes sides when seen from the rear. */
export function plateBox(
  rack: Rack,
  device: Pick<Device, 'unit' | 'units' | 'side'>,
  face: 'front' | 'rear',
): Box {
  const inner = innerOf(rack);
  const half = device.side !== 'full';
  const leftmost = (device.side === 'left') === (face === 'front');
  return {
    x: inner.x + (half && !leftmost ? inner.width / 2 : 0),
    y: unitTop(rack, device.unit ?? 1, device.units),
    width: half ? inner.width / 2 : inner.width,
    height: device.units * unitHeight,
  };
}

function factOf(network: Network, device: Device, fact: PlateFact | null | undefined): string | null {
  const model = network.get('model', device.modelId);
  if (fact === 'model') return model === null ? null : modelTitle(model);
  if (fact === 'serial') return device.serial;
  if (fact === 'notes') return device.notes;
  if (fact === 'power') return model?.maxPowerW ? `${grouped(model.maxPowerW)} W` : null;
  return null;
}

function spokenOf(network: Network, device: Device): string {
  const ports = portsOf(network, device.id);
  const used = ports.filter((port) => !isFree(network, port.id)).length;
  const last = (device.unit ?? 0) + device.units - 1;
  const where =
    device.unit === null
      ? 'at the side'
      : last <= device.unit
        ? `unit ${spanText(device).slice(1)}`
        : `units ${device.unit} to ${last}`;
  return `${device.name}, ${roles[device.role].label}, ${where}, ${used} of ${ports.length} ports used`;
}

/** Draws one rack; what every plate needs is read once. */
class Drafter {
  constructor(
    private readonly network: Network,
    private readonly rack: Rack,
    private readonly wishes: ElevationWishes,
  ) {}

  private portsAt(
    device: Device,
    spots: readonly (Box & { name: string })[],
    place: (spot: Box) => Box,
  ): ElevationPort[] {
    const byName = new Map(this.network.find('portsByDevice', device.id).map((port) => [port.name, port]));
    return spots.flatMap((spot) => {
      const port = byName.get(spot.name);
      if (port === undefined) return [];
      const used = !isFree(this.network, port.id);
      return [{ id: port.id, name: port.name, used, box: place(spot) }];
    });
  }

  private base(device: Device): Omit<ElevationPlate, 'box' | 'ports' | 'slots' | 'back' | 'form'> {
    return {
      deviceId: device.id,
      name: device.name,
      fact: factOf(this.network, device, this.wishes.fact),
      role: device.role,
      shade: this.wishes.shading?.of(device) ?? { scale: 'role', family: roles[device.role].family },
      status: device.status,
      spoken: spokenOf(this.network, device),
    };
  }

  plate(device: Device, face: 'front' | 'rear'): ElevationPlate {
    const { network } = this;
    const box = plateBox(this.rack, device, face);
    const model = network.get('model', device.modelId);
    const back = face !== device.face;
    const widthMm = faceWidthMm * (device.side === 'full' ? 1 : 0.5);
    const inSlot = new Map(
      network.find('modulesByDevice', device.id).map((module) => [module.slot.toLowerCase(), module.modelId]),
    );
    const layout =
      model === null
        ? { ports: [], slots: [] }
        : faceLayout(model, back ? 'rear' : 'front', (slot) =>
            network.get('model', inSlot.get(slot.name.toLowerCase()) ?? null),
          );
    const place = (spot: Box): Box => ({
      x: box.x + (spot.x / widthMm) * box.width,
      y: box.y + (spot.y / unitHeightMm) * unitHeight,
      width: (spot.width / widthMm) * box.width,
      height: (spot.height / unitHeightMm) * unitHeight,
    });
    return {
      ...this.base(device),
      box,
      form: model?.part === 'blank' ? 'blank' : 'device',
      back,
      ports: this.portsAt(device, layout.ports, place),
      slots: layout.slots.map(({ name, filled, ...spot }) => ({ name, filled, box: place(spot) })),
    };
  }

  /** Gear at the side, along the height of the rack beyond a rail: two at most on each side share it. */
  sidePlates(devices: readonly Device[], face: 'front' | 'rear'): ElevationPlate[] {
    const height = this.rack.units * unitHeight;
    const inner = innerOf(this.rack);
    const sides: Record<'left' | 'right', Device[]> = { left: [], right: [] };
    devices.forEach((device, at) => {
      const side = device.side === 'full' ? (at % 2 === 0 ? 'left' : 'right') : device.side;
      sides[face === 'front' ? side : side === 'left' ? 'right' : 'left'].push(device);
    });
    return (['left', 'right'] as const).flatMap((side) =>
      sides[side].map((device, at, all): ElevationPlate => {
        const share = height / all.length;
        const box = {
          x: side === 'left' ? 1 : inner.x + inner.width + railWidth - 1,
          y: at * share + 2,
          width: sideWidth,
          height: share - 4,
        };
        const model = this.network.get('model', device.modelId);
        const tab = 18;
        const spots = model === null ? [] : sideLayout(model, box.width, box.height - tab - 4);
        return {
          ...this.base(device),
          box,
          form: 'side',
          back: false,
          slots: [],
          ports: this.portsAt(device, spots, (spot) => ({
            ...spot,
            x: box.x + spot.x,
            y: box.y + tab + spot.y,
          })),
        };
      }),
    );
  }
}

const nearly = 0.9;
const stateOf = (share: number | null): Gauge['state'] =>
  share === null || share <= nearly ? 'ok' : share <= 1 ? 'warn' : 'bad';

/** Units, mass, each feed, and heat of a rack, as shown above it. */
export function gaugesOf(network: Network, rack: Rack): Gauge[] {
  const capacity = rackCapacity(network, rack);
  const gauge = (label: string, text: string, share: number | null): Gauge => ({
    label,
    text,
    share,
    state: stateOf(share),
  });
  const { massLimitKg, massKg } = capacity;
  return [
    gauge(
      'Units',
      `${capacity.usedUnits} of ${capacity.units} U`,
      Math.min(nearly, capacity.usedUnits / capacity.units),
    ),
    gauge(
      'Mass',
      massLimitKg === null ? `${grouped(massKg)} kg` : `${grouped(massKg)} of ${grouped(massLimitKg)} kg`,
      massLimitKg === null ? null : massKg / massLimitKg,
    ),
    ...(capacity.feeds.length === 0
      ? [gauge('Power', `up to ${grouped(capacity.draw.maxW)} W`, null)]
      : capacity.feeds.map((feed) => {
          const share = feed.maxW / feed.usableW;
          const alone = feed.aloneW / feed.usableW;
          return {
            ...gauge(`Feed ${feed.feed}`, `${grouped(feed.maxW)} of ${grouped(feed.usableW)} W`, share),
            state: share <= 1 && alone > 1 ? ('warn' as const) : stateOf(share),
          };
        })),
    gauge('Heat', `${grouped(capacity.btuPerHour)} BTU/h`, null),
  ];
}

/** The elevation projection of one rack. */
export function elevationScene(network: Network, rack: Rack, wishes: ElevationWishes = {}): ElevationScene {
  const devices = network.find('devicesByRack', rack.id);
  const drafter = new Drafter(network, rack, wishes);
  const inner = innerOf(rack);
  const side = devices.filter((device) => device.unit === null).sort((a, b) => (a.name < b.name ? -1 : 1));
  const top = (device: Device): number => unitTop(rack, device.unit ?? 1, device.units);
  const faces = (['front', 'rear'] as const).map((face): ElevationFace => {
    const seen = devices
      .filter((device) => device.unit !== null && (device.face === face || device.fillsBothFaces))
      .sort((a, b) => top(a) - top(b) || (a.name < b.name ? -1 : 1));
    const taken = new Set(seen.flatMap(unitsTouched));
    const units = Array.from({ length: rack.units }, (_, at) => {
      const unit = rack.numbering === 'up' ? rack.units - at : at + 1;
      return { unit, y: at * unitHeight, free: !taken.has(unit) };
    });
    return {
      face,
      units,
      plates: [...seen.map((device) => drafter.plate(device, face)), ...drafter.sidePlates(side, face)],
    };
  });
  return {
    form: 'elevation',
    rackId: rack.id,
    title: rack.name,
    width: inner.width + 2 * (railWidth + sideWidth),
    height: rack.units * unitHeight,
    inner,
    numbering: rack.numbering,
    faces,
    gauges: gaugesOf(network, rack),
    key: wishes.shading?.key ?? [],
  };
}
