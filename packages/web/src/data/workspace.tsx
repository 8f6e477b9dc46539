import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';

/** What stands in the dock at the bottom of the work area. */
export type Dock =
  | {
      form: 'connect';
      aPortId: string | null;
      aDeviceId: string | null;
      bPortId: string | null;
      bDeviceId?: string | null;
    }
  | { form: 'addDevice'; rackId: string | null; unit: number | null; modelId?: string | null }
  | { form: 'trace'; portId: string };

interface Workspace {
  dock: Dock | null;
  setDock: (dock: Dock | null) => void;
  recordOpen: boolean;
  setRecordOpen: (open: boolean) => void;
  stripOpen: boolean;
  setStripOpen: (open: boolean) => void;
  historyOpen: boolean;
  setHistoryOpen: (open: boolean) => void;
  keysOpen: boolean;
  setKeysOpen: (open: boolean) => void;
  /** Where the device being added would stand: shown on the elevation. */
  ghost: Ghost | null;
  setGhost: (ghost: Ghost | null) => void;
}
export interface Ghost {
  rackId: string;
  unit: number;
  units: number;
  side: 'full' | 'left' | 'right';
  name: string;
}
const Context = createContext<Workspace | null>(null);

export function WorkspaceProvider({ children }: { children: ReactNode }): ReactNode {
  const [dock, setDock] = useState<Dock | null>(null);
  const [recordOpen, setRecordOpen] = useState(true);
  const [stripOpen, setStripOpen] = useState(true);
  const [historyOpen, setHistoryOpen] = useState(false);
  const [keysOpen, setKeysOpen] = useState(false);
  const [ghost, setGhost] = useState<Ghost | null>(null);
  const value = useMemo(
    () => ({
      dock,
      setDock,
      recordOpen,
      setRecordOpen,
      stripOpen,
      setStripOpen,
      historyOpen,
      setHistoryOpen,
      keysOpen,
      setKeysOpen,
      ghost,
      setGhost,
    }),
    [dock, recordOpen, stripOpen, historyOpen, keysOpen, ghost],
  );
  return <Context value={value}>{children}</Context>;
}

export function useWorkspace(): Workspace {
  const value = useContext(Context);
  if (value === null) throw new Error('useWorkspace stands outside a WorkspaceProvider');
  return value;
}
