import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { idField, noted, refField } from '../../fields/field.ts';
import { sheetPictureField } from '../equipment/pictures/picture.ts';

/** What a person can add to a sheet by hand. */
export const markForms = [
  'note',
  'callout',
  'line',
  'arrow',
  'rectangle',
  'ellipse',
  'polygon',
  'enclosure',
  'picture',
  'dimension',
  'schedule',
] as const;
export type MarkForm = (typeof markForms)[number];

/** Colours by use: the theme decides what they look like. */
export const markTones = ['plain', 'accent', 'ok', 'warn', 'bad', 'soft'] as const;
export type MarkTone = (typeof markTones)[number];

const coordinate = (label: string) => noted(z.number().min(-1e6).max(1e6), { label });
const point = z.strictObject({ x: z.number().min(-1e6).max(1e6), y: z.number().min(-1e6).max(1e6) });

/** A note, shape, line, picture or table on a sheet. It holds no fact of the network: a table is read from it. */
export const markSchema = z
  .strictObject({
    id: idField('Id'),
    sheetId: idField('Sheet'),
    form: noted(z.enum(markForms), { label: 'Form' }),
    x: coordinate('X'),
    y: coordinate('Y'),
    width: noted(z.number().min(0).max(1e5), { label: 'Width' }),
    height: noted(z.number().min(0).max(1e5), { label: 'Height' }),
    /** Corners of a line or polygon, from x and y. */
    points: noted(z.array(point).max(200, 'are more than 200'), { label: 'Corners', internal: true }),
    text: noted(z.string().max(4000, 'is longer than 4000 characters'), {
      label: 'Text',
      help: 'Markdown (CommonMark): headings, lists, bold, code',
    }),
    tone: noted(z.enum(markTones), { label: 'Colour' }),
    filled: noted(z.boolean(), { label: 'Filled' }),
    opacity: noted(z.number().min(0.05, 'is below 0.05').max(1, 'is above 1'), { label: 'Opacity' }),
    /** Higher stands in front; below zero behind the plates. */
    level: noted(z.int().min(-1000).max(1000), { label: 'Order' }),
    locked: noted(z.boolean(), { label: 'Locked' }),
    deviceId: refField('Points at'),
    aRackId: refField('From rack'),
    bRackId: refField('To rack'),
    /** The schedule whose rows stand in it, read anew whenever the sheet is drawn. */
    scheduleId: refField('Schedule'),
    linkSheetId: refField('Leads to sheet'),
    picture: sheetPictureField,
  })
  .superRefine((mark, context) => {
    const issue = (field: string, message: string): void =>
      void context.addIssue({ code: 'custom', path: [field], message });
    if (mark.form === 'picture' && mark.picture === null) issue('picture', 'is missing');
    if (mark.form === 'schedule' && mark.scheduleId === null) issue('scheduleId', 'is missing');
    if ((mark.form === 'line' || mark.form === 'arrow') && mark.points.length < 2)
      issue('points', 'are fewer than two');
    if (mark.form === 'polygon' && mark.points.length < 3) issue('points', 'are fewer than three');
    if (mark.form === 'dimension' && (mark.aRackId === null || mark.bRackId === null))
      issue(mark.aRackId === null ? 'aRackId' : 'bRackId', 'is missing');
  });
export type Mark = z.infer<typeof markSchema>;

/** A mark with nothing filled in. */
export const blankMark: Omit<Mark, 'id' | 'sheetId' | 'form'> = {
  x: 0,
  y: 0,
  width: 160,
  height: 80,
  points: [],
  text: '',
  tone: 'plain',
  filled: false,
  opacity: 1,
  level: 1,
  locked: false,
  deviceId: null,
  aRackId: null,
  bRackId: null,
  scheduleId: null,
  linkSheetId: null,
  picture: null,
};

export const markKind = defineKind({
  schema: markSchema,
  one: 'mark on a sheet',
  many: 'marks on sheets',
  paper: true,
  refs: {
    sheetId: { to: 'sheet', index: 'marksBySheet', onRemove: 'goes' },
    deviceId: { to: 'device', index: 'marksByDevice', onRemove: 'cleared' },
    aRackId: { to: 'rack', index: 'marksByRack', onRemove: 'goes' },
    bRackId: { to: 'rack', index: 'marksByRack', onRemove: 'goes' },
    scheduleId: { to: 'schedule', index: 'marksBySchedule', onRemove: 'goes' },
    linkSheetId: { to: 'sheet', index: 'marksByLinkedSheet', onRemove: 'cleared' },
  },
  indexes: {},
  unique: [],
  nameOf: (row) => row.form,
  facts: { text: 'notes', picture: 'notes' },
  blank: blankMark,
  uncounted: true,
});
