import { z } from 'zod';
import { connectorNames } from '../connectors.ts';
import { amountField, countField, idField, nameField, noted, refField, textField } from '../field.ts';
import { portRoles } from './portGroup.ts';

export const portSchema = z.strictObject({
  id: idField('Id'),
  deviceId: idField('Device'),
  name: nameField('Name', 60),
  connector: noted(z.enum(connectorNames).nullable(), { label: 'Connector' }),
  speedBps: amountField('Speed', 1e13, 'bit/s'),
  role: noted(z.enum(portRoles), { label: 'Port role' }),
  face: noted(z.enum(['front', 'rear']), { label: 'Face' }),
  ordinal: countField('Order on the device', 0, 99999),
  moduleId: refField('Module'),
  passThroughId: refField('Passes through to'),
  notes: textField('Notes'),
});
export type Port = z.infer<typeof portSchema>;
