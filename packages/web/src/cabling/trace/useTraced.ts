import { idsOfRun, wholeRun } from '@visograph/core/cabling';
import { useMemo } from 'react';
import { useShown } from '../../data/shown.ts';
import { useWorkspace } from '../../data/workspace.tsx';

const nothing: ReadonlySet<string> = new Set();

/** Everything on the run that is being traced, its devices included: lit up on every sheet and elevation. */
export function useTraced(): ReadonlySet<string> {
  const network = useShown();
  const { dock } = useWorkspace();
  const portId = dock?.form === 'trace' ? dock.portId : null;
  return useMemo(() => {
    if (portId === null || network.get('port', portId) === null) return nothing;
    const ids = idsOfRun(wholeRun(network, portId));
    for (const id of [...ids]) {
      const deviceId = network.get('port', id)?.deviceId;
      if (deviceId !== undefined) ids.add(deviceId);
    }
    return ids;
  }, [network, portId]);
}
