import pg from 'pg';
import type { Logger } from 'pino';

interface Heard {
  /** What is told on each channel, as JSON. */
  channels: { readonly [channel: string]: (note: unknown) => Promise<void> | void };
  /** Run whenever the line stands: what was told while it was down is not told again. */
  opened: () => Promise<void>;
}

/**
 * Hears what servers on the same database tell each other; comes back by itself after the line was down. The
 * session bears a name, by which others see that this process lives.
 */
export function listen(
  url: string,
  application: string,
  log: Logger,
  { channels, opened }: Heard,
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
  const hear = async (channel: string, payload: string | undefined): Promise<void> => {
    await channels[channel]?.(JSON.parse(payload ?? '{}'));
  };
  const start = async (): Promise<void> => {
    const fresh = new pg.Client({ connectionString: url, application_name: application });
    fresh.on('error', (error) => {
      log.warn({ error: error.message }, 'the line that listens to the database broke');
      again();
    });
    fresh.on('end', again);
    fresh.on('notification', ({ channel, payload }) => {
      hear(channel, payload).catch((error: unknown) =>
        log.error({ error: String(error) }, 'could not follow another server'),
      );
    });
    try {
      await fresh.connect();
      client = fresh;
      if (stopped) return;
      for (const channel of Object.keys(channels)) await fresh.query(`LISTEN ${channel}`);
      await opened();
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
