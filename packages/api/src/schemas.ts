import { cableFields } from '@visograph/core/cabling';
import { type ListRow } from '@visograph/core/exchange';
import { changeSchema } from '@visograph/core/change';
import { type ToldFinding } from '@visograph/core/check';
import { type PlanConflict } from '@visograph/core/lens';
import { kindNames, kinds, quotationSchema, roleCodes, type Kind, type Rows } from '@visograph/core/model';
import type { Totals } from '@visograph/core/purchase';
import {
  equipmentFields,
  type EquipmentColumns,
  type EquipmentWish,
  type ModelAnswer,
  type UnknownModel,
} from '@visograph/core/racks';
import type { Table, ToldAnswer } from '@visograph/core/report';
import { z } from 'zod';

const id = z.uuid();
const kind = z.enum(kindNames);
const when = z.iso.datetime();
const revision = z.int().min(0);
const role = z.enum(['owner', 'editor', 'reader']);

export const person = z.object({ id, name: z.string(), email: z.string() });
/** `mail`: links for new passwords are sent by mail. */
export const session = z.object({ account: person.nullable(), firstStart: z.boolean(), mail: z.boolean() });
/** `until`: the day on which a deleted project is gone for good. */
export const projectSummary = z.object({
  ...{ id, name: z.string(), role, revision },
  standing: z.enum(['active', 'archived', 'deleted']),
  until: when.nullable(),
});
export const invitation = z.object({ id, email: z.string(), role, until: when });
export const invitedTo = z.object({
  project: z.string(),
  role,
  email: z.string(),
  by: z.string(),
  until: when,
});
/** `own`: the session that asks. */
export const openSession = z.object({
  ...{ id, own: z.boolean(), program: z.string().nullable() },
  since: when.nullable(),
  until: when,
});
export const member = person.extend({ role });

type RowLists = { [K in Kind]?: Rows[K][] };
const rowLists: z.ZodType<RowLists> = z.object(
  Object.fromEntries(kindNames.map((one) => [one, z.array(kinds[one].schema).optional()])),
);

/** All rows of a network, and which network it is. */
export const network = z.object({
  revision,
  line: id.nullable(),
  base: revision.nullable(),
  rows: rowLists,
});

export const historyLine = z.object({
  id,
  revision,
  author: z.string(),
  at: when,
  sentence: z.string(),
  undoes: revision.nullable(),
  redoes: revision.nullable(),
});
export const sheetChange = z.object({ id, revision, author: z.string(), at: when });
export const journalEntry = historyLine.extend({
  line: id.nullable(),
  base: revision.nullable(),
  changes: z.array(changeSchema),
});

const subject = z.object({ kind, id });
export const finding = z.object({
  rule: z.string(),
  severity: z.enum(['bad', 'warn']),
  about: z.array(z.string()),
  rows: z.array(subject),
  message: z.string(),
  waiver: z
    .object({ reason: z.string(), by: z.string(), madeOn: z.string(), until: z.string().nullable() })
    .nullable(),
}) satisfies z.ZodType<ToldFinding>;
/** The entry that brought a finding; where none is named it is older than the entries that were gone through. */
export const findingOrigin = z.object({
  entry: historyLine.nullable(),
  /** It was not looked further back than this revision; 0: as far as there is history. */
  searchedFrom: revision,
});

export const problem = z.object({
  code: z.enum(['schema', 'missing', 'duplicate', 'kept', 'conflict', 'impossible', 'inUse', 'absent']),
  kind,
  id: z.string(),
  about: z.string(),
  field: z.string().nullable(),
  message: z.string(),
  mine: z.unknown().optional(),
  theirs: z.unknown().optional(),
  free: z.union([z.string(), z.number()]).optional(),
});
const fileProblem = z.object({ path: z.string(), message: z.string() });
/** A refusal (RFC 9457): what happened, to which thing and field, and what to do. */
export const problemDocument = z.object({
  type: z.literal('about:blank'),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
  instance: z.string(),
  problems: z.array(z.union([problem, fileProblem])),
});

export const jobStates = ['waiting', 'running', 'writing', 'done', 'failed', 'cancelled'] as const;
/** A piece of work outside the web process. */
export const job = z.object({
  id,
  /** The call that it answers, as the contract names it. */
  call: z.string(),
  state: z.enum(jobStates),
  done: z.int().min(0),
  of: z.int().min(0),
  /** Jobs that are taken before it; 0 once it runs. */
  ahead: z.int().min(0),
  madeAt: when,
  /** Why it failed. */
  refusal: problemDocument.nullable(),
});

const planConflict = problem.extend({
  revision,
  sentence: z.string(),
  outcome: z.enum(['kept', 'left out']),
}) satisfies z.ZodType<PlanConflict>;
/** From where a cloud account is read. Its secret is told to nobody. */
export const accountSource = z.object({
  url: z.string(),
  client: z.string(),
  madeBy: z.string(),
  madeAt: z.iso.datetime(),
});

export const plan = z.object({
  id,
  name: z.string(),
  purpose: z.string().nullable(),
  revision,
  madeBy: z.string(),
  madeAt: when,
  thrownAway: z.object({ by: z.string(), at: when }).nullable(),
});
export const planWithConflicts = plan.extend({
  /** The revision of as built that it stands on; null where it was thrown away. */
  base: revision.nullable(),
  conflicts: z.array(planConflict),
});

const cell = z.union([z.string(), z.number(), z.null()]);
const cells = z.record(z.string(), cell);
const tableColumn = z.object({
  key: z.string(),
  label: z.string(),
  numeric: z.boolean().optional(),
  unit: z.string().optional(),
});

export const table = z.object({
  columns: z.array(tableColumn),
  rows: z.array(cells),
  ids: z.array(z.string()),
}) satisfies z.ZodType<Omit<Table, 'rowAt'>>;

export const labels = z.object({
  /** Labels that fit, and the pages that they take. */
  count: z.int(),
  pages: z.int(),
  /** Labels that do not fit, each with the reason. */
  unfit: z.int(),
  problems: z.array(
    z.object({ kind: z.string(), id: z.string(), side: z.enum(['a', 'b']).nullable(), why: z.string() }),
  ),
});

export const scheduleAnswer = z.object({
  columns: z.array(tableColumn),
  lines: z.array(
    z.union([
      z.object({
        form: z.literal('group'),
        level: z.int(),
        text: z.string(),
        count: z.int(),
        totals: cells,
      }),
      z.object({ form: z.literal('row'), id: z.string(), cells }),
    ]),
  ),
  count: z.int(),
  totals: cells,
  problems: z.array(z.string()),
}) satisfies z.ZodType<ToldAnswer>;

const minor = z.number().describe('In minor units of the currency');
export const parts = z.object({
  list: z.string(),
  currency: z.string(),
  totalMinor: minor,
  unpriced: z.int(),
  groups: z.array(
    z.object({
      title: z.string(),
      totalMinor: minor.nullable(),
      rows: z.array(cells),
      ids: z.array(z.string()),
    }),
  ),
  concerns: z
    .array(z.object({ severity: z.enum(['bad', 'warn']), text: z.string(), line: z.string().nullable() }))
    .describe('What keeps it from being ordered, the worst first'),
});
export const quotation = quotationSchema;
export const totals = z.object({
  sections: z.array(z.object({ grossMinor: minor, netMinor: minor })),
  grossMinor: minor,
  netMinor: minor,
  taxes: z.array(z.object({ rate: z.int(), baseMinor: minor, taxMinor: minor })),
  taxMinor: minor,
  totalMinor: minor,
  optionsMinor: minor,
  unpriced: z.int(),
}) satisfies z.ZodType<Totals>;

export const imported = z.object({ created: z.int(), updated: z.int(), sentence: z.string() });

export const cableColumns = z.partialRecord(z.enum(cableFields), z.int().min(0).max(200));
const listRow = z.object({
  row: z.int(),
  label: z.string(),
  does: z.enum(['new', 'same', 'changes', 'cannot']),
  detail: z.string(),
}) satisfies z.ZodType<ListRow>;
/** What every list comes to. */
const listResult = z.object({
  headed: z.boolean(),
  results: z.array(listRow),
  /** What is made beside the rows themselves, in words. */
  alsoMade: z.string(),
  problem: z.string().nullable(),
  /** The first rows as they are, for choosing columns. */
  first: z.array(z.array(z.string())),
  rows: z.int(),
  written: z.boolean(),
});
export const cableListResult = listResult.extend({ columns: cableColumns });

const equipmentColumns = z.object({
  fields: z.partialRecord(z.enum(equipmentFields), z.int().min(0).max(200)),
  own: z.array(z.int().min(0).max(200)).max(30),
}) satisfies z.ZodType<EquipmentColumns>;
const modelAnswer = z.union([
  z.strictObject({ as: z.string().max(200) }),
  z.strictObject({ role: z.enum(roleCodes), units: z.number().min(0).max(60), ports: z.string().max(500) }),
]) satisfies z.ZodType<ModelAnswer>;
export const equipmentWish = z.strictObject({
  columns: equipmentColumns.nullable(),
  models: z.record(z.string().max(300), modelAnswer),
  makePlaces: z.boolean(),
  managementVid: z.int().min(1).max(4094).nullable(),
  placeId: id.nullable(),
}) satisfies z.ZodType<EquipmentWish>;
const unknownModel = z.object({
  key: z.string(),
  title: z.string(),
  rows: z.int(),
  likely: z.array(z.string()),
  role: z.enum(roleCodes),
  units: z.number().nullable(),
}) satisfies z.ZodType<UnknownModel>;
export const equipmentListResult = listResult.extend({
  columns: equipmentColumns,
  unknown: z.array(unknownModel),
  withoutPort: z.int(),
});

export const printedPages = z.object({
  widthMm: z.number(),
  heightMm: z.number(),
  marginMm: z.number(),
  pages: z.array(z.string()),
});
/** Texts with characters that no font here has, and the sheets on which they stand. */
export const missingGlyphs = z.object({
  texts: z.array(
    z.object({ text: z.string(), characters: z.array(z.string()), sheets: z.array(z.string()) }),
  ),
  eastAsian: z.boolean(),
  others: z.boolean(),
});
/** A model that an owner of another project accepted for everybody. */
export const sharedModel = z.object({ project: z.string(), model: kinds.model.schema });
