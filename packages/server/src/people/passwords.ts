import { hash, verify } from '@node-rs/argon2';

/** Argon2id with the parameters of RFC 9106's second choice, lowered to 19 MiB for interactive use. */
const cost = { memoryCost: 19456, timeCost: 2, parallelism: 1 };

export const hashPassword = (password: string): Promise<string> => hash(password, cost);

let decoy: Promise<string> | null = null;

/** In place of a hash, for an account whose person has not set a password yet: none opens it. */
export const noPassword = 'none';

/** Checks a password; takes as long for an account that is not there, or that none opens. */
export async function checkPassword(stored: string | null, password: string): Promise<boolean> {
  decoy ??= hashPassword('nobody has this password');
  const known = stored !== null && stored !== noPassword;
  const right = await verify(known ? stored : await decoy, password).catch(() => false);
  return right && known;
}
