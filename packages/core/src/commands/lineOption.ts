import type { ChangeSet } from '../change/change.ts';
import type { Found } from './find.ts';

/** What Enter would do with a line typed into the command line. */
export type LineOption =
  | { does: 'go'; title: string; detail: string; found: Found }
  | { does: 'trace'; title: string; detail: string; portId: string }
  | { does: 'change'; title: string; detail: string; set: ChangeSet }
  | { does: 'refuse'; title: string; detail: string };
