import type { FitPlan, PlateFact } from '@visograph/core/racks';
import type { ColourBy } from '@visograph/core/sheets';
import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';
import type { Faces } from './benchLayout.ts';

/** How the racks are shown and what is being done with them: lives as long as the bench is open. */
export interface Bench {
  faces: Faces;
  setFaces: (faces: Faces) => void;
  colour: ColourBy;
  setColour: (colour: ColourBy) => void;
  /** Whether cables are drawn on the faces. */
  cables: boolean;
  setCables: (cables: boolean) => void;
  fact: PlateFact | null;
  setFact: (fact: PlateFact | null) => void;
  /** Devices chosen together; the selection of the record is one of them. */
  chosen: ReadonlySet<string>;
  setChosen: (chosen: ReadonlySet<string>) => void;
  gearOpen: boolean;
  setGearOpen: (open: boolean) => void;
  panel: 'fit' | 'where' | 'feeds' | null;
  setPanel: (panel: Bench['panel']) => void;
  /** What is proposed at the moment, shown as ghosts. */
  plan: FitPlan | null;
  setPlan: (plan: FitPlan | null) => void;
  /** The feed that is thought to have failed. */
  deadFeed: string | null;
  setDeadFeed: (feed: string | null) => void;
}
const Context = createContext<Bench | null>(null);

export function BenchProvider({ wide, children }: { wide: boolean; children: ReactNode }): ReactNode {
  const [faces, setFaces] = useState<Faces>(wide ? 'front' : 'both');
  const [colour, setColour] = useState<ColourBy>('role');
  const [cables, setCables] = useState(false);
  const [fact, setFact] = useState<PlateFact | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [gearOpen, setGearOpen] = useState(false);
  const [panel, setPanel] = useState<Bench['panel']>(null);
  const [plan, setPlan] = useState<FitPlan | null>(null);
  const [deadFeed, setDeadFeed] = useState<string | null>(null);
  const value = useMemo<Bench>(
    () => ({
      faces,
      setFaces,
      colour,
      setColour,
      cables,
      setCables,
      fact,
      setFact,
      chosen,
      setChosen,
      gearOpen,
      setGearOpen,
      panel,
      setPanel,
      plan,
      setPlan,
      deadFeed,
      setDeadFeed,
    }),
    [faces, colour, cables, fact, chosen, gearOpen, panel, plan, deadFeed],
  );
  return <Context value={value}>{children}</Context>;
}

export function useBench(): Bench {
  const value = useContext(Context);
  if (value === null) throw new Error('useBench stands outside a BenchProvider');
  return value;
}
