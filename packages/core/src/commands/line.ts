import type { ChangeSet } from '../change/change.ts';
import { applyChanges } from '../change/apply.ts';
import { cableTypes, mismatch } from '../cabling/match.ts';
import type { Port } from '../model/kinds/port.ts';
import type { Network } from '../model/network.ts';
import { findPort } from '../model/ports.ts';
import { connect, proposeConnection } from './cables.ts';
import { findAnything, type Found } from './find.ts';
import { addLine, moveLine } from './rackLines.ts';

/** What Enter would do with a line typed into the command line. */
export type LineOption =
  | { does: 'go'; title: string; detail: string; found: Found }
  | { does: 'trace'; title: string; detail: string; portId: string }
  | { does: 'change'; title: string; detail: string; set: ChangeSet }
  | { does: 'refuse'; title: string; detail: string };

/** What can be typed, for the list shown on an empty line. */
export const lineExamples: readonly { form: string; what: string }[] = [
  { form: 'rack NAME', what: 'Open a rack' },
  { form: 'connect DEVICE PORT to DEVICE PORT', what: 'Plug in a cable' },
  { form: 'add MODEL to RACK U40', what: 'Put a device of the catalogue into a rack' },
  { form: 'move DEVICE to RACK U12', what: 'Put it somewhere else' },
  { form: 'trace DEVICE PORT', what: 'Follow the run from a port' },
  { form: 'any name, label or serial', what: 'Find it' },
];

const refuse = (title: string, detail: string): LineOption[] => [{ does: 'refuse', title, detail }];

type Named = { ok: true; port: Port } | { ok: false; why: string };

function namedPort(network: Network, text: string): Named {
  const parts = /^(\S+?)(?:\s+|:)(\S.*)$/.exec(text.trim());
  if (parts === null)
    return {
      ok: false,
      why: `Write a device and a port, such as kq-acc-1 te1/49, instead of “${text.trim()}”.`,
    };
  const [, deviceName = '', portName = ''] = parts;
  const port = findPort(network, deviceName, portName);
  if (port !== null) return { ok: true, port };
  const device = network.findOne('deviceByName', deviceName.toLowerCase());
  return {
    ok: false,
    why: device === null ? `There is no device ${deviceName}.` : `${device.name} has no port ${portName}.`,
  };
}

function connectLine(network: Network, left: string, right: string): LineOption[] {
  const a = namedPort(network, left);
  if (!a.ok) return refuse('Connect', a.why);
  const b = namedPort(network, right);
  if (!b.ok) return refuse('Connect', b.why);
  const refused = mismatch(cableTypes(network), a.port, b.port);
  if (refused !== null) return refuse('Connect', `These ports do not match: ${refused}.`);
  const proposal = proposeConnection(network, a.port, b.port);
  const set = connect(network, proposal);
  const applied = applyChanges(network, set.changes);
  if (!applied.ok) return refuse('Connect', applied.problems[0]?.message ?? 'It cannot be done.');
  const type = network.get('model', proposal.typeId)?.name ?? 'no type yet';
  const length = proposal.lengthM === null ? '' : `, ${proposal.lengthM} m`;
  return [{ does: 'change', title: `Connect with ${proposal.label}`, detail: `${type}${length}`, set }];
}

/**
 * Reads a line: `connect A to B`, `add MODEL to RACK U40`, `move DEVICE to RACK U12`, `trace DEVICE PORT`, `rack NAME`, or anything to find. Gives the options to
 * show below the line, best first; nothing is changed until one is chosen.
 */
export function interpretLine(network: Network, text: string): LineOption[] {
  const line = text.trim();
  const connecting = /^connect\s+(.+?)\s+to\s+(.+)$/i.exec(line);
  if (connecting !== null) return connectLine(network, connecting[1] ?? '', connecting[2] ?? '');
  const adding = /^add\s+(.+)\s+to\s+(.+)$/i.exec(line);
  if (adding !== null) return addLine(network, adding[1] ?? '', adding[2] ?? '');
  const moving = /^move\s+(\S+)\s+to\s+(.+)$/i.exec(line);
  if (moving !== null) return moveLine(network, moving[1] ?? '', moving[2] ?? '');
  const tracing = /^trace\s+(.+)$/i.exec(line);
  if (tracing !== null) {
    const named = namedPort(network, tracing[1] ?? '');
    if (!named.ok) return refuse('Trace', named.why);
    return [
      {
        does: 'trace',
        title: `Trace from ${tracing[1] ?? ''}`,
        detail: 'the whole run',
        portId: named.port.id,
      },
    ];
  }
  const rackName = /^rack\s+(.+)$/i.exec(line)?.[1]?.trim();
  const found = findAnything(network, rackName ?? line).filter(
    (item) => rackName === undefined || item.kind === 'rack',
  );
  if (found.length === 0 && line !== '') {
    return refuse(
      'Nothing found',
      `No ${rackName === undefined ? 'name, label or serial' : 'rack'} contains “${rackName ?? line}”.`,
    );
  }
  return found.map((item) => ({
    does: 'go',
    title: item.title,
    detail: `${item.kind} · ${item.detail}`,
    found: item,
  }));
}
