import { kinds } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { connectLine, disconnectLine, freeLine, reserveLine } from '../cabling/commands/cablingLines.ts';
import { findAnything } from './find.ts';
import { deviceRange } from '../cabling/commands/portRange.ts';
import type { LineOption } from './lineOption.ts';
import { addLine, moveLine } from '../racks/commands/rackLines.ts';
import { carryLine, profileLine } from '../switching/commands/vlanLines.ts';

/** What can be typed, for the list shown on an empty line. */
export const lineExamples: readonly { form: string; what: string }[] = [
  { form: 'rack NAME', what: 'Open a rack' },
  { form: 'connect DEVICE to DEVICE x2', what: 'Join two devices: ports and cables are chosen' },
  { form: 'connect DEVICE PORT to DEVICE PORT', what: 'Plug in a cable, or many: gi1/1-24 to front 1-24' },
  { form: 'disconnect LABEL', what: 'Take a cable out' },
  { form: 'reserve DEVICE PORT for NOTE', what: 'Keep a port' },
  { form: 'two free SFP+ near PLACE', what: 'Find free ports' },
  { form: 'add MODEL to RACK U40', what: 'Put a device of the catalogue into a rack' },
  { form: 'move DEVICE to RACK U12', what: 'Put it somewhere else' },
  { form: 'carry VLAN 40 from SWITCH to SWITCH', what: 'Add a VLAN to every trunk on the way' },
  { form: 'set DEVICE PORT as PROFILE', what: 'Set ports for VLANs: gi1/3-10 as Camera port' },
  { form: 'trace DEVICE PORT', what: 'Follow the run from a port' },
  { form: 'any name, label or serial', what: 'Find it' },
];

const refuse = (title: string, detail: string): LineOption[] => [{ does: 'refuse', title, detail }];

/**
 * Reads a line: `connect A to B`, `disconnect LABEL`, `reserve A for NOTE`, `two free SFP+ near PLACE`, `add MODEL to RACK U40`, `move DEVICE to RACK U12`,
 * `carry VLAN 40 from SWITCH to SWITCH`, `set DEVICE PORT as PROFILE`, `trace DEVICE PORT`, `rack NAME`, or anything to find. Gives the options to
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
  const carrying = /^carry\s+(?:vlan\s+)?(\S+)\s+from\s+(.+?)\s+to\s+(.+)$/i.exec(line);
  if (carrying !== null) return carryLine(network, carrying[1] ?? '', carrying[2] ?? '', carrying[3] ?? '');
  const setting = /^set\s+(.+?)\s+as\s+(.+)$/i.exec(line);
  if (setting !== null) return profileLine(network, setting[1] ?? '', setting[2] ?? '');
  const pulling = /^disconnect\s+(.+)$/i.exec(line);
  if (pulling !== null) return disconnectLine(network, pulling[1] ?? '');
  const keeping = /^reserve\s+(.+?)\s+for\s+(.+)$/i.exec(line);
  if (keeping !== null) return reserveLine(network, keeping[1] ?? '', keeping[2] ?? '');
  if (/^(\w+\s+)?free\s+\S/i.test(line)) return freeLine(network, line);
  const tracing = /^trace\s+(.+)$/i.exec(line);
  if (tracing !== null) {
    const label = network.findOne('cableByLabel', (tracing[1] ?? '').trim().toLowerCase());
    const range = label === null ? deviceRange(network, tracing[1] ?? '') : null;
    if (range !== null && !range.ok) return refuse('Trace', range.why);
    const portId = label?.aPortId ?? label?.bPortId ?? range?.ports[0]?.id;
    if (portId === undefined) return refuse('Trace', `${label?.label ?? ''} is plugged in nowhere.`);
    return [
      {
        does: 'trace',
        title: `Trace from ${tracing[1] ?? ''}`,
        detail: 'the whole run',
        portId,
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
    detail: [kinds[item.kind].one, item.detail].filter((part) => part !== '').join(' · '),
    found: item,
  }));
}
