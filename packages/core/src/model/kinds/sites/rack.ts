import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { amountField, countField, idField, nameField, noted, textField } from '../../fields/field.ts';

/** A supply to a rack: usable power is volts x amps x phases x derating (continuous load, 80 % by common rule). */
export const feedSchema = z.strictObject({
  name: nameField('Feed', 20),
  volts: noted(z.number().min(12, 'is below 12').max(480, 'is above 480'), {
    label: 'Volts per phase',
    unit: 'V',
  }),
  amps: noted(z.number().min(1, 'is below 1').max(400, 'is above 400'), { label: 'Amps', unit: 'A' }),
  phases: noted(z.union([z.literal(1), z.literal(3)]), { label: 'Phases' }),
  derating: noted(z.number().min(0.1, 'is below 0.1').max(1, 'is above 1').default(0.8), {
    label: 'Derating',
  }),
});
export type Feed = z.infer<typeof feedSchema>;

/** Width of the front plates that a rack of 19 inches takes, in millimetres (IEC 60297-3-100). */
export const nineteenInchMm = 482.6;
/** Usual widths of front plates, in millimetres, and where they are laid down. */
export const usualRackWidths = [
  { mm: nineteenInchMm, of: '19 in, IEC 60297' },
  { mm: 535, of: 'ETSI EN 300 119' },
  { mm: 584.2, of: '23 in, telephone exchanges' },
] as const;

export const rackSchema = z
  .strictObject({
    id: idField('Id'),
    name: nameField('Name'),
    placeId: idField('Place'),
    units: countField('Units', 1, 60, 'U'),
    numbering: noted(z.enum(['up', 'down']), { label: 'Numbering', help: 'up: unit 1 is at the bottom' }),
    widthMm: noted(z.number().min(200, 'is below 200').max(1200, 'is above 1200'), {
      label: 'Plate width',
      unit: 'mm',
      help: usualRackWidths.map(({ mm, of }) => `${mm}: ${of}`).join('; '),
    }),
    depthMm: noted(z.int().min(100, 'is below 100').max(2000, 'is above 2000').nullable(), {
      label: 'Depth',
      unit: 'mm',
    }),
    posts: noted(z.union([z.literal(2), z.literal(4)], 'is not 2 or 4'), { label: 'Posts' }),
    facing: noted(z.enum(['north', 'east', 'south', 'west']).nullable(), { label: 'Front faces' }),
    position: countField('Position', 0, 999),
    massLimitKg: amountField('Mass limit', 5000, 'kg'),
    feeds: noted(z.array(feedSchema).max(6), { label: 'Power feeds', internal: true }),
    notes: textField('Notes'),
  })
  .superRefine((rack, context) => {
    const names = rack.feeds.map((feed) => feed.name.toLowerCase());
    const twice = names.find((name, at) => names.indexOf(name) !== at);
    if (twice !== undefined)
      context.addIssue({ code: 'custom', path: ['feeds'], message: `hold the name ${twice} twice` });
  });
export type Rack = z.infer<typeof rackSchema>;

/** A rack with nothing filled in. */
export const blankRack: Omit<Rack, 'id' | 'name' | 'placeId'> = {
  units: 42,
  numbering: 'up',
  widthMm: nineteenInchMm,
  depthMm: null,
  posts: 4,
  facing: null,
  position: 1,
  massLimitKg: null,
  feeds: [],
  notes: null,
};

export const rackKind = defineKind({
  schema: rackSchema,
  one: 'rack',
  many: 'racks',
  refs: {
    placeId: { to: 'place', index: 'racksByPlace', onRemove: 'holds' },
  },
  indexes: {
    rackByName: (row) => row.name.toLowerCase(),
  },
  unique: [{ what: 'name', key: (row) => row.name }],
  nameOf: (row) => row.name,
  facts: { name: 'names', feeds: 'power', notes: 'notes' },
  blank: blankRack,
});
