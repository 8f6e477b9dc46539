import { isRaw, usualLimit, type Endpoint } from '@visograph/api';
import { unwritableInside } from '@visograph/core/model';
import express, { type RequestHandler } from 'express';
import { Refusal } from './problem.ts';

const notUnderstood = (detail: string): Refusal => new Refusal(400, 'The request is not understood', detail);

/** The most bytes that a call takes. */
export const limitOf = ({ body, limit = usualLimit }: Endpoint): number =>
  body === undefined ? 0 : isRaw(body) ? body.limit : limit;

/** Reads the bytes of a request up to what its call takes; run once it is known who asks. */
export const readerOf = (endpoint: Endpoint): RequestHandler =>
  express.raw({ limit: Math.max(1, limitOf(endpoint)), type: () => true });

/** Objects and lists within each other beyond this are no request of ours. */
const mostDepth = 60;
const [quote, backslash, openList, closeList, openObject, closeObject] = [...'"\\[]{}'].map((letter) =>
  letter.charCodeAt(0),
);

/** Whether JSON is nested deeper than any request is: told before it is read, which takes a stack as deep. */
export function isTooDeep(json: Uint8Array, most = mostDepth): boolean {
  let depth = 0;
  let inText = false;
  for (let at = 0; at < json.length; at++) {
    const byte = json[at];
    if (inText) {
      if (byte === backslash) at++;
      else if (byte === quote) inText = false;
    } else if (byte === quote) inText = true;
    else if (byte === openList || byte === openObject) {
      if (++depth > most) return true;
    } else if (byte === closeList || byte === closeObject) depth--;
  }
  return false;
}

/** @throws Refusal 400 where the bytes are no UTF-8 (RFC 3629) */
function textOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw notUnderstood('What was sent is not UTF-8 text. Save it as UTF-8 and send it again.');
  }
}

function jsonOf(bytes: Uint8Array): unknown {
  if (bytes.length === 0) return {};
  if (isTooDeep(bytes))
    throw notUnderstood(`The body holds lists or objects within each other more than ${mostDepth} deep.`);
  try {
    return JSON.parse(textOf(bytes));
  } catch (error) {
    throw error instanceof Refusal ? error : notUnderstood('The body is not JSON.');
  }
}

/** What a call has of its body. @throws Refusal 400, with the field */
export function readBody({ body }: Endpoint, bytes: Uint8Array): unknown {
  if (body === undefined) return undefined;
  if (isRaw(body)) return body.raw === 'text' ? textOf(bytes) : bytes;
  const parsed = body.safeParse(jsonOf(bytes));
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    const field = issue?.path.join('.') ?? '';
    throw notUnderstood(
      `${field === '' ? 'The body' : field.slice(0, 200)} ${issue?.message ?? 'is not allowed'}.`,
    );
  }
  // Rows are judged by the model, which names them.
  const { changes: _rows, ...fields } = Object(parsed.data) as Record<string, unknown>;
  const broken = Object.entries(fields).find(([, value]) => unwritableInside(value) !== null);
  if (broken === undefined) return parsed.data;
  throw notUnderstood(
    `${broken[0]} holds the character ${unwritableInside(broken[1]) ?? ''}, which cannot be written. Take it out.`,
  );
}
