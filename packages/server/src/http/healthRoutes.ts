import { setTimeout as wait } from 'node:timers/promises';
import type { Handlers } from './route.ts';

/** Milliseconds after which what does not answer is missing. */
const patience = 800;

const within = async (work: Promise<unknown>): Promise<boolean> => {
  const settled = work.then(
    () => true,
    () => false,
  );
  return Promise.race([settled, wait(patience, false)]);
};

export const healthHandlers = {
  'GET /health': async () => ({ status: 'ok' as const }),
  'GET /ready': async ({ response, services }) => {
    const [database, jobs] = await Promise.all([
      within(services.knex.raw('SELECT 1')),
      within(services.jobs.open()),
    ]);
    const ready = database && jobs;
    if (!ready) response.status(503).set('Retry-After', '2');
    return { ready, database, jobs };
  },
} satisfies Partial<Handlers>;
