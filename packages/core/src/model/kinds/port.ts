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
  passThroughStrand: noted(z.int().min(1, 'is below 1').max(288, 'is above 288').nullable(), {
    label: 'First strand',
    help: 'In a cassette: where the strands of this port begin at the common port',
  }),
  transceiverId: refField('Transceiver'),
  transceiverSerial: textField('Serial of the transceiver', 80),
  reserved: textField('Reserved for', 200),
  notes: textField('Notes'),
});
export type Port = z.infer<typeof portSchema>;

/** A port with nothing filled in. */
export const blankPort: Omit<Port, 'id' | 'deviceId' | 'name'> = {
  connector: null,
  speedBps: null,
  role: 'network',
  face: 'front',
  ordinal: 0,
  moduleId: null,
  passThroughId: null,
  passThroughStrand: null,
  transceiverId: null,
  transceiverSerial: null,
  reserved: null,
  notes: null,
};
