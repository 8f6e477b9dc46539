import {
  nothingObserved,
  observedAccount,
  observedItems,
  observedLists,
  type ObservedAccount,
  type ObservedList,
} from '@visograph/core/cloud';
import { z } from 'zod';
import { Refusal } from '../http/problem.ts';

/** Where an account is, and as whom it is read. */
export interface AccountAt {
  url: string;
  client: string;
  secret: string;
}
export interface Reading {
  tell: (done: number, of: number) => void;
  /** How long one answer may take, in milliseconds. */
  patience?: number;
  /** How long is waited before something is asked again, in milliseconds; each time twice as long. */
  pause?: number;
}

const usualPatience = 20_000;
const usualPause = 250;
const mostTries = 3;
/** More items than this are not read, nor larger answers. */
const mostItems = 500_000;
const mostBytes = 32 * 1024 * 1024;
const pageLimit = 1000;

const tokenSchema = z.object({ token: z.string().min(1).max(4000) });
const countsSchema = z.record(z.string(), z.int().min(0));
const pageSchema = z.object({
  items: z.array(z.unknown()).max(10_000),
  next: z.string().max(1000).nullable(),
});

const refused = (detail: string): Refusal => new Refusal(422, 'The account cannot be read', detail);

/** One reading of an account: signs in, and again where a token has expired in the middle. */
class Reader {
  private token: string | null = null;

  constructor(
    private readonly at: AccountAt,
    private readonly patience: number,
    private readonly pause: number,
  ) {}

  /** What is answered, or null where it may be asked again. */
  private async once(path: string, init: RequestInit): Promise<{ status: number; body: unknown } | null> {
    try {
      const response = await fetch(`${this.at.url}${path}`, {
        ...init,
        redirect: 'error',
        signal: AbortSignal.timeout(this.patience),
      });
      if (response.status >= 500 || response.status === 429) return null;
      if (Number(response.headers.get('content-length') ?? 0) > mostBytes)
        throw refused(`The answer to ${path} is larger than ${mostBytes / 1024 / 1024} MB.`);
      const text = await response.text();
      try {
        return { status: response.status, body: JSON.parse(text) };
      } catch {
        return { status: response.status, body: undefined };
      }
    } catch (error) {
      if (error instanceof Refusal) throw error;
      if (error instanceof DOMException && error.name === 'TimeoutError')
        throw refused(
          `${this.at.url} did not answer ${path} within ${this.patience / 1000} s. Nothing was changed; read it again later.`,
        );
      return null;
    }
  }

  private async ask(path: string, init: RequestInit): Promise<{ status: number; body: unknown }> {
    for (let tries = 1; tries <= mostTries; tries++) {
      const answer = await this.once(path, init);
      if (answer !== null) return answer;
      if (tries < mostTries) await new Promise((done) => setTimeout(done, this.pause * 2 ** (tries - 1)));
    }
    throw refused(
      `${this.at.url} gave no whole answer to ${path}, asked ${mostTries} times. Nothing was changed; read it again later.`,
    );
  }

  private async signIn(): Promise<string> {
    const { client, secret } = this.at;
    const { status, body } = await this.ask('/token', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ client, secret }),
    });
    if (status === 401)
      throw refused(`The account does not take the client ${client} with its secret. Set them anew.`);
    const read = tokenSchema.safeParse(body);
    if (!read.success) throw refused(`${this.at.url} answers sign-in with something that is no token.`);
    return read.data.token;
  }

  /** The answer to a call that needs a token. */
  async get(path: string): Promise<unknown> {
    // Signed in anew where a token has expired; once, for one that is refused at once will be so again.
    for (const again of [true, false]) {
      this.token ??= await this.signIn();
      const { status, body } = await this.ask(path, { headers: { Authorization: `Bearer ${this.token}` } });
      if (status === 401 && again) this.token = null;
      else if (status === 200) return body;
      else throw refused(`${this.at.url} answers ${path} with ${status}.`);
    }
    throw refused(`${this.at.url} refuses ${path} with a token that it has just given.`);
  }
}

const whatIsWrong = (list: ObservedList, at: number, error: z.ZodError): string => {
  const [issue] = error.issues;
  const field = issue?.path.join('.') ?? '';
  return `Item ${at + 1} of ${list} is not what the account describes: ${field === '' ? '' : `${field}: `}${issue?.message ?? 'cannot be read'}. Nothing was changed.`;
};

/**
 * Reads all of an account, list by list and page by page.
 *
 * @throws Refusal what went wrong, where, and that nothing was changed
 */
export async function readAccount(
  at: AccountAt,
  { tell, patience = usualPatience, pause = usualPause }: Reading,
): Promise<ObservedAccount> {
  const reader = new Reader(at, patience, pause);
  const counts = countsSchema.safeParse(await reader.get('/counts'));
  const of = counts.success ? observedLists.reduce((sum, list) => sum + (counts.data[list] ?? 0), 0) : 0;
  const found: Record<ObservedList, unknown[]> = nothingObserved();
  let done = 0;
  tell(done, Math.max(1, of));
  for (const list of observedLists) {
    const asked = new Set<string>();
    for (let after: string | null = ''; after !== null;) {
      if (asked.has(after)) throw refused(`The pages of ${list} lead in a circle. Nothing was changed.`);
      asked.add(after);
      const from = after === '' ? '' : `&after=${encodeURIComponent(after)}`;
      const page = pageSchema.safeParse(await reader.get(`/${list}?limit=${pageLimit}${from}`));
      if (!page.success)
        throw refused(`A page of ${list} is not what the account describes. Nothing was changed.`);
      page.data.items.forEach((item, position) => {
        const read = observedItems[list].safeParse(item);
        if (!read.success) throw refused(whatIsWrong(list, found[list].length + position, read.error));
      });
      found[list].push(...page.data.items);
      done += page.data.items.length;
      if (done > mostItems) throw refused(`The account holds more than ${mostItems} things.`);
      tell(done, Math.max(done, of));
      after = page.data.next;
    }
  }
  return observedAccount.parse(found);
}
