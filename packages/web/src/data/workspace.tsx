import { createContext, useCallback, useContext, useMemo, useRef, useState, type ReactNode } from 'react';

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

/**
 * What a key asks of a part of the page: the line to be typed into, the name of what is selected to be edited in its
 * record or where it is drawn, what is selected to be joined to something on the drawing.
 */
export type Ask = 'command line' | 'name' | 'plate name' | 'join';

/** A model to be opened in the editor, or a variant of it. */
export interface ModelEdit {
  modelId: string;
  variant: boolean;
}

/** The record comes with what is chosen on a drawing, stays beside it, or was closed. */
export const recordManners = ['comes', 'stays', 'closed'] as const;
export type RecordManner = (typeof recordManners)[number];
const recordKey = 'visograph.record';
const keptManner = (): RecordManner =>
  recordManners.find((manner) => manner === localStorage.getItem(recordKey)) ?? 'comes';

interface Workspace {
  /** Whether anything answered. */
  ask: (what: Ask) => boolean;
  /** Answers from now on, until what it gives is called; false: it has nothing to say just now. */
  onAsk: (what: Ask, answer: () => unknown) => () => void;
  /** Asked by a record and taken by the catalogue. */
  modelEdit: ModelEdit | null;
  setModelEdit: (wish: ModelEdit | null) => void;
  dock: Dock | null;
  setDock: (dock: Dock | null) => void;
  recordManner: RecordManner;
  setRecordManner: (manner: RecordManner) => void;
  /** Looked at for once, although nothing is chosen on the drawing. */
  recordPeeked: boolean;
  setRecordPeeked: (peeked: boolean) => void;
  stripOpen: boolean;
  setStripOpen: (open: boolean) => void;
  historyOpen: boolean;
  setHistoryOpen: (open: boolean) => void;
  /** Sections as a drawer, on a window no wider than a tablet's. */
  railOpen: boolean;
  setRailOpen: (open: boolean) => void;
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
  const [modelEdit, setModelEdit] = useState<ModelEdit | null>(null);
  const [recordManner, keepManner] = useState(keptManner);
  const setRecordManner = useCallback((manner: RecordManner): void => {
    localStorage.setItem(recordKey, manner);
    keepManner(manner);
  }, []);
  const [recordPeeked, setRecordPeeked] = useState(false);
  const [stripOpen, setStripOpen] = useState(false);
  const [historyOpen, setHistoryOpen] = useState(false);
  const [keysOpen, setKeysOpen] = useState(false);
  const [railOpen, setRailOpen] = useState(false);
  const [ghost, setGhost] = useState<Ghost | null>(null);
  const answers = useRef(new Map<Ask, Set<() => unknown>>());
  const onAsk = useCallback<Workspace['onAsk']>((what, answer) => {
    const known = answers.current.get(what) ?? new Set();
    answers.current.set(what, known.add(answer));
    return () => void known.delete(answer);
  }, []);
  const ask = useCallback<Workspace['ask']>((what) => {
    let answered = false;
    for (const answer of answers.current.get(what) ?? []) answered = answer() !== false || answered;
    return answered;
  }, []);
  const value = useMemo(
    () => ({
      ask,
      onAsk,
      modelEdit,
      setModelEdit,
      dock,
      setDock,
      recordManner,
      setRecordManner,
      recordPeeked,
      setRecordPeeked,
      stripOpen,
      setStripOpen,
      historyOpen,
      setHistoryOpen,
      railOpen,
      setRailOpen,
      keysOpen,
      setKeysOpen,
      ghost,
      setGhost,
    }),
    [
      ask,
      onAsk,
      modelEdit,
      dock,
      recordManner,
      setRecordManner,
      recordPeeked,
      stripOpen,
      historyOpen,
      railOpen,
      keysOpen,
      ghost,
    ],
  );
  return <Context value={value}>{children}</Context>;
}

export function useWorkspace(): Workspace {
  const value = useContext(Context);
  if (value === null) throw new Error('useWorkspace stands outside a WorkspaceProvider');
  return value;
}
