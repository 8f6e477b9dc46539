import { turnedRound, type Network, type NetworkDraft, type Touched } from './network.ts';

/** So many networks back a common one is sought. */
const mostSteps = 50;

/** A network and those that it was made from, the nearest first, as far as they are still there. */
export function ancestors(network: Network, most = mostSteps): Network[] {
  const found = [network];
  for (
    let at = network.origin?.base.deref();
    at !== undefined && found.length < most;
    at = at.origin?.base.deref()
  )
    found.push(at);
  return found;
}

const undone = (touched: readonly Touched[]): Touched[] => [...touched].reverse().map(turnedRound);

/**
 * What to do to one network so that it becomes another, by way of what both were made from; null where that is not
 * known any more, or was too much to remember.
 */
export function stepsBetween(from: Network, to: Network): Touched[] | null {
  const back = ancestors(from);
  const forward = ancestors(to);
  const meeting = forward.find((one) => back.includes(one));
  if (meeting === undefined) return null;
  const touchedDownTo = (path: readonly Network[]): (readonly Touched[])[] =>
    path.slice(0, path.indexOf(meeting)).map(({ origin }) => origin?.touched ?? []);
  return [...touchedDownTo(back).flatMap(undone), ...touchedDownTo(forward).reverse().flat()];
}

/** Does steps to a network that is being changed. */
export function takeSteps(draft: NetworkDraft, steps: readonly Touched[]): void {
  for (const { kind, before, after } of steps) {
    if (after !== null) draft.put(kind, after);
    else if (before !== null) draft.drop(kind, before.id);
  }
}

/** A network with these steps done to it. */
export function withSteps(network: Network, steps: readonly Touched[]): Network {
  if (steps.length === 0) return network;
  const draft = network.draft(new Set(steps.map(({ kind }) => kind)));
  takeSteps(draft, steps);
  return draft.finish();
}
