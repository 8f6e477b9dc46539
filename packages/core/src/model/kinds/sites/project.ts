import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { roleCodes } from '../../values/roles.ts';
import { pictureField } from '../equipment/pictures/picture.ts';
import { newId } from '../../values/ids.ts';
import { countField, idField, nameField, noted } from '../../fields/field.ts';
import { isOneOf } from '../../values/words.ts';

const metres = (most: number) => z.number().min(0, 'is negative').max(most, `is above ${most}`);
const decibels = z.number().min(0, 'is negative').max(5, 'is above 5');

/** Parts a cable label can be made of; the number must be one of them. */
export const labelParts = ['site', 'number', 'aPlace', 'bPlace', 'aRack', 'bRack', 'aPort', 'bPort'] as const;

const scheme = z
  .string()
  .min(1, 'is empty')
  .max(80, 'is longer than 80 characters')
  .superRefine((text, context) => {
    const parts = [...text.matchAll(/\{([^}]*)\}/g)].map((match) => match[1] ?? '');
    const unknown = parts.find((part) => !isOneOf(labelParts, part));
    if (unknown !== undefined)
      context.addIssue({
        code: 'custom',
        message: `holds {${unknown}}, which is not one of ${labelParts.map((part) => `{${part}}`).join(', ')}`,
      });
    else if (parts.filter((part) => part === 'number').length !== 1)
      context.addIssue({ code: 'custom', message: 'must hold {number} once' });
  });

/** Where the greatest loss of single-mode fibre is taken from. */
export const singleModeLosses = ['ITU-T G.652.D', 'TIA-568.3-D indoor', 'TIA-568.3-D outdoor'] as const;
export type SingleModeLoss = (typeof singleModeLosses)[number];

/** What the project assumes when lengths, losses and labels of cables are worked out. */
export const cablingRulesSchema = z.strictObject({
  /** Slack left at each end, metres. */
  slackM: metres(20),
  /** From the top of a rack to the tray above it, where the place does not state the height of its tray. */
  trayRiseM: metres(10),
  /** From the face of a device to the vertical manager beside it. */
  sideM: metres(2),
  /** Distance of neighbouring racks, centre to centre. */
  rackPitchM: metres(5),
  /** What the straight distance is multiplied by where no pathway is drawn. */
  detour: z.number().min(1, 'is below 1').max(5, 'is above 5'),
  /** Loss of a mated pair of fibre connectors and of a splice (TIA-568.3-D clause 6: at most 0.75 and 0.3 dB). */
  connectorLossDb: decibels,
  spliceLossDb: decibels,
  /** By which standard single-mode fibre loses at most; G.652.D in projects from before it could be chosen. */
  singleModeLoss: z.enum(singleModeLosses).optional(),
  labelScheme: scheme,
});
export type CablingRules = z.infer<typeof cablingRulesSchema>;

export const defaultCablingRules: Required<CablingRules> = {
  slackM: 0.5,
  trayRiseM: 0.4,
  sideM: 0.3,
  rackPitchM: 0.6,
  detour: 1.4,
  connectorLossDb: 0.75,
  spliceLossDb: 0.3,
  singleModeLoss: 'ITU-T G.652.D',
  labelScheme: '{site}-{number}',
};

export const projectSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name'),
  labelDigits: countField('Digits in a cable label', 3, 8),
  cabling: noted(cablingRulesSchema, { label: 'Cabling rules', internal: true }),
  /** Own pictures on plates in place of the letters of a role, where the model has none of its own. */
  symbols: noted(z.partialRecord(z.enum(roleCodes), pictureField.unwrap()), {
    label: 'Symbols',
    internal: true,
  }),
});
export type Project = z.infer<typeof projectSchema>;

/** A project as it begins. */
export const newProject = (name: string, id = newId()): Project => ({
  id,
  name,
  labelDigits: 5,
  cabling: defaultCablingRules,
  symbols: {},
});

export const projectKind = defineKind({
  schema: projectSchema,
  one: 'project',
  many: 'projects',
  refs: {},
  indexes: {},
  unique: [],
  nameOf: (row) => row.name,
  facts: { name: 'names', cabling: 'labels', symbols: 'models' },
  blank: { cabling: defaultCablingRules, symbols: {} },
});
