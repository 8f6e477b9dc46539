import type { Knex } from 'knex';
import { z } from 'zod';
import { notFound, Refusal } from '../http/problem.ts';
import type { AccountAt } from './accountReader.ts';
import { opened, sealed } from './secrets.ts';

/** What is set from outside: what may be read, and by which key credentials are kept. */
export interface FieldSettings {
  /** Origins that the server may read from; others it does not call. */
  origins: readonly string[];
  /** 32 bytes; null: no credentials are kept. */
  key: Buffer | null;
}

const keyText = z.string().regex(/^[0-9a-f]{64}$/i);
/** The settings as the environment has them, for the web process and those that do jobs. */
export function fieldSettings(env: Readonly<Record<string, string | undefined>>): FieldSettings {
  const key = keyText.safeParse(env['VISOGRAPH_SECRET_KEY']);
  return {
    origins: (env['VISOGRAPH_FIELD_ORIGINS'] ?? '')
      .split(',')
      .map((part) => part.trim())
      .filter((part) => part !== ''),
    key: key.success ? Buffer.from(key.data, 'hex') : null,
  };
}

export interface SourceRow {
  projectId: string;
  placeId: string;
  url: string;
  client: string;
  secret: Buffer;
  madeBy: string;
  madeAt: Date;
}
type Of = Pick<SourceRow, 'projectId' | 'placeId'>;

const table = 'account_source';
const boundTo = ({ projectId, placeId }: Of): string => `${projectId} ${placeId}`;

/** Where the accounts of projects are read from. A secret is kept encrypted, and is told to nobody. */
export class AccountSources {
  constructor(
    private readonly knex: Knex,
    private readonly field: FieldSettings,
  ) {}

  async find(of: Of): Promise<Omit<SourceRow, 'secret'> | null> {
    const row = await this.knex<SourceRow>(table)
      .where(of)
      .first('projectId', 'placeId', 'url', 'client', 'madeBy', 'madeAt');
    return row ?? null;
  }

  /** @throws Refusal where it may not be read from, or nothing can be kept */
  async set(of: Of, by: string, { url, client, secret }: AccountAt): Promise<void> {
    this.allowed(url);
    if (this.field.key === null)
      throw new Refusal(
        409,
        'Credentials cannot be kept',
        'This server has no key for them. Whoever runs it sets VISOGRAPH_SECRET_KEY to 64 hexadecimal digits.',
      );
    const box = sealed(this.field.key, secret, boundTo(of));
    await this.knex<SourceRow>(table)
      .insert({ ...of, url, client, secret: box, madeBy: by, madeAt: new Date() })
      .onConflict(['projectId', 'placeId'])
      .merge();
  }

  async forget(of: Of): Promise<void> {
    await this.knex<SourceRow>(table).where(of).delete();
  }

  /** Where the account is, with its secret: for the reading alone. @throws Refusal */
  async open(of: Of): Promise<AccountAt> {
    const row = await this.knex<SourceRow>(table).where(of).first();
    if (row === undefined) throw notFound('The source of this account');
    this.allowed(row.url);
    const secret = this.field.key === null ? null : opened(this.field.key, row.secret, boundTo(of));
    if (secret === null)
      throw new Refusal(
        409,
        'The credentials cannot be read',
        'They were kept with another key than this server has now. Give the secret again.',
      );
    return { url: row.url, client: row.client, secret };
  }

  private allowed(url: string): void {
    const { origin } = new URL(url);
    if (!this.field.origins.includes(origin))
      throw new Refusal(
        422,
        'The account cannot be read',
        `This server does not read from ${origin}. Whoever runs it adds that to VISOGRAPH_FIELD_ORIGINS.`,
      );
  }
}
