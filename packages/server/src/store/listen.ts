import pg from 'pg';
import type { Logger } from 'pino';
import type { ProjectStore } from './projectStore.ts';

/** Hears of writes by other servers on the same database; comes back by itself after the line was down. */
export function listen(
  url: string,
  channel: string,
  instance: string,
  store: ProjectStore,
  log: Logger,
): { stop: () => Promise<void> } {
  let client: pg.Client | null = null;
  let stopped = false;
  let timer: NodeJS.Timeout | null = null;

  const again = (): void => {
    client = null;
    if (!stopped && timer === null) {
      timer = setTimeout(() => {
        timer = null;
        starting = start();
      }, 1000);
    }
  };
  const start = async (): Promise<void> => {
    const fresh = new pg.Client({ connectionString: url, application_name: 'visograph listen' });
    fresh.on('error', (error) => {
      log.warn({ error: error.message }, 'the line that listens to the database broke');
      again();
    });
    fresh.on('end', again);
    fresh.on('notification', ({ payload }) => {
      const note = JSON.parse(payload ?? '{}') as {
        projectId?: string;
        line?: string | null;
        instance?: string;
      };
      if (note.instance === instance || note.projectId === undefined) return;
      store
        .notice(note.projectId, note.line ?? null)
        .catch((error: unknown) => log.error({ error: String(error) }, 'could not follow another server'));
    });
    try {
      await fresh.connect();
      client = fresh;
      if (stopped) return;
      await fresh.query(`LISTEN ${channel}`);
      await store.noticeAll();
    } catch (error) {
      log.warn({ error: String(error) }, 'cannot listen to the database');
      again();
    }
  };
  let starting = start();
  return {
    stop: async () => {
      stopped = true;
      if (timer !== null) clearTimeout(timer);
      // Whoever stops while the line is being opened waits until it can be closed.
      await starting;
      await client?.end().catch(() => undefined);
    },
  };
}
