import { LineProblem } from '../plans/lineProblem.ts';
import { isAway, sqlState } from '../database/away.ts';
import { Refusal } from './problem.ts';

const readable = (bytes: number): string =>
  bytes >= 1024 * 1024 ? `${Math.round(bytes / 1024 / 1024)} MB` : `${Math.round(bytes / 1024)} kB`;

export const databaseAway = (): Refusal =>
  new Refusal(
    503,
    'The database does not answer',
    'The database cannot be reached at the moment. What you did is kept here and sent again.',
  );

/** What an error means to whoever called; null: a fault of our own. */
export function refusalOf(error: unknown): Refusal | null {
  if (error instanceof Refusal) return error;
  if (error instanceof LineProblem)
    return error.reason === 'absent'
      ? new Refusal(404, 'Not found', error.message)
      : new Refusal(410, 'The plan was thrown away', error.message);
  const { type, status, limit } = error as {
    type?: string;
    status?: number;
    limit?: number;
  };
  if (type === 'entity.too.large')
    return new Refusal(
      413,
      'Too large',
      `What was sent is larger than the ${readable(limit ?? 0)} that this call takes. Split it and send the parts.`,
    );
  if (status !== undefined && status >= 400 && status < 500)
    return new Refusal(status, 'The request is not understood', 'The request cannot be read.');
  if (isAway(error)) return databaseAway();
  // Two did the same at the same moment, such as taking one address.
  if (sqlState(error) === '23505')
    return new Refusal(
      409,
      'Somebody was first',
      'Somebody else has just done the same, or taken the same name or address. Look again, and choose another.',
    );
  if (sqlState(error).startsWith('22'))
    return new Refusal(
      400,
      'The request is not understood',
      'It holds a value that cannot be kept, such as a number far too large. Check what was sent.',
    );
  return null;
}

/** A fault of our own, told without its inside. */
export const fault = (id: string): Refusal =>
  new Refusal(
    500,
    'Something went wrong',
    `The server failed at this request; nothing was written. Give the number ${id} to whoever runs it.`,
  );
