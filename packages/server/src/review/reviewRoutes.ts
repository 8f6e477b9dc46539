import {
  freshIn,
  isDay,
  isFound,
  reviewOf,
  rulesByKey,
  toldInOrder,
  type Day,
  type Review,
} from '@visograph/core/check';
import { notFound, Refusal } from '../http/problem.ts';
import type { JobHandlers } from '../http/route.ts';
import { revisionOf } from '../project/projectRoutes.ts';
import { findOrigin } from './findOrigin.ts';

/** The day that a query names, or today in UTC. @throws Refusal 400 for what is no day */
function dayAsked(text: string | null): Day {
  if (text === null) return new Date().toISOString().slice(0, 10);
  if (isDay(text)) return text;
  throw new Refusal(
    400,
    'The request is not understood',
    `on is ${text.slice(0, 20)}, not a day such as 2027-03-01.`,
  );
}

/** What a review tells: what is to be mended, and what is meant where that is asked for. */
const listed = ({ open, meant }: Review, waived: boolean) => (waived ? [...open, ...meant] : open);

export const reviewHandlers = {
  'GET /projects/:project/findings': async (call) => {
    const day = dayAsked(call.query('on'));
    const since = revisionOf('since', call.query('since'));
    const { network } = await call.network();
    const now = reviewOf(network, day);
    const waived = call.query('waived') === '1';
    if (since === null) return toldInOrder(network, listed(now, waived)).map(({ told }) => told);
    const then = reviewOf((await call.networkAt(since)).network, day);
    return toldInOrder(network, freshIn(then, now)).map(({ told }) => told);
  },
  'POST /projects/:project/findings/origin': async ({ body, network, projectId, services, tell }) => {
    const rule = rulesByKey.get(body.rule);
    if (rule === undefined) throw notFound(`The rule ${body.rule}`);
    const meant = await network();
    const sought = { rule, about: body.about };
    if (!isFound(meant.network, sought)) throw notFound('Such a finding');
    return findOrigin(services.store, projectId, meant, sought, tell);
  },
} satisfies Partial<JobHandlers>;
