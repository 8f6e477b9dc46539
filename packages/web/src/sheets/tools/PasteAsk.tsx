import type { ReactNode } from 'react';
import { Button } from '../../kit/controls.tsx';
import { PanelDialog } from '../../kit/panel/panelDialog.tsx';
import { copied } from '../useSheetActs.ts';

/** Pasting devices makes new ones in the network: that is asked first. */
export function PasteAsk({ onPaste, onClose }: { onPaste: () => void; onClose: () => void }): ReactNode {
  const count = copied()?.deviceIds.length ?? 0;
  return (
    <PanelDialog title="Paste devices" open onOpenChange={(open) => !open && onClose()}>
      <p>
        {`${count} new ${count === 1 ? 'device is' : 'devices are'} made: ${count === 1 ? 'the same model and what is configured, and the next free name' : 'the same models and what is configured, the next free names, and cables of their own where both ends are copied'}. What stands somewhere already is planned once more.`}
      </p>
      <Button
        $tone="primary"
        onPress={() => {
          onPaste();
          onClose();
        }}
      >
        {`Make ${count} new ${count === 1 ? 'device' : 'devices'}`}
      </Button>
    </PanelDialog>
  );
}
