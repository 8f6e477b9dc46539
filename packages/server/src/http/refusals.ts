import { LineProblem } from '../plans/lineProblem.ts';
import { Refusal } from './problem.ts';

const readable = (bytes: number): string =>
  bytes >= 1024 * 1024 ? `${Math.round(bytes / 1024 / 1024)} MB` : `${Math.round(bytes / 1024)} kB`;

/** What an error means to whoever called; null: a fault of our own. */
export function refusalOf(error: unknown): Refusal | null {
  if (error instanceof Refusal) return error;
  if (error instanceof LineProblem)
    return error.reason === 'absent'
      ? new Refusal(404, 'Not found', error.message)
      : new Refusal(410, 'The plan was thrown away', error.message);
  const { type, status, code, limit } = error as {
    type?: string;
    status?: number;
    code?: string;
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
  if (code === 'ECONNREFUSED' || code?.startsWith('57P') === true || code === 'ECONNRESET') {
    return new Refusal(
      503,
      'The database does not answer',
      'The database cannot be reached at the moment. Your edit is kept and sent again.',
    );
  }
  return null;
}

/** A fault of our own, told without its inside. */
export const fault = (id: string): Refusal =>
  new Refusal(
    500,
    'Something went wrong',
    `The server failed at this request; nothing was written. Give the number ${id} to whoever runs it.`,
  );
