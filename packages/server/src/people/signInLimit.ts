import type { Knex } from 'knex';
import { createHash } from 'node:crypto';
import { RateLimiterMemory, RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { Refusal } from '../http/problem.ts';
import { addressKey } from './addressKey.ts';

const minutes = 15;
/** One place tries as many names, and many places one name, as often as this before they are kept waiting. */
const share = 5;

const hashed = (text: string): string => createHash('sha256').update(text).digest('base64url');

/**
 * Failed sign-ins, counted in the database for all servers on it: of one source at one account, of one source at
 * any accounts, of any sources at one account.
 */
export class SignInLimit {
  private readonly limits: {
    limiter: RateLimiterPostgres;
    key: (source: string, account: string) => string;
  }[];

  constructor(
    knex: Knex,
    tries: number,
    private readonly counts: { prefix: string; what: string } = { prefix: '', what: 'failed sign-ins' },
  ) {
    const limiter = (keyPrefix: string, points: number): RateLimiterPostgres => {
      const manners = { keyPrefix: `${counts.prefix}${keyPrefix}`, points, duration: minutes * 60 };
      return new RateLimiterPostgres({
        ...manners,
        storeClient: knex,
        storeType: 'knex',
        tableName: 'sign_in_try',
        tableCreated: true,
        clearExpiredByTimeout: false,
        // While the database is away each server counts by itself.
        insuranceLimiter: new RateLimiterMemory(manners),
      });
    };
    this.limits = [
      { limiter: limiter('both', tries), key: (source, account) => hashed(`${source} ${account}`) },
      { limiter: limiter('source', tries * share), key: (source) => hashed(source) },
      { limiter: limiter('account', tries * share), key: (_source, account) => hashed(account) },
    ];
  }

  /**
   * Counts a try before it is judged, so that many at once are counted too; one that was right is taken back.
   *
   * @throws Refusal 429 with how long to wait
   */
  async take(source: string, email: string): Promise<{ wasRight: () => Promise<void> }> {
    const account = addressKey(email);
    for (const { limiter, key } of this.limits) {
      try {
        await limiter.consume(key(source, account));
      } catch (error) {
        if (!(error instanceof RateLimiterRes)) throw error;
        const wait = Math.max(1, Math.ceil(error.msBeforeNext / 60_000));
        throw new Refusal(
          429,
          'Too many tries',
          `Too many ${this.counts.what}. Wait ${wait} ${wait === 1 ? 'minute' : 'minutes'} and try again.`,
        );
      }
    }
    return {
      wasRight: async () => {
        const [both, ...others] = this.limits;
        await both?.limiter.delete(both.key(source, account));
        for (const { limiter, key } of others) await limiter.reward(key(source, account));
      },
    };
  }
}
