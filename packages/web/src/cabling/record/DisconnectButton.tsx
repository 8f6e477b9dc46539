import { cutOff, disconnect, retireCable } from '@visograph/core/cabling';
import { type Cable } from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { Button } from '../../kit/controls.tsx';

/** Disconnecting says first what it cuts off; the cable goes, or is kept as retired with its label. */
export function DisconnectButton({ cable, onGone }: { cable: Cable; onGone: () => void }): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const [asking, setAsking] = useState(false);
  const lost = useMemo(() => (asking ? cutOff(network, cable) : []), [asking, network, cable]);
  const names = lost.map((id) => network.get('device', id)?.name ?? '').sort();
  return (
    <>
      <Button onPress={() => setAsking(!asking)}>Disconnect …</Button>
      {asking && (
        <div role="alertdialog" aria-label="Disconnect" style={{ flexBasis: '100%' }}>
          <p style={{ marginBottom: 6 }}>
            {names.length === 0
              ? 'Nothing is cut off: every device keeps another path, or ends here anyway.'
              : `Cuts off ${names.length} ${names.length === 1 ? 'device' : 'devices'}: ${names.slice(0, 6).join(', ')}${names.length > 6 ? ` and ${names.length - 6} more` : ''}.`}
          </p>
          <div style={{ display: 'flex', gap: 6 }}>
            <Button $tone="primary" onPress={() => commit(disconnect(network, cable)).ok && onGone()}>
              {`Disconnect ${cable.label}`}
            </Button>
            <Button onPress={() => void (commit(retireCable(network, cable)).ok && setAsking(false))}>
              Retire, keep the label
            </Button>
          </div>
        </div>
      )}
    </>
  );
}
