import type { Network } from '../model/network.ts';
import type { Kind } from '../model/kinds.ts';

export interface Finding {
  rule: string;
  severity: 'bad' | 'warn';
  /** What it is about, as people and files call it: "cable AH-00017". */
  about: string[];
  /** The same things by id. */
  rows: { kind: Kind; id: string }[];
  message: string;
}

/** One rule of the trade: what it looks for, and how. */
export interface Rule {
  key: string;
  title: string;
  /** What it reads: what is in force, or all there is, retired things as well. */
  reads?: 'in force' | 'all';
  find: (network: Network) => Finding[];
}
