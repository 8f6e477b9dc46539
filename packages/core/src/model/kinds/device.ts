import { z } from 'zod';
import { countField, idField, nameField, noted, refField, textField } from '../field.ts';
import { roleCodes } from '../roles.ts';

export const deviceStatuses = ['planned', 'active', 'retired'] as const;

export const deviceSchema = z
  .strictObject({
    id: idField('Id'),
    name: nameField('Name').refine(
      (name) => !name.includes(':'),
      'contains a colon, which separates device and port',
    ),
    role: noted(z.enum(roleCodes), { label: 'Role' }),
    status: noted(z.enum(deviceStatuses), { label: 'Status' }),
    modelId: refField('Model'),
    placeId: refField('Place'),
    rackId: refField('Rack'),
    unit: noted(z.int('is not a whole number').min(1, 'is below 1').max(60, 'is above 60').nullable(), {
      label: 'Unit',
      help: 'Lowest-numbered unit it fills; empty when at the side of the rack',
    }),
    units: countField('Height', 0, 60, 'U'),
    face: noted(z.enum(['front', 'rear']), { label: 'Mounted at' }),
    fullDepth: noted(z.boolean(), { label: 'Full depth' }),
    serial: textField('Serial', 80),
    notes: textField('Notes'),
  })
  .superRefine((device, context) => {
    if (device.unit !== null && device.rackId === null) {
      context.addIssue({ code: 'custom', path: ['rackId'], message: 'is missing although a unit is given' });
    }
    if (device.unit !== null && device.units === 0) {
      context.addIssue({
        code: 'custom',
        path: ['unit'],
        message: 'is given, but the device has no height (0 U)',
      });
    }
  });
export type Device = z.infer<typeof deviceSchema>;
