import { cableAt, endsOf, placeOnCable } from '../../model/ports.ts';
import { fannedFrom, portStrands, strandsPerLeg } from '../../model/strands.ts';
import type { Finding, Rule } from '../finding.ts';
import { tell } from '../tell.ts';

/** "F7 to F12", "F3". */
const span = (names: readonly string[]): string =>
  names.length > 1 ? `${names[0] ?? ''} to ${names.at(-1) ?? ''}` : (names[0] ?? '');

/** Ports of a cassette whose strands the trunk behind it does not have: they lead nowhere, cabled or not. */
export const strandsMissing: Rule = {
  key: 'strand-missing',
  title: 'Ports of a cassette without a strand in its trunk',
  find: (network) => {
    const findings: Finding[] = [];
    const common = new Set<string>();
    for (const port of network.all('port'))
      if (port.passThroughStrand !== null && port.passThroughId !== null) common.add(port.passThroughId);
    for (const id of common) {
      const port = network.get('port', id);
      const cable = cableAt(network, id);
      const type = network.get('model', cable?.typeId ?? null);
      if (port === null || cable === null || type === null) continue;
      const own = endsOf(network, cable, placeOnCable(network, cable, id).side);
      const has = strandsPerLeg(type, own.length);
      const device = network.get('device', port.deviceId);
      if (has === null || device === null) continue;
      const without = fannedFrom(network, port).filter((one) => (one.passThroughStrand ?? 1) > has);
      const [first] = without;
      if (first === undefined) continue;
      const last = without.at(-1) ?? first;
      findings.push(
        tell(
          network,
          'strand-missing',
          'warn',
          [
            { kind: 'port', row: port },
            { kind: 'cable', row: cable },
          ],
          `${device.name} ${span(without.map(({ name }) => name))} ${without.length === 1 ? 'has' : 'have'} no strand: ${cable.label} at ${port.name} has ${has}, they need ${first.passThroughStrand ?? ''} to ${(last.passThroughStrand ?? 1) + portStrands(last) - 1}. Lay a trunk with more strands, or leave those ports empty.`,
        ),
      );
    }
    return findings;
  },
};
