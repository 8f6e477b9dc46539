/** Schedules of the harbour company: each a question that is asked again whenever somebody looks. */
const column = (
  key: string,
  {
    title = null,
    total = null,
    width = null,
  }: { title?: string | null; total?: 'sum' | 'count' | 'mean' | null; width?: number | null } = {},
) => ({ key, title, width, total });

export const schedules = (dataRoom: string) => [
  {
    name: 'Cable metres by type',
    of: 'cables',
    columns: [
      column('type'),
      column('label', { total: 'count' }),
      column('lengthM', { total: 'sum' }),
      column('aDevice'),
      column('aPort'),
      column('bDevice'),
      column('bPort'),
    ],
    groups: ['type'],
    order: [{ key: 'label', descending: false }],
    notes: 'Lengths as they are recorded; ordered lengths are in the parts list.',
  },
  {
    name: 'Data room, device by device',
    of: 'devices',
    scope: dataRoom,
    columns: [
      column('rack'),
      column('unit'),
      column('name', { title: 'Device', total: 'count' }),
      column('model'),
      column('serial'),
      column('portsUsed', { total: 'sum' }),
      column('ports', { total: 'sum' }),
    ],
    filters: [{ key: 'role', test: 'is not' as const, value: 'blank' }],
    order: [
      { key: 'rack', descending: false },
      { key: 'unit', descending: true },
    ],
    numbered: true,
    blankRepeats: true,
  },
  {
    name: 'Free switch ports',
    of: 'free-ports',
    columns: [
      column('device'),
      column('port', { total: 'count' }),
      column('connector'),
      column('speed'),
      column('where'),
    ],
    filters: [{ key: 'role', test: 'is' as const, value: 'network' }],
    groups: ['device'],
  },
  {
    name: 'Subnets that fill up',
    of: 'prefixes',
    columns: [
      column('vrf', { title: 'VRF' }),
      column('prefix'),
      column('name'),
      column('place'),
      column('taken', { total: 'sum' }),
      column('use', { total: 'mean' }),
    ],
    filters: [
      { key: 'role', test: 'is' as const, value: 'subnet' },
      { key: 'use', test: 'at least' as const, value: '10' },
    ],
    order: [{ key: 'use', descending: true }],
  },
  {
    name: 'Support contracts by their end',
    of: 'inventory',
    columns: [
      column('contract'),
      column('supportUntil'),
      column('name', { title: 'Device', total: 'count' }),
      column('model'),
      column('place'),
      column('serial'),
      column('warrantyUntil'),
    ],
    filters: [{ key: 'supportUntil', test: 'is not empty' as const, value: '' }],
    groups: ['contract'],
    order: [
      { key: 'supportUntil', descending: false },
      { key: 'name', descending: false },
    ],
    notes: 'Ask for offers a quarter ahead.',
  },
];
