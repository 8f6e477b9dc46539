import { createHash, randomBytes } from 'node:crypto';

/** What of a key is kept: whoever reads the database cannot use the link. The key has 256 bits, so no salt is needed. */
export const keyHash = (key: string): string => createHash('sha256').update(key).digest('base64url');

/** A key for a link that works once. */
export function oneTimeKey(): { key: string; hash: string } {
  const key = randomBytes(32).toString('base64url');
  return { key, hash: keyHash(key) };
}

const hour = 60 * 60 * 1000;
/** How long a link lives, in milliseconds. */
export const lives = { invitation: 7 * 24 * hour, mailedReset: hour, handedReset: 24 * hour };
export const after = (milliseconds: number): Date => new Date(Date.now() + milliseconds);
