import { findingsOf, type Finding } from '@visograph/core/check';
import { Network, takeSteps, withSteps, type NetworkDraft, type Touched } from '@visograph/core/model';

/** A network comes in pieces and is then carried on by what is touched; each is judged and answered by its number. */
export type JudgeRequest =
  | { type: 'begin' }
  | { type: 'more'; steps: readonly Touched[] }
  | { type: 'judge'; id: number; steps: readonly Touched[] };
export type JudgeReply = { id: number; findings: readonly Finding[] } | { id: number; failed: string };

/** While it comes. */
let draft: NetworkDraft | null = null;
let network = Network.empty();

/** Checks away from the screen, which never waits for them. */
export function takeIn(request: JudgeRequest): JudgeReply | null {
  if (request.type === 'begin') {
    draft = Network.empty().draft();
    return null;
  }
  if (request.type === 'more') {
    if (draft !== null) takeSteps(draft, request.steps);
    return null;
  }
  const { id, steps } = request;
  try {
    if (draft !== null) network = draft.finish();
    draft = null;
    network = withSteps(network, steps);
    return { id, findings: findingsOf(network) };
  } catch (error) {
    return { id, failed: error instanceof Error ? error.message : String(error) };
  }
}

self.onmessage = ({ data }: MessageEvent<JudgeRequest>): void => {
  const reply = takeIn(data);
  if (reply !== null) self.postMessage(reply);
};
