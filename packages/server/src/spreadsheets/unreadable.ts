import { Refusal } from '../http/problem.ts';

/** A file of rows that is not taken, with the reason and what to do. */
export const unreadable = (detail: string): Refusal => new Refusal(422, 'The file cannot be read', detail);
