/** Connectors a port can have. A cage takes a pluggable transceiver or a direct-attach cable. */
export const connectors = {
  RJ45: { label: 'RJ45', family: 'copper' },
  SFP: { label: 'SFP cage', family: 'cage' },
  'SFP+': { label: 'SFP+ cage', family: 'cage' },
  SFP28: { label: 'SFP28 cage', family: 'cage' },
  'QSFP+': { label: 'QSFP+ cage', family: 'cage' },
  QSFP28: { label: 'QSFP28 cage', family: 'cage' },
  LC: { label: 'LC duplex', family: 'fibre' },
  SC: { label: 'SC duplex', family: 'fibre' },
  MPO: { label: 'MPO', family: 'fibre' },
  splice: { label: 'splice', family: 'fibre' },
  C13: { label: 'C13 outlet', family: 'power' },
  C14: { label: 'C14 inlet', family: 'power' },
  C19: { label: 'C19 outlet', family: 'power' },
  C20: { label: 'C20 inlet', family: 'power' },
  'IEC 309-16': { label: 'IEC 60309 16 A', family: 'power' },
  'IEC 309-32': { label: 'IEC 60309 32 A', family: 'power' },
  DC: { label: 'DC terminals', family: 'power' },
  USB: { label: 'USB', family: 'serial' },
  serial: { label: 'serial (D-sub 9)', family: 'serial' },
  coax: { label: 'coax', family: 'coax' },
  radio: { label: 'radio', family: 'radio' },
} as const;

export type Connector = keyof typeof connectors;
export type ConnectorFamily = (typeof connectors)[Connector]['family'];

const isConnector = (name: string): name is Connector => name in connectors;
export const connectorNames: readonly Connector[] = Object.keys(connectors).filter(isConnector);

/** Continuous current a power connector is made for, in amperes (IEC 60320-1, IEC 60309-2). */
export const ratedAmps: Partial<Record<Connector, number>> = {
  C13: 10,
  C14: 10,
  C19: 16,
  C20: 16,
  'IEC 309-16': 16,
  'IEC 309-32': 32,
};

/** Strands that a plug of this connector holds; null where it is no fibre, or where the cable decides (MPO). */
export const strandsOf: Partial<Record<Connector, number>> = { LC: 2, SC: 2, splice: 2 };
