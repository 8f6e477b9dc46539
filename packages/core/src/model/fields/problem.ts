import type { Kind } from '../kinds.ts';

/**
 * Why something cannot be done. `schema`: a value is not allowed; `missing`: it refers to nothing; `duplicate`:
 * a name is taken; `kept`: another plan keeps it for itself; `conflict`: somebody changed the same field; `impossible`: the physical world forbids it;
 * `inUse`: other rows depend on it; `absent`: the row itself is gone.
 */
export type ProblemCode =
  'schema' | 'missing' | 'duplicate' | 'kept' | 'conflict' | 'impossible' | 'inUse' | 'absent';

export interface Problem {
  code: ProblemCode;
  kind: Kind;
  id: string;
  /** The thing as people call it: "device kq-acc-1". */
  about: string;
  field: string | null;
  /** A whole sentence with the reason and, where there is one, the remedy. */
  message: string;
  /** For a conflict: the value sent and the value found. */
  mine?: unknown;
  theirs?: unknown;
  /** For a value that is taken: one that is free. */
  free?: string | number;
}
