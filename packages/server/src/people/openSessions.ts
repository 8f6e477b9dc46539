import type { Answer } from '@visograph/api';
import Bowser from 'bowser';
import type { Knex } from 'knex';
import { createHash } from 'node:crypto';
import { tellAccess } from './accessNews.ts';

interface Kept {
  sid: string;
  sess: { accountId?: string; since?: string; agent?: string };
  expire: Date;
}

/** Names a session without telling what opens it: a UUID (RFC 9562, version 8) made of its digest. */
function nameOf(sid: string): string {
  const hex = createHash('sha256').update(`session ${sid}`).digest('hex');
  return [
    hex.slice(0, 8),
    hex.slice(8, 12),
    `8${hex.slice(13, 16)}`,
    `8${hex.slice(17, 20)}`,
    hex.slice(20, 32),
  ].join('-');
}

/** The program of a session in words, as far as it says what it is. */
function programOf(agent: string | undefined): string | null {
  if (agent === undefined || agent === '') return null;
  const { browser, os } = Bowser.parse(agent);
  const name = [browser.name, browser.version?.split('.')[0]].filter(Boolean).join(' ');
  return name === '' ? agent.slice(0, 60) : os.name === undefined ? name : `${name}, ${os.name}`;
}

const of = (knex: Knex, accountId: string): Promise<Kept[]> =>
  knex<Kept>('session')
    .whereRaw(`sess ->> 'accountId' = ?`, [accountId])
    .where('expire', '>', knex.raw('LOCALTIMESTAMP'))
    .select('sid', 'sess', knex.raw(`expire AT TIME ZONE current_setting('TimeZone') AS expire`));

/** Where a person is signed in, the latest first. */
export async function openSessions(
  knex: Knex,
  accountId: string,
  own: string,
): Promise<Answer<'GET /account/sessions'>> {
  const kept = await of(knex, accountId);
  return kept
    .map(({ sid, sess, expire }) => ({
      ...{ id: nameOf(sid), own: sid === own, program: programOf(sess.agent) },
      since: sess.since ?? null,
      until: expire.toISOString(),
    }))
    .sort((a, b) => (b.since ?? '').localeCompare(a.since ?? '') || a.id.localeCompare(b.id));
}

/** Ends sessions of a person, and closes their open lines at every server. @returns how many there were */
export async function endSessions(
  transaction: Knex.Transaction,
  accountId: string,
  which: { but: string | null } | { named: string },
): Promise<number> {
  const kept = await of(transaction, accountId);
  const ended = kept.filter(({ sid }) => ('but' in which ? sid !== which.but : nameOf(sid) === which.named));
  await transaction('session')
    .whereIn(
      'sid',
      ended.map(({ sid }) => sid),
    )
    .delete();
  for (const { sid } of ended) await tellAccess(transaction, { accountId, projectId: null, session: sid });
  return ended.length;
}
