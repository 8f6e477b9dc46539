/** What every command has and gives. */
import type { Network } from '@visograph/core/model';

export type Output = (text: string) => unknown;

export interface Values {
  json?: boolean;
  format?: string;
  scope?: string;
  sheet?: string;
  rack?: string;
  colour?: string;
  projection?: string;
  device?: string;
  out?: string;
  since?: string;
  'fail-on'?: string;
  on?: string;
  schedule?: string;
  list?: string;
  by?: string;
  fresh?: boolean;
  waived?: boolean;
  built?: boolean;
}
export interface Invocation {
  network: Network;
  rest: readonly string[];
  values: Values;
  out: Output;
  err: Output;
}
export type Command = (invocation: Invocation) => number | Promise<number>;

export const asJson = (value: unknown): string => `${JSON.stringify(value, null, 2)}\n`;

/** Says what cannot be used, in the form asked for; exit code 2. */
export function refuse({ values, out, err }: Invocation, path: string, message: string): number {
  if (values.json === true) out(asJson({ problems: [{ path, message }] }));
  else err(`${message}\n`);
  return 2;
}
