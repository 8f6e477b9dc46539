import { kindNames, uuid } from '@visograph/core/model';
import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import * as reply from './schemas.ts';

const xlsx = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** What is found, and what is listed. */
export const reports = {
  'GET /projects/:project/findings': endpoint({
    access: 'reader',
    job: 'short',
    summary: 'What the checks find: what is to be mended, worst first',
    network: 'read',
    query: {
      on: 'The day, as 2027-03-01, for what comes with the calendar; left out: today (UTC)',
      since: 'A revision: only what was not found there, or was less bad',
      waived: '1: what is meant to be so as well, with the reason',
    },
    answers: z.array(reply.finding),
  }),
  'POST /projects/:project/findings/origin': endpoint({
    access: 'reader',
    job: 'short',
    summary:
      'Since when a rule finds something about these things, and whose step brought it; writes nothing',
    network: 'read',
    body: z.strictObject({
      rule: z.string().max(60),
      about: z
        .array(z.object({ kind: z.enum(kindNames), id: uuid() }))
        .min(1)
        .max(5000),
    }),
    answers: reply.findingOrigin,
  }),
  'GET /projects/:project/reports/:report': endpoint({
    access: 'reader',
    job: 'short',
    summary: 'A schedule as JSON, CSV (RFC 4180) or a workbook (ISO/IEC 29500)',
    network: 'read',
    query: {
      scope: 'The place it is about, by its id; left out: all',
      format: 'csv or xlsx; left out: JSON',
    },
    answers: reply.table,
    files: ['text/csv', xlsx],
  }),
  'GET /projects/:project/schedule': endpoint({
    access: 'reader',
    job: 'short',
    summary:
      'A schedule by its name, or a question that is kept under none, answered: as JSON, CSV (RFC 4180), a workbook (ISO/IEC 29500) or PDF (ISO 32000)',
    network: 'read',
    query: {
      name: 'The name of a schedule of the project',
      question: 'In place of it: a question as the network has them, in JSON, without id and name',
      title: 'What a question without a name is called in the file',
      scope: 'The place that it is about where it has none of its own, by its id; left out: all',
      on: 'The day that is today for its filters; left out: today (UTC)',
      format: 'csv, xlsx or pdf; left out: JSON',
    },
    answers: reply.scheduleAnswer,
    files: ['text/csv', xlsx, 'application/pdf'],
  }),
  'GET /projects/:project/labels': endpoint({
    access: 'reader',
    job: 'short',
    summary:
      'Labels to print, in the order in which one walks past: what they come to, or as PDF (ISO 32000)',
    network: 'read',
    query: {
      of: 'cables, devices, ports, racks or outlets; left out: cables',
      scope: 'The place, by its id; left out: all',
      fresh: '1: only those that were never printed, or read otherwise by now',
      size: 'A size by its key, such as sheet-3x8 or tape-12',
      measures:
        'In place of it: page, width, height, columns, rows, left, top, gapAcross, gapDown in mm, as JSON',
      code: 'qr: a link into the application; code128: the name; left out: none',
      origin: 'Where the application is, as in https://net.marrow.example, for links',
      skip: 'Labels of the first page that are used already',
      format: 'pdf; left out: JSON',
    },
    answers: reply.labels,
    files: ['application/pdf'],
  }),
};
