import type { ReactNode } from 'react';
import { useWorkspace } from '../data/workspace.tsx';
import { AddDeviceDock } from '../racks/AddDeviceDock.tsx';
import { ConnectDock } from '../cabling/connect/ConnectDock.tsx';
import { TraceDock } from '../cabling/trace/TraceDock.tsx';

/** The dock at the bottom of the work area: one at a time. */
export function DockArea(): ReactNode {
  const { dock, setDock } = useWorkspace();
  const close = (): void => setDock(null);
  if (dock === null) return null;
  if (dock.form === 'addDevice')
    return (
      <AddDeviceDock
        key={`${dock.rackId ?? ''}/${dock.unit ?? ''}/${dock.modelId ?? ''}`}
        dock={dock}
        onClose={close}
      />
    );
  if (dock.form === 'trace') return <TraceDock portId={dock.portId} onClose={close} />;
  return (
    <ConnectDock
      key={`${dock.aPortId ?? ''}/${dock.aDeviceId ?? ''}/${dock.bPortId ?? ''}/${dock.bDeviceId ?? ''}`}
      dock={dock}
      onClose={close}
    />
  );
}
