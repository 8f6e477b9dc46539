import { useEffect } from 'react';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useRecordShown } from '../data/recordShown.ts';
import { useWorkspace } from '../data/workspace.tsx';
import { isTyping } from '../kit/isTyping.ts';
import { isSwitchedOff } from '../kit/singleKeys.ts';
import { sectionKeys, sections } from './sections.ts';

/** The keys that work everywhere. Single letters only while nothing is being typed. */
export function useKeys(): void {
  const { sync, view, canEdit } = useProject();
  const where = useWhereabouts();
  const workspace = useWorkspace();
  const record = useRecordShown();
  useEffect(() => {
    const openLine = (): void => void workspace.ask('command line');
    const connect = (): void => {
      const { selection } = where;
      if (!canEdit || workspace.ask('join')) return;
      const aPortId = selection?.kind === 'port' ? selection.id : null;
      const aDeviceId =
        selection?.kind === 'device' ? selection.id : (view.network.get('port', aPortId)?.deviceId ?? null);
      workspace.setDock({ form: 'connect', aPortId, aDeviceId, bPortId: null });
    };
    const trace = (): void => {
      const { selection } = where;
      const cable = selection?.kind === 'cable' ? view.network.get('cable', selection.id) : null;
      const circuit = selection?.kind === 'circuit' ? view.network.get('circuit', selection.id) : null;
      const line = cable ?? circuit;
      const portId = selection?.kind === 'port' ? selection.id : (line?.aPortId ?? line?.bPortId ?? null);
      if (portId !== null) return workspace.setDock({ form: 'trace', portId });
      sync.announce({ tone: 'ok', text: 'Choose a port, a cable or a circuit: T traces its run.' });
    };
    const plain: Record<string, () => unknown> = {
      '/': openLine,
      c: connect,
      t: trace,
      e: () => workspace.ask('plate name') || workspace.ask('name'),
      '\\': record.toggle,
      '=': () => {
        // The rows come where a dock was.
        workspace.setStripOpen(workspace.dock !== null || !workspace.stripOpen);
        workspace.setDock(null);
      },
      '?': () => workspace.setKeysOpen(true),
      Escape: () => (workspace.dock === null ? undefined : workspace.setDock(null)),
    };
    const onKey = (event: KeyboardEvent): void => {
      const command = event.ctrlKey || event.metaKey;
      const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
      if (command && key === 'k') {
        event.preventDefault();
        openLine();
        return;
      }
      if (event.altKey && !command && key.length === 1 && sectionKeys.includes(key)) {
        const section = sections[sectionKeys.indexOf(key)];
        if (section === undefined) return;
        event.preventDefault();
        where.go({ section: section.key });
        return;
      }
      if (isTyping(event.target) || isSwitchedOff(event)) return;
      if (command && key === 'z' && canEdit) {
        event.preventDefault();
        sync.step(event.shiftKey ? 'redo' : 'undo');
        return;
      }
      const act = plain[key];
      if (command || event.altKey || act === undefined || event.defaultPrevented) return;
      if (document.querySelector('[role="dialog"], [role="menu"]') !== null) return;
      if (key !== 'Escape') event.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [sync, view.network, canEdit, where, workspace, record]);
}
