import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { connectorNames } from '../../values/connectors.ts';
import {
  amountField,
  countField,
  idField,
  macField,
  nameField,
  noted,
  refField,
  textField,
} from '../../fields/field.ts';
import { ipField } from '../../fields/ipField.ts';
import { vidSchema, vidsSchema } from '../../values/vids.ts';
import { portRoles } from '../equipment/portGroup.ts';
import { ospfSchema } from '../logical/routing.ts';
import { portSpanningTreeSchema } from '../logical/spanningTree.ts';
import { portModes, switchingFaults } from '../logical/vlan.ts';

/** A port with a connector, or one that is only configured; `virtual` is that of an instance. */
export const portForms = [
  'physical',
  'aggregate',
  'vlan',
  'subinterface',
  'loopback',
  'tunnel',
  'virtual',
] as const;
export type PortForm = (typeof portForms)[number];
/** How an aggregate is agreed on (IEEE 802.1AX); `on` is without asking the other side. */
export const lacpModes = ['active', 'passive', 'on'] as const;

export const portSchema = z
  .strictObject({
    id: idField('Id'),
    deviceId: idField('Device'),
    name: nameField('Name', 60),
    connector: noted(z.enum(connectorNames).nullable(), { label: 'Connector' }),
    speedBps: amountField('Speed', 1e13, 'bit/s'),
    role: noted(z.enum(portRoles), { label: 'Port role' }),
    face: noted(z.enum(['front', 'rear']), { label: 'Face' }),
    ordinal: countField('Order on the device', 0, 99999),
    moduleId: refField('Module'),
    leadsToId: refField('Passes through to'),
    leadsToStrand: noted(z.int().min(1, 'is below 1').max(288, 'is above 288').nullable(), {
      label: 'First strand',
      help: 'In a cassette: where the strands of this port begin at the common port',
    }),
    transceiverId: refField('Transceiver'),
    transceiverSerial: textField('Serial of the transceiver', 80),
    reserved: textField('Reserved for', 200),
    mac: macField('MAC address'),
    form: noted(z.enum(portForms), { label: 'Form' }),
    mode: noted(z.enum(portModes).nullable(), { label: 'Mode' }),
    untaggedVid: noted(vidSchema.nullable(), { label: 'Untagged VLAN' }),
    taggedVids: noted(vidsSchema.nullable(), { label: 'Tagged VLANs', help: 'Numbers and ranges, or all' }),
    voiceVid: noted(vidSchema.nullable(), { label: 'Voice VLAN' }),
    vlanNumberingId: refField('VLAN numbering'),
    aggregateId: refField('Member of'),
    lacp: noted(z.enum(lacpModes).nullable(), { label: 'LACP' }),
    parentId: refField('Runs over'),
    vid: noted(vidSchema.nullable(), {
      label: 'VLAN',
      help: 'Of a VLAN interface or a subinterface (802.1Q)',
    }),
    innerVid: noted(vidSchema.nullable(), {
      label: 'Inner VLAN',
      help: 'The second tag, for QinQ (802.1ad)',
    }),
    vrfId: refField('VRF'),
    farAddress: noted(ipField('Far end').nullable(), { label: 'Far end', help: 'Outer address of a tunnel' }),
    ospf: noted(ospfSchema.nullable(), { label: 'OSPF', internal: true }),
    spanningTree: noted(portSpanningTreeSchema.nullable(), { label: 'Spanning tree', internal: true }),
    notes: textField('Notes'),
  })
  .superRefine((port, context) => {
    const issue = (field: string, message: string): void =>
      void context.addIssue({ code: 'custom', path: [field], message });
    for (const { field, message } of switchingFaults(port)) issue(field, message);
    if (port.form !== 'physical' && port.connector !== null)
      issue('connector', `is given although a ${port.form} has none`);
    if (port.aggregateId !== null && port.form !== 'physical')
      issue('aggregateId', 'is given although only physical ports are members of an aggregate');
    if (port.aggregateId !== null && port.mode !== null)
      issue('mode', 'is given although the port is a member of an aggregate: set it there');
    if (port.lacp !== null && port.form !== 'aggregate')
      issue('lacp', 'is given although the port is no aggregate');
    if ((port.form === 'vlan' || port.form === 'subinterface') !== (port.vid !== null))
      issue('vid', port.vid === null ? 'is missing' : `is given although the port is ${port.form}`);
    if (port.innerVid !== null && port.form !== 'subinterface')
      issue('innerVid', 'is given although the port is no subinterface');
    if (port.form === 'subinterface' && port.parentId === null)
      issue('parentId', 'is missing for a subinterface');
    if (port.parentId !== null && port.form !== 'subinterface' && port.form !== 'tunnel')
      issue('parentId', 'is given although the port is neither a subinterface nor a tunnel');
    if (port.parentId === port.id) issue('parentId', 'is the port itself');
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
  leadsToId: null,
  leadsToStrand: null,
  transceiverId: null,
  transceiverSerial: null,
  reserved: null,
  mac: null,
  form: 'physical',
  mode: null,
  untaggedVid: null,
  taggedVids: null,
  voiceVid: null,
  vlanNumberingId: null,
  aggregateId: null,
  lacp: null,
  parentId: null,
  vid: null,
  innerVid: null,
  vrfId: null,
  farAddress: null,
  ospf: null,
  spanningTree: null,
  notes: null,
};

export const portKind = defineKind({
  schema: portSchema,
  one: 'port',
  many: 'ports',
  wordsFor: (row) =>
    row.form === 'physical' ? { one: 'port', many: 'ports' } : { one: 'interface', many: 'interfaces' },
  refs: {
    deviceId: { to: 'device', index: 'everyPortByDevice', onRemove: 'goes' },
    moduleId: { to: 'module', index: 'portsByModule', onRemove: 'goes' },
    leadsToId: { to: 'port', index: 'portsByLeadsTo', onRemove: 'cleared' },
    transceiverId: { to: 'model', index: 'portsByTransceiver', onRemove: 'holds' },
    vlanNumberingId: { to: 'vlanNumbering', index: 'portsByVlanNumbering', onRemove: 'holds' },
    aggregateId: { to: 'port', index: 'portsByAggregate', onRemove: 'cleared' },
    parentId: { to: 'port', index: 'portsByParent', onRemove: 'goes' },
    vrfId: { to: 'vrf', index: 'portsByVrf', onRemove: 'holds' },
  },
  indexes: {
    /** Ports with a connector; those that are only configured are in the next two. */
    portsByDevice: (row) => (row.form === 'physical' ? row.deviceId : null),
    powerPortsByDevice: (row) => (row.role === 'powerIn' || row.role === 'powerOut' ? row.deviceId : null),
    portByName: (row) => `${row.deviceId}:${row.name.toLowerCase()}`,
    /** Ports that take part in OSPF, all under `all`. */
    ospfPorts: (row) => (row.ospf === null ? null : 'all'),
    /** Ports of cassettes that share a common port, all under `all`. */
    cassettePorts: (row) => (row.leadsToStrand === null || row.leadsToId === null ? null : 'all'),
    /** Ports that a VLAN is set on, and interfaces of one, all under `all`. */
    vlanPorts: (row) => (row.mode === null && row.vid === null ? null : 'all'),
    logicalPortsByDevice: (row) => (row.form === 'physical' ? null : row.deviceId),
  },
  unique: [{ what: 'name', key: (row) => `${row.deviceId}:${row.name}` }],
  nameOf: (row) => row.name,
  titled: (row, title) => `${title('device', row.deviceId)} ${row.name}`,
  facts: {
    name: 'portNames',
    transceiverSerial: 'serials',
    reserved: 'notes',
    mac: 'addresses',
    untaggedVid: 'vlans',
    taggedVids: 'vlans',
    voiceVid: 'vlans',
    vid: 'vlans',
    innerVid: 'vlans',
    farAddress: 'addresses',
    ospf: 'protocols',
    spanningTree: 'protocols',
    notes: 'notes',
  },
  blank: blankPort,
});
