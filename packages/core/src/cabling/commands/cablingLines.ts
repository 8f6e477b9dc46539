import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import { findFreePorts, type PortWish } from '../freePorts.ts';

import { speedText } from '../../model/values/speed.ts';
import { connectorNames, type Connector } from '../../model/values/connectors.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { cableAt, portTitle } from '../../model/network/ports.ts';
import { connectPairs, disconnect, reservePort, type Pair } from './cables.ts';
import { joinDevices } from './join.ts';
import { deviceRange } from './portRange.ts';
import type { LineOption } from '../../commands/lineOption.ts';
import { metresText } from '../../model/values/numbers.ts';

const refuse = (title: string, detail: string): LineOption[] => [{ does: 'refuse', title, detail }];

/** A device by its name, or a device and one port of it: what a line without ranges can end at. */
function lineEnd(network: Network, text: string): { device: Device; port: Port | null } | null {
  const whole = network.findOne('deviceByName', text.toLowerCase());
  if (whole !== null) return { device: whole, port: null };
  const range = deviceRange(network, text);
  if (!range.ok || range.ports.length !== 1) return null;
  const [port = null] = range.ports;
  const device = network.get('device', port?.deviceId ?? null);
  return device === null ? null : { device, port };
}

/** `connect rt-1 to sw-1 x2`: ports that are not named are chosen. Null where both sides name ports. */
function joinLine(network: Network, left: string, right: string): LineOption[] | null {
  const [, far = right, times = '1'] = /^(.*\S)\s+x\s*(\d{1,4})$/i.exec(right.trim()) ?? [];
  const [a, b] = [lineEnd(network, left.trim()), lineEnd(network, far.trim())];
  const count = Number(times);
  // A single word can only be a device.
  for (const [end, text] of [[a, left.trim()] as const, [b, far.trim()] as const])
    if (end === null && !/[\s:]/.test(text)) return refuse('Connect', `There is no device ${text}.`);
  if (a === null || b === null || (a.port !== null && b.port !== null && count === 1)) return null;
  const made = joinDevices(network, {
    aDeviceId: a.device.id,
    bDeviceId: b.device.id,
    aPortId: a.port?.id ?? null,
    bPortId: b.port?.id ?? null,
    count,
  });
  if (!made.ok) return refuse('Connect', made.why);
  const { changes, sentence, lines } = made;
  const [first] = lines;
  const cable = made.network.get('cable', first?.lineId ?? null);
  const type = made.network.get('model', cable?.typeId ?? null);
  const ports = [first?.aPortId, first?.bPortId].map((id) =>
    portTitle(made.network, id ?? null).replace(':', ' '),
  );
  return [
    {
      does: 'change',
      title: `Connect ${ports.join(' to ')}${lines.length === 1 ? '' : ` and ${lines.length - 1} more`}`,
      detail: [type === null ? 'no type yet' : modelTitle(type), cable?.label].filter(Boolean).join(', '),
      set: { changes, sentence },
    },
  ];
}

/** `connect A to B`: two devices, ports chosen for them; or one port or a range on both sides. */
export function connectLine(network: Network, left: string, right: string): LineOption[] {
  const joined = joinLine(network, left, right);
  if (joined !== null) return joined;
  const a = deviceRange(network, left);
  if (!a.ok) return refuse('Connect', a.why);
  const b = deviceRange(network, right);
  if (!b.ok) return refuse('Connect', b.why);
  if (a.ports.length !== b.ports.length)
    return refuse(
      'Connect',
      `${a.ports.length} ports on one side and ${b.ports.length} on the other: write as many on both.`,
    );
  const pairs = a.ports.flatMap((port, at): Pair[] => {
    const other = b.ports[at];
    return other === undefined ? [] : [{ a: port, b: other }];
  });
  const { results, set } = connectPairs(network, pairs);
  const wrong = results.filter((result) => result.problem !== null);
  const [only] = results;
  if (pairs.length === 1 && only?.problem != null)
    return refuse('Connect', `These ports cannot be joined: ${only.problem}.`);
  if (wrong.length === results.length)
    return refuse(
      'Connect',
      `None of the ${results.length} pairs can be joined: ${wrong[0]?.problem ?? ''}.`,
    );
  const labels = results.flatMap((result) => result.label ?? []);
  const type = set.changes.flatMap((change) =>
    change.kind === 'cable' && change.op === 'create'
      ? [{ type: network.get('model', change.after.typeId), lengthM: change.after.lengthM }]
      : [],
  )[0];
  const what = [
    type?.type == null ? 'no type yet' : modelTitle(type.type),
    type?.lengthM == null ? null : metresText(type.lengthM),
  ]
    .filter(Boolean)
    .join(', ');
  const options: LineOption[] = [
    {
      does: 'change',
      title:
        pairs.length === 1
          ? `Connect with ${labels[0] ?? ''}`
          : `Connect ${labels.length} pairs, ${labels[0] ?? ''} to ${labels.at(-1) ?? ''}`,
      detail: what,
      set,
    },
  ];
  for (const { a: port, b: other, problem } of wrong.slice(0, 5))
    options.push({
      does: 'refuse',
      title: `Left out: ${portTitle(network, port.id).replace(':', ' ')} to ${portTitle(network, other.id).replace(':', ' ')}`,
      detail: problem ?? '',
    });
  return options;
}

/** `disconnect KQ-00012` or `disconnect kq-acc-1 gi1/4`. */
export function disconnectLine(network: Network, text: string): LineOption[] {
  const labelled = network.findOne('cableByLabel', text.trim().toLowerCase());
  const range = labelled === null ? deviceRange(network, text) : null;
  if (range !== null && !range.ok)
    return refuse('Disconnect', `There is no cable ${text.trim()}. ${range.why}`);
  const [port] = range?.ports ?? [];
  const cable = labelled ?? (port === undefined ? null : cableAt(network, port.id));
  if (cable === null) return refuse('Disconnect', `${text.trim()} holds no cable.`);
  const set = disconnect(network, cable);
  return [{ does: 'change', title: `Disconnect ${cable.label}`, detail: set.sentence, set }];
}

/** `reserve kq-acc-1 gi1/4 for NOTE`. */
export function reserveLine(network: Network, text: string, note: string): LineOption[] {
  const range = deviceRange(network, text);
  if (!range.ok) return refuse('Reserve', range.why);
  const sets = range.ports.map((port) => reservePort(network, port, note));
  const [first] = sets;
  return [
    {
      does: 'change',
      title: `Reserve ${range.ports.length === 1 ? 'this port' : `${range.ports.length} ports`}`,
      detail: `for ${note.trim()}`,
      set: {
        changes: sets.flatMap((set) => set.changes),
        sentence:
          sets.length === 1 && first !== undefined
            ? first.sentence
            : `Reserved ${sets.length} ports for ${note.trim()}`,
      },
    },
  ];
}

const words: Record<string, number> = {
  a: 1,
  an: 1,
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  eight: 8,
};

/** The wish behind `two free SFP+ with 10G optics on different switches near Data room`; null where it is none. */
export function portWish(network: Network, text: string): { wish: PortWish; near: string | null } | string {
  const parts = /^(\w+)\s+free\s+(.*)$/i.exec(text.trim()) ?? /^free\s+(?:(\d+)\s+)?(.*)$/i.exec(text.trim());
  if (parts === null) return 'Write such as: two free SFP+ near Data room';
  const [, countText = '1', rest = ''] = parts;
  const count = words[countText.toLowerCase()] ?? (Number(countText) || 1);
  const near = /\bnear\s+(.+)$/i.exec(rest)?.[1]?.trim() ?? null;
  const head = rest.replace(/\bnear\s+.+$/i, '');
  const place =
    near === null
      ? null
      : ([...network.all('place')].find((one) => one.name.toLowerCase() === near.toLowerCase()) ??
        network.get('place', network.findOne('rackByName', near.toLowerCase())?.placeId ?? null));
  if (near !== null && place === null) return `There is no place or rack ${near}.`;
  const tokens = head.split(/[\s,]+/);
  const connector: Connector | null =
    connectorNames.find((name) =>
      tokens.some((token) => token.toLowerCase().replace(/s$/, '') === name.toLowerCase().replace(/s$/, '')),
    ) ?? null;
  const speed = /\b(\d+(?:\.\d+)?)\s*([GM])\b/i.exec(head);
  const poe = /\bpoe(?:\s+class)?\s*(\d)?/i.exec(head);
  return {
    near: place?.name ?? null,
    wish: {
      count: Math.min(count, 500),
      connector,
      speedBps: speed === null ? null : Number(speed[1]) * (speed[2]?.toUpperCase() === 'G' ? 1e9 : 1e6),
      withOptic: /\b(optics?|transceivers?)\b/i.test(head),
      poeClass: poe === null ? null : Number(poe[1] ?? 3),
      differentDevices: /\bdifferent\b/i.test(head),
      nearPlaceId: place?.id ?? null,
      panels: /\bpanels?\b/i.test(head),
    },
  };
}

/** `two free SFP+ near Data room`: each found port to go to. */
export function freeLine(network: Network, text: string): LineOption[] {
  const asked = portWish(network, text);
  if (typeof asked === 'string') return refuse('Free ports', asked);
  const found = findFreePorts(network, { ...asked.wish, count: Math.min(asked.wish.count, 12) });
  if (found.length === 0)
    return refuse('Free ports', 'No free port suits that. Ask for fewer, or leave out a word.');
  return found.map(({ port, device, where }) => {
    const title = `${device.name} ${port.name}`;
    const detail = [port.connector, port.speedBps === null ? null : speedText(port.speedBps), where]
      .filter(Boolean)
      .join(' · ');
    return { does: 'go', title, detail, found: { kind: 'port', id: port.id, title, detail } };
  });
}
