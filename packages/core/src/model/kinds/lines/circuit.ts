import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { notActive } from '../../values/status.ts';
import { amountField, idField, nameField, noted, refField, textField } from '../../fields/field.ts';
import { cableStatuses } from './cable.ts';

export const circuitKinds = ['internet', 'private WAN', 'leased fibre', 'radio hop', 'VPN underlay'] as const;

/** A provider's service between two ports, or from one port into the provider's network. */
export const circuitSchema = z
  .strictObject({
    id: idField('Id'),
    number: nameField('Circuit number', 60),
    provider: noted(nameField('Provider', 80).nullable(), {
      label: 'Provider',
      help: 'Empty for a link of our own, such as a radio hop',
    }),
    kind: noted(z.enum(circuitKinds), { label: 'Kind' }),
    bandwidthBps: amountField('Bandwidth', 1e13, 'bit/s'),
    lengthM: amountField('Length', 1e7, 'm'),
    status: noted(z.enum(cableStatuses), { label: 'Status' }),
    aPortId: refField('A port'),
    bPortId: refField('B port'),
    handover: textField('Hand-over point', 200),
    notes: textField('Notes'),
  })
  .superRefine((circuit, context) => {
    if (circuit.aPortId !== null && circuit.aPortId === circuit.bPortId)
      context.addIssue({ code: 'custom', path: ['bPortId'], message: 'is the same port as the A end' });
  });
export type Circuit = z.infer<typeof circuitSchema>;

/** A circuit with nothing filled in. */
export const blankCircuit: Omit<Circuit, 'id' | 'number'> = {
  provider: null,
  kind: 'internet',
  bandwidthBps: null,
  lengthM: null,
  status: 'active',
  aPortId: null,
  bPortId: null,
  handover: null,
  notes: null,
};

export const circuitKind = defineKind({
  schema: circuitSchema,
  one: 'circuit',
  many: 'circuits',
  refs: {
    aPortId: { to: 'port', index: 'circuitByPort', onRemove: 'cleared' },
    bPortId: { to: 'port', index: 'circuitByPort', onRemove: 'cleared' },
  },
  indexes: {
    circuitsByStatus: (row) => notActive(row),
    circuitByNumber: (row) => row.number.toLowerCase(),
  },
  unique: [{ what: 'number', key: (row) => row.number }],
  nameOf: (row) => row.number,
  facts: {
    number: 'labels',
    provider: 'providers',
    handover: 'whereabouts',
    lengthM: 'lengths',
    notes: 'notes',
  },
  blank: blankCircuit,
});
