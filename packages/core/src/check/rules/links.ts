import { judgeRun, type Fault } from '../../cabling/link.ts';
import { traceRun, type Run } from '../../cabling/trace.ts';
import type { Port } from '../../model/kinds/port.ts';
import type { Network } from '../../model/network.ts';
import { portTitle } from '../../model/ports.ts';
import type { Finding, Rule } from '../finding.ts';

const isPower = (port: Port): boolean => port.role === 'powerIn' || port.role === 'powerOut';

/**
 * What decides about a run, but for the names in the messages and for power over Ethernet: runs of one key are
 * judged alike. Null where an end may take power, which hangs on more.
 */
function keyOf(network: Network, run: Run, powered: ReadonlySet<string>): string | null {
  let key = '';
  for (const hop of run.hops) {
    if ('port' in hop) {
      const port = network.get('port', hop.port);
      if (port === null) return null;
      key += `|${port.connector ?? ''}/${port.speedBps ?? ''}/${port.transceiverId ?? ''}/${port.role}`;
      if (powered.has(port.deviceId)) return null;
    } else if ('cable' in hop) {
      const cable = network.get('cable', hop.cable);
      key += `|${cable?.typeId ?? ''}/${cable?.lengthM ?? ''}/${cable?.splices ?? 0}`;
    } else return null;
  }
  return run.branches.length > 0 || run.stop !== null ? null : key;
}

/** Devices of models that may be fed over their data port. */
function poweredDevices(network: Network): Set<string> {
  const ids = new Set<string>();
  for (const model of network.all('model'))
    if (model.poeClass !== null)
      for (const device of network.find('devicesByModel', model.id)) ids.add(device.id);
  return ids;
}

/** Two empty cages say that optics are not documented here: that is no fault of the link. */
function told(faults: readonly Fault[]): Fault[] {
  const missing = faults.filter((fault) => fault.emptyCage === true);
  return faults.filter((fault) => missing.length !== 2 || !missing.includes(fault));
}

function findingOf(network: Network, run: Run, fault: Fault): Finding {
  const ends = [run.from, run.to].filter((end) => end !== null);
  const titles = ends.map((end) => portTitle(network, end).replace(':', ' '));
  const devices = ends.flatMap((end) => network.get('port', end)?.deviceId ?? []);
  const cables = run.hops.flatMap((hop) => ('cable' in hop ? [hop.cable] : []));
  return {
    rule: `link-${fault.about}`,
    severity: fault.severity,
    about: [
      ...devices.map((id) => `device ${network.get('device', id)?.name ?? ''}`),
      ...cables.map((id) => `cable ${network.get('cable', id)?.label ?? ''}`),
    ],
    rows: [
      ...ends.map((id) => ({ kind: 'port' as const, id })),
      ...devices.map((id) => ({ kind: 'device' as const, id })),
      ...cables.map((id) => ({ kind: 'cable' as const, id })),
    ],
    message: `${titles.join(' to ')}: ${fault.text}.`,
  };
}

function loopFinding(network: Network, run: Run): Finding {
  const cables = run.hops.flatMap((hop) => ('cable' in hop ? [hop.cable] : []));
  return {
    rule: 'run-loop',
    severity: 'bad',
    about: cables.map((id) => `cable ${network.get('cable', id)?.label ?? ''}`),
    rows: cables.map((id) => ({ kind: 'cable' as const, id })),
    message: `The run through ${portTitle(network, run.from).replace(':', ' ')} comes back to itself over ${cables.length} cables and joins nothing. Pull one of them.`,
  };
}

/**
 * Every run once: what it carries must work as cabled (optics that belong together, light enough, reach, category,
 * plugs, power class), and a run through panels must not come back to itself.
 */
export const links: Rule = {
  key: 'link',
  title: 'Run that cannot work as cabled',
  find: (network) => {
    const findings: Finding[] = [];
    const seenPorts = new Set<string>();
    const seenCables = new Set<string>();
    const faultless = new Set<string>();
    const powered = poweredDevices(network);
    const passive: string[] = [];
    for (const cable of network.all('cable')) {
      if (cable.status === 'retired') continue;
      const ends = [network.get('port', cable.aPortId), network.get('port', cable.bPortId)];
      if (ends.every((port) => port?.role === 'passThrough')) {
        passive.push(cable.id);
        continue;
      }
      for (const port of ends) {
        if (port === null || port.role === 'passThrough' || isPower(port) || seenPorts.has(port.id)) continue;
        const run = traceRun(network, port.id);
        seenPorts.add(port.id);
        if (run.to !== null) seenPorts.add(run.to);
        for (const hop of run.hops) if ('cable' in hop) seenCables.add(hop.cable);
        const key = keyOf(network, run, powered);
        if (key !== null && faultless.has(key)) continue;
        const faults = told(judgeRun(network, run).faults);
        if (faults.length === 0 && key !== null) faultless.add(key);
        for (const fault of faults) findings.push(findingOf(network, run, fault));
      }
    }
    // Cables between panels that no active port reaches: laid for later, or a loop.
    for (const id of passive) {
      const from = network.get('cable', id)?.aPortId ?? null;
      if (seenCables.has(id) || from === null) continue;
      const run = traceRun(network, from);
      for (const hop of run.hops) if ('cable' in hop) seenCables.add(hop.cable);
      if (run.ends === 'loop') findings.push(loopFinding(network, run));
    }
    return findings;
  },
};
