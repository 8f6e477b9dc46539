/** The process that does jobs, one after the other, for the server that started it. */
import { newId } from '@visograph/core/model';
import { setPriority } from 'node:os';
import { pino } from 'pino';
import { connect } from '../database/connect.ts';
import { JobRow } from '../database/rows.ts';
import { Refusal, problemDocument } from '../http/problem.ts';
import { fault, refusalOf } from '../http/refusals.ts';
import type { Base } from '../http/route.ts';
import { listen } from '../store/listen.ts';
import { ProjectStore, storeChannel } from '../store/projectStore.ts';
import { jobHandlers } from './jobHandlers.ts';
import type { Order, Report } from './messages.ts';
import { perform, type Outcome } from './perform.ts';

/** Below the server that answers people. */
const niceness = 10;
try {
  setPriority(niceness);
} catch {
  // Not every system lets it.
}

const databaseUrl = process.env['DATABASE_URL'] ?? '';
const log = pino({ level: process.env['VISOGRAPH_LOG'] ?? 'warn' });
// What a job asks of the database ends with the job, also where its process was ended and nobody waits any more.
const seconds = Number(process.env['VISOGRAPH_JOB_SECONDS'] ?? '120');
const knex = connect(databaseUrl, { application: 'visograph job', most: 3, patience: seconds * 1000 });
const instance = newId();
const store = new ProjectStore(knex, storeChannel, instance);
listen(databaseUrl, `visograph job ${instance}`, log, {
  channels: { [storeChannel]: (note) => store.heard(note) },
  opened: () => store.noticeAll(),
});
const services: Base = { knex, store, log, exampleFile: process.env['VISOGRAPH_DEMO'] || null };

const report = (message: Report): void => void process.send?.(message);

/** It was stopped: nobody waits for what comes of it. */
class Stopped extends Error {}

async function keep(id: string, outcome: Outcome | Refusal): Promise<void> {
  const ended = { input: null, endedAt: new Date() };
  const rows = JobRow.query(knex).findById(id).whereIn('state', ['running', 'writing']);
  if (outcome instanceof Refusal)
    await rows.patch({ ...ended, state: 'failed', refusal: problemDocument(outcome, id) });
  else {
    const { bytes, type, name } = outcome;
    const result = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    await rows.patch({ ...ended, state: 'done', result, resultType: type, resultName: name });
  }
}

async function outcomeOf(id: string): Promise<Outcome | Refusal | null> {
  try {
    const row = await JobRow.query(knex).findById(id).where({ state: 'running' });
    if (row === undefined) return null;
    return await perform(services, jobHandlers, row, {
      tell: (done, of) => report({ type: 'told', job: id, done, of }),
      beginWriting: async () => {
        const mine = await JobRow.query(knex).patch({ state: 'writing' }).where({ id, state: 'running' });
        if (mine === 0) throw new Stopped();
      },
    });
  } catch (error) {
    if (error instanceof Stopped) return null;
    const refusal = refusalOf(error);
    if (refusal === null)
      log.error({ job: id, error: error instanceof Error ? error.stack : String(error) }, 'job failed');
    return refusal ?? fault(id);
  }
}

process.on('message', ({ run }: Order) => {
  void (async () => {
    const outcome = await outcomeOf(run);
    if (outcome !== null) await keep(run, outcome);
    report({ type: 'ended', job: run });
  })().catch((error: unknown) => {
    // What came of it cannot be kept: whoever waits is told by the end of the process.
    log.error({ job: run, error: String(error) }, 'the job cannot be kept');
    process.exit(1);
  });
});
// Nobody is left to work for.
process.on('disconnect', () => process.exit(0));
