/** Numbers between 0 and 1 that are the same after the same seed (mulberry32). */
export function chance(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/** By how much the heat has fallen after the last step. */
const cooled = 0.02;

export interface Attempt {
  /** By how much the cost changes with it. */
  by: number;
  undo: () => void;
}

/**
 * Simulated annealing: tries one change after another, keeps what is better and, the less the cooler it gets, also what
 * is worse. Calls `best` whenever the cost is lower than ever before.
 *
 * @param attempt makes a change; null where there was none to make
 */
export function anneal(
  attempt: () => Attempt | null,
  best: () => void,
  { steps, heat, random }: { steps: number; heat: number; random: () => number },
): void {
  let cost = 0;
  let least = 0;
  for (let step = 0; step < steps; step++) {
    const warmth = heat * cooled ** (step / steps);
    const made = attempt();
    if (made === null) continue;
    if (made.by > 0 && random() >= Math.exp(-made.by / warmth)) {
      made.undo();
      continue;
    }
    cost += made.by;
    if (cost < least - 1e-9) {
      least = cost;
      best();
    }
  }
}
