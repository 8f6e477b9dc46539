import { judgeRun } from '../../cabling/link.ts';
import { traceRun } from '../../cabling/trace.ts';
import type { Network } from '../../model/network.ts';
import { portTitle } from '../../model/ports.ts';
import type { Finding, Rule } from '../finding.ts';

/** Runs judged once: from the end whose id is lower, so that both ends are looked at and none twice. */
function* runsOnce(
  network: Network,
): Generator<{ from: string; to: string | null; finding: () => Finding[] }> {
  const seen = new Set<string>();
  for (const cable of network.all('cable')) {
    if (cable.status === 'retired') continue;
    for (const id of [cable.aPortId, cable.bPortId]) {
      const port = network.get('port', id);
      if (port === null || port.role === 'passThrough' || port.role === 'powerIn' || port.role === 'powerOut')
        continue;
      if (seen.has(port.id)) continue;
      const run = traceRun(network, port.id);
      seen.add(port.id);
      if (run.to !== null) seen.add(run.to);
      yield {
        from: port.id,
        to: run.to,
        finding: () => {
          const judged = judgeRun(network, run);
          const missing = judged.faults.filter((fault) => fault.text.endsWith('no transceiver in its cage'));
          // A cage on both sides without an optic says that optics are not documented here: that is no fault of the link.
          const told = judged.faults.filter((fault) => missing.length !== 2 || !missing.includes(fault));
          return told.map((fault) => {
            const ends = [port.id, run.to].filter((end) => end !== null);
            const titles = ends.map((end) => portTitle(network, end).replace(':', ' '));
            const devices = ends.map((end) => network.get('port', end)?.deviceId ?? null);
            return {
              rule: `link-${fault.about}`,
              severity: fault.severity,
              about: [
                ...devices.map((device) => `device ${network.get('device', device)?.name ?? ''}`),
                ...run.hops.flatMap((hop) =>
                  'cable' in hop ? [`cable ${network.get('cable', hop.cable)?.label ?? ''}`] : [],
                ),
              ],
              rows: [
                ...ends.map((end) => ({ kind: 'port' as const, id: end })),
                ...devices.flatMap((device) =>
                  device === null ? [] : [{ kind: 'device' as const, id: device }],
                ),
                ...run.hops.flatMap((hop) =>
                  'cable' in hop ? [{ kind: 'cable' as const, id: hop.cable }] : [],
                ),
              ],
              message: `${titles.join(' to ')}: ${fault.text}.`,
            };
          });
        },
      };
    }
  }
}

/** What every run carries: optics that belong together, light enough, reach, category, plugs, power class. */
export const links: Rule = {
  key: 'link',
  title: 'Link that cannot work as cabled',
  find: (network) => [...runsOnce(network)].flatMap((run) => run.finding()),
};
