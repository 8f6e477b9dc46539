import { lanes, type Lane } from '@visograph/api';
import type { Knex } from 'knex';
import PgBoss from 'pg-boss';
import type { Logger } from 'pino';
import type { PoolClient } from 'pg';

/** How long a job of each lane may take, in seconds. */
export const timeLimits: Readonly<Record<Lane, number>> = { short: 120, long: 1800 };

interface Holder {
  acquireConnection: () => Promise<PoolClient>;
}
/** The transaction's own connection: what goes through it stands or falls with it. */
const within = (transaction: Knex.Transaction): PgBoss.Db => ({
  executeSql: async (text, values) => {
    const client = await (transaction.client as Holder).acquireConnection();
    return client.query(text, values);
  },
});

/** The queue in PostgreSQL: of each person the first job of each lane, in the order in which they came. */
export class JobQueue {
  private opening: Promise<PgBoss> | null = null;

  constructor(
    private readonly knex: Knex,
    private readonly databaseUrl: string,
    private readonly log: Logger,
  ) {}

  /** Makes the tables of the queue where they are missing; done once, at the first use, and again where it failed. */
  async open(): Promise<void> {
    await this.boss();
  }

  private boss(): Promise<PgBoss> {
    this.opening ??= this.start().catch((error: unknown) => {
      this.opening = null;
      throw error;
    });
    return this.opening;
  }

  private async start(): Promise<PgBoss> {
    const boss = new PgBoss({
      connectionString: this.databaseUrl,
      application_name: 'visograph jobs',
      max: 2,
      schedule: false,
      archiveCompletedAfterSeconds: 3600,
      archiveFailedAfterSeconds: 3600,
      deleteAfterHours: 2,
    });
    boss.on('error', (error) => this.log.warn({ error: error.message }, 'the queue of jobs'));
    try {
      // One server at a time: two that make the tables of one queue together stand in each other's way.
      await this.knex.transaction(async (transaction) => {
        await transaction.raw('SELECT pg_advisory_xact_lock(7136407)');
        await boss.start();
        for (const name of lanes)
          await boss.createQueue(name, { name, expireInSeconds: timeLimits[name] + 60, retryLimit: 5 });
      });
      return boss;
    } catch (error) {
      await boss.stop({ graceful: false, wait: true }).catch(() => undefined);
      throw error;
    }
  }

  /** Puts a job into the queue, in the caller's transaction. */
  async send(transaction: Knex.Transaction, lane: Lane, id: string): Promise<void> {
    await (await this.boss()).send(lane, {}, { id, db: within(transaction) });
  }

  /** The next job of a lane, which is then nobody else's, in the caller's transaction; null: none waits. */
  async fetch(transaction: Knex.Transaction, lane: Lane): Promise<string | null> {
    const [job] = await (await this.boss()).fetch(lane, { batchSize: 1, db: within(transaction) });
    return job?.id ?? null;
  }

  async complete(lane: Lane, id: string): Promise<void> {
    await (await this.boss()).complete(lane, id);
  }

  /** Whoever had taken it is gone: it is taken once more, once the caller's transaction is through. */
  async again(transaction: Knex.Transaction, lane: Lane, id: string): Promise<void> {
    await (await this.boss()).fail(lane, id, { why: 'the server ended' }, { db: within(transaction) });
  }

  async close(): Promise<void> {
    const boss = await this.opening?.catch(() => null);
    await boss?.stop({ graceful: false, wait: true });
  }
}
