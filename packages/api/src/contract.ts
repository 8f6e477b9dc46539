import { changeSchema } from '@visograph/core/change';
import { observedAccount } from '@visograph/core/cloud';
import { exchangeSchema } from '@visograph/core/exchange';
import { pageSchema, uuid } from '@visograph/core/model';
import { z } from 'zod';
import { bytes, endpoint, text, type Endpoint } from './endpoint.ts';
import { passwordLength } from './limits.ts';
import { purchase } from './purchase.ts';
import { reports } from './reports.ts';
import * as reply from './schemas.ts';

const megabyte = 1024 * 1024;

const credentials = z.strictObject({
  email: z.string().min(1).max(200),
  password: z.string().min(1).max(200),
});
const email = z.email('is not an e-mail address').max(200);
const personName = z.string().trim().min(1, 'is empty').max(80);
/** Long enough to be neither guessed nor found by trying (OWASP ASVS 4.0, 2.1.1). */
const newPassword = z.string().min(passwordLength, `is shorter than ${passwordLength} characters`).max(200);
const newAccount = z.strictObject({ name: personName, email, password: newPassword });
const role = z.enum(['owner', 'editor', 'reader']);
const key = z.string().min(1).max(100);
const planName = z.string().trim().min(1, 'is empty').max(80, 'is longer than 80 characters');
const purpose = z.string().trim().max(2000, 'is longer than 2000 characters').nullable();
const sheetIds = z.array(uuid()).min(1, 'are none').max(200, 'are more than 200');
const print = z.strictObject({
  sheetIds,
  title: z.string().max(200).optional(),
  page: pageSchema.partial().optional(),
});
const printSet = print.extend({
  sheetIds: z.array(uuid()).max(200, 'are more than 200'),
  scheduleIds: z.array(uuid()).max(200, 'are more than 200').optional(),
  contents: z.boolean().optional(),
});

const accounts = {
  'GET /health': endpoint({
    access: 'public',
    summary: 'That the server answers, whatever it depends on',
    answers: z.object({ status: z.literal('ok') }),
  }),
  'GET /ready': endpoint({
    access: 'public',
    summary: 'Whether all that the server needs answers too; 503 with what does not',
    answers: z.object({ ready: z.boolean(), database: z.boolean(), jobs: z.boolean() }),
  }),
  'GET /session': endpoint({
    access: 'public',
    summary: 'Who is signed in, and whether the first account is still to be made',
    answers: reply.session,
  }),
  'POST /session': endpoint({
    access: 'public',
    summary: 'Sign in',
    body: credentials,
    answers: reply.session,
  }),
  'DELETE /session': endpoint({ access: 'public', summary: 'Sign out' }),
  'POST /first-account': endpoint({
    access: 'public',
    summary: 'Make the first account of a new server; refused once there is one',
    body: newAccount,
    answers: reply.session,
  }),
  'PUT /account': endpoint({
    access: 'signedIn',
    summary: 'Change the own name or address; a new address needs the password',
    body: z.strictObject({ name: personName, email, password: z.string().max(200).optional() }),
    answers: reply.person,
  }),
  'PUT /account/password': endpoint({
    access: 'signedIn',
    summary: 'Change the own password; all other sessions end',
    body: z.strictObject({ current: z.string().min(1).max(200), password: newPassword }),
  }),
  'GET /account/sessions': endpoint({
    access: 'signedIn',
    summary: 'Where the person is signed in, the latest first',
    answers: z.array(reply.openSession),
  }),
  'DELETE /account/sessions': endpoint({
    access: 'signedIn',
    summary: 'End all own sessions but this one',
  }),
  'DELETE /account/sessions/:session': endpoint({
    access: 'signedIn',
    summary: 'End one of the own sessions',
  }),
  'POST /account/removal': endpoint({
    access: 'signedIn',
    summary: 'Remove the own account; refused while a project has no other owner. History keeps the name',
    body: z.strictObject({ password: z.string().min(1).max(200) }),
  }),
  'POST /password-resets': endpoint({
    access: 'public',
    summary:
      'Have a link for a new password sent by mail; the same answer whether there is such an account or not',
    body: z.strictObject({ email }),
  }),
  'PUT /password-resets': endpoint({
    access: 'public',
    summary: 'Set a new password by the key of a link; signs in and ends all other sessions',
    body: z.strictObject({ key, password: newPassword }),
    answers: reply.session,
  }),
  'POST /invitations/look': endpoint({
    access: 'public',
    summary: 'What an invitation is to, by the key of its link',
    body: z.strictObject({ key }),
    answers: reply.invitedTo,
  }),
  'POST /invitations/accept': endpoint({
    access: 'public',
    summary:
      'Accept an invitation: as who is signed in, or with an account that is made for it. It never opens an account that is there',
    body: z.strictObject({ key, account: newAccount.optional() }),
    answers: reply.session.extend({ projectId: z.uuid() }),
  }),
  'GET /projects': endpoint({
    access: 'signedIn',
    summary: 'Projects the person is a member of',
    answers: z.array(reply.projectSummary),
  }),
  'POST /projects': endpoint({
    access: 'signedIn',
    summary: 'Begin a project with the built-in catalogue; the person becomes its owner',
    body: z.strictObject({
      name: z.string().trim().min(1, 'is empty').max(80),
    }),
    answers: reply.projectSummary,
  }),
  'GET /projects/:project/members': endpoint({
    access: 'reader',
    summary: 'Members of the project and their roles',
    answers: z.array(reply.member),
  }),
  'PUT /projects/:project/members/:account': endpoint({
    access: 'owner',
    standing: 'archived',
    summary: 'Change the role of a member',
    body: z.strictObject({ role }),
    answers: reply.member,
  }),
  'DELETE /projects/:project/members/:account': endpoint({
    access: 'owner',
    standing: 'archived',
    summary: 'Take a member out of the project',
  }),
  'GET /projects/:project/invitations': endpoint({
    access: 'owner',
    standing: 'archived',
    summary: 'Who was invited and has not come yet',
    answers: z.array(reply.invitation),
  }),
  'POST /projects/:project/invitations': endpoint({
    access: 'owner',
    standing: 'archived',
    summary: 'Invite somebody by a link that works once; the key of the link is told here and never again',
    body: z.strictObject({ email, role }),
    answers: reply.invitation.extend({ key: z.string(), mailed: z.boolean() }),
  }),
  'DELETE /projects/:project/invitations/:invitation': endpoint({
    access: 'owner',
    standing: 'archived',
    summary: 'Take an invitation back: its link no longer works',
  }),
  'PUT /projects/:project/standing': endpoint({
    access: 'owner',
    standing: 'deleted',
    summary:
      'Archive the project (read only), delete it (for a while it can be brought back), or bring it back',
    body: z.strictObject({ standing: z.enum(['active', 'archived', 'deleted']) }),
    answers: reply.projectSummary,
  }),
  'DELETE /projects/:project': endpoint({
    access: 'owner',
    standing: 'deleted',
    summary: 'Delete for good a project that is deleted already: nothing brings it back',
  }),
  'GET /catalogue/shared': endpoint({
    access: 'signedIn',
    summary: 'Models accepted for the whole organisation, with the project each comes from',
    answers: z.array(reply.sharedModel),
  }),
};

const step = (summary: string) =>
  endpoint({
    access: 'editor',
    summary,
    jobIfLarge: 'short',
    network: 'write',
    body: z.strictObject({ id: uuid().optional() }),
    answers: reply.journalEntry,
  });

const model = {
  'GET /projects/:project/network': endpoint({
    access: 'reader',
    summary: 'All rows of the project; unchanged since a tag (If-None-Match): 304',
    network: 'read',
    answers: reply.network,
  }),
  'GET /projects/:project/changes': endpoint({
    access: 'reader',
    summary: 'The journal, newest first, 100 entries at most',
    network: 'read',
    query: { before: 'Entries before this revision', row: 'Only those about the row with this id' },
    answers: z.array(reply.historyLine),
  }),
  'GET /projects/:project/since': endpoint({
    access: 'reader',
    summary: 'What others changed since the person was last there, newest first; seen is null the first time',
    query: { after: 'The revision that this visit began with, where the page is loaded again' },
    answers: z.object({ seen: z.int().nullable(), lines: z.array(reply.historyLine) }),
  }),
  'PUT /projects/:project/seen': endpoint({
    access: 'reader',
    summary: 'How far the person has seen the project: a revision; it never goes back',
    network: 'read',
    body: z.strictObject({ revision: z.int().min(0) }),
  }),
  'POST /projects/:project/changes': endpoint({
    access: 'editor',
    limit: 16 * megabyte,
    jobIfLarge: 'short',
    summary: 'Make changes together, or none; the id makes sending twice harmless',
    network: 'write',
    body: z.strictObject({
      id: uuid(),
      sentence: z.string().min(1).max(500),
      changes: z.array(changeSchema).min(1).max(200_000),
    }),
    answers: reply.journalEntry,
  }),
  'POST /projects/:project/undo': step("Take back the person's own latest step"),
  'POST /projects/:project/redo': step('Make it again'),
  'GET /projects/:project/exchange': endpoint({
    access: 'reader',
    job: 'short',
    summary: 'The project as an exchange file',
    network: 'read',
    files: ['application/json'],
  }),
  'POST /projects/:project/exchange': endpoint({
    access: 'editor',
    job: 'long',
    summary: 'Import an exchange file: created or updated by name, all or nothing',
    network: 'write',
    query: { preview: '1: tell what it comes to and write nothing' },
    body: text(40 * megabyte),
    answers: reply.imported,
  }),
  'POST /projects/:project/example': endpoint({
    access: 'owner',
    job: 'long',
    summary: 'Take in the network that ships as an example',
    network: 'write',
    answers: reply.imported,
  }),
  'GET /projects/:project/racks/:rack/svg': endpoint({
    access: 'reader',
    job: 'short',
    summary: 'A rack elevation as SVG with its fonts inside, as on the screen',
    network: 'read',
    query: {
      colour: 'What the colours say',
      fact: 'What is written beside the names',
      cables: '1: with its cables',
    },
    files: ['image/svg+xml'],
  }),
  'POST /topology': endpoint({
    access: 'signedIn',
    job: 'short',
    summary: 'Turns a network topology (RFC 8345, JSON) into an exchange file; writes nothing',
    query: { place: 'Where its nodes are to stand' },
    body: text(20 * megabyte),
    answers: exchangeSchema,
  }),
  'POST /projects/:project/spreadsheet': endpoint({
    access: 'editor',
    job: 'short',
    summary:
      'The cells of an .xlsx or .csv file as text, for an import that is then previewed; writes nothing',
    body: bytes(5 * megabyte),
    answers: z.object({ rows: z.array(z.array(z.string())) }),
  }),
  'POST /projects/:project/cable-list': endpoint({
    access: 'editor',
    job: 'long',
    summary: 'Reads an .xlsx or .csv cable list and tells what each row comes to',
    network: 'write',
    query: {
      columns: 'Overrules what the columns hold: {"aEnd":2}',
      make: '1: it is a table of links: devices and ports that are not there are made',
      place: 'The place, by its id, that devices are made in; left out: they are not placed yet',
      write: '1: make the good rows in one transaction',
      all: '1: only when all rows are good',
    },
    body: bytes(40 * megabyte),
    answers: reply.cableListResult,
  }),
  'POST /projects/:project/equipment-list': endpoint({
    access: 'editor',
    limit: 56 * megabyte,
    job: 'long',
    summary: 'Reads an .xlsx or .csv equipment list and tells what each row comes to',
    network: 'write',
    body: z.strictObject({
      file: z.string().describe('The file in base64 (RFC 4648)'),
      wish: reply.equipmentWish,
      write: z.boolean().describe('Make the good rows in one transaction'),
      all: z.boolean().describe('Only when all rows are good'),
    }),
    answers: reply.equipmentListResult,
  }),
};

const field = {
  'GET /projects/:project/account-sources/:place': endpoint({
    access: 'editor',
    summary: 'From where a cloud account is read, and as whom; its secret is told to nobody',
    answers: z.object({ source: reply.accountSource.nullable() }),
  }),
  'PUT /projects/:project/account-sources/:place': endpoint({
    access: 'owner',
    summary: 'Say from where a cloud account is read, and as whom; the secret is kept encrypted',
    network: 'read',
    body: z.strictObject({
      url: z.url({ protocol: /^https?$/ }).max(500),
      client: z.string().trim().min(1, 'is empty').max(200),
      secret: z.string().min(1, 'is empty').max(2000),
    }),
  }),
  'DELETE /projects/:project/account-sources/:place': endpoint({
    access: 'owner',
    summary: 'Forget from where a cloud account is read, and its secret',
  }),
  'POST /projects/:project/account-sources/:place/read': endpoint({
    access: 'editor',
    job: 'long',
    summary: 'Read all of a cloud account, to be held against what is documented; writes nothing',
    answers: observedAccount,
  }),
};

const plans = {
  'GET /projects/:project/plans': endpoint({
    access: 'reader',
    summary: 'The plans of the project, those thrown away too, as they were begun',
    answers: z.array(reply.plan),
  }),
  'POST /projects/:project/plans': endpoint({
    access: 'editor',
    summary: 'Begin a plan: a line of history over as built',
    body: z.strictObject({ name: planName, purpose: purpose.default(null) }),
    answers: reply.plan,
  }),
  'GET /projects/:project/plans/:plan': endpoint({
    access: 'reader',
    summary: 'A plan, and where it and as built contradict each other, change by change with both values',
    answers: reply.planWithConflicts,
  }),
  'PUT /projects/:project/plans/:plan': endpoint({
    access: 'editor',
    summary: 'Rename a plan, say what it is for, throw it away or bring it back',
    body: z.strictObject({
      name: planName.optional(),
      purpose: purpose.optional(),
      thrownAway: z.boolean().optional(),
    }),
    answers: reply.plan,
  }),
};

const sheets = {
  'GET /projects/:project/sheets': endpoint({
    access: 'reader',
    summary: 'Who changed each sheet last and when, newest first',
    answers: z.array(reply.sheetChange),
  }),
  'GET /projects/:project/sheets/:sheet/svg': endpoint({
    access: 'reader',
    job: 'short',
    summary: 'A sheet as SVG with its fonts inside',
    network: 'read',
    query: {
      bundles: 'How links of one purpose are drawn: closed, open or never; left out: as on the sheet',
    },
    files: ['image/svg+xml'],
  }),
  'GET /projects/:project/sheets/:sheet/png': endpoint({
    access: 'reader',
    job: 'short',
    summary: 'A sheet as PNG',
    network: 'read',
    query: {
      scale: 'From 0.1 to 4',
      transparent: '1: without the paper',
      bundles: 'How links of one purpose are drawn: closed, open or never; left out: as on the sheet',
    },
    files: ['image/png'],
  }),
  'GET /projects/:project/sheets/:sheet/pdf': endpoint({
    access: 'reader',
    job: 'short',
    summary: 'A sheet as PDF on its paper',
    network: 'read',
    query: {
      bundles: 'How links of one purpose are drawn: closed, open or never; left out: as on the sheet',
    },
    files: ['application/pdf'],
  }),
  'GET /projects/:project/sheets/:sheet/pages': endpoint({
    access: 'reader',
    job: 'short',
    summary: 'A sheet as one SVG for each page of its paper, for the printing of the browser',
    network: 'read',
    query: {
      bundles: 'How links of one purpose are drawn: closed, open or never; left out: as on the sheet',
    },
    answers: reply.printedPages,
  }),
  'POST /projects/:project/missing-glyphs': endpoint({
    access: 'reader',
    job: 'short',
    summary: 'The texts of sheets with characters that no font here has: they would be printed as boxes',
    network: 'read',
    body: z.strictObject({ sheetIds }),
    answers: reply.missingGlyphs,
  }),
  'POST /projects/:project/print': endpoint({
    access: 'reader',
    job: 'short',
    summary:
      'Sheets, and schedules of the project, in one PDF with a bookmark for each; page overrules the paper of all sheets. With schedules, or where contents is asked for, a contents page stands first and pages are numbered',
    network: 'read',
    body: printSet,
    files: ['application/pdf'],
  }),
  'POST /projects/:project/print-each': endpoint({
    access: 'reader',
    job: 'short',
    summary: 'A PDF of each sheet, in one archive (ISO/IEC 21320-1)',
    network: 'read',
    body: print,
    files: ['application/zip'],
  }),
  'GET /projects/:project/sheets/:sheet/graph': endpoint({
    access: 'reader',
    job: 'short',
    summary: 'What a sheet shows as a graph',
    network: 'read',
    query: { format: 'graphml, dot or topology (RFC 8345); left out: graphml' },
    files: ['application/graphml+xml', 'text/vnd.graphviz', 'application/json'],
  }),
};

const jobs = {
  'GET /jobs': endpoint({
    access: 'signedIn',
    summary: "The person's own jobs of the last hour, newest first",
    answers: z.array(reply.job),
  }),
  'GET /jobs/:job': endpoint({
    access: 'signedIn',
    summary: 'How far a job of the person has come',
    answers: reply.job,
  }),
  'DELETE /jobs/:job': endpoint({
    access: 'signedIn',
    summary: 'Stop a job, or forget its result; refused while it is writing',
  }),
  'GET /jobs/:job/result': endpoint({
    access: 'signedIn',
    summary: 'What the call of a job answers, for an hour after it is done; its refusal where it failed',
    answers: z.unknown(),
    files: ['application/octet-stream'],
  }),
};

const description = {
  'GET /openapi.json': endpoint({
    access: 'public',
    summary: 'This description (OpenAPI 3.1)',
    answers: z.record(z.string(), z.unknown()),
  }),
};

/** Every call there is, by its method and path below /api/v1: what it takes and what it answers. */
export const contract = {
  ...accounts,
  ...model,
  ...reports,
  ...purchase,
  ...plans,
  ...field,
  ...sheets,
  ...jobs,
  ...description,
} satisfies Record<string, Endpoint>;
export type Contract = typeof contract;
export type Name = keyof Contract;
