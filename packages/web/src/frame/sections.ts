/** The sections of the rail in the order of the work. A section stands here when it works. */
export const sections = [
  { key: 'start', label: 'Start', group: 0 },
  { key: 'places', label: 'Places', group: 0 },
  { key: 'catalogue', label: 'Catalogue', group: 0 },
  { key: 'equipment', label: 'Equipment', group: 0 },
  { key: 'cables', label: 'Cables', group: 0 },
  { key: 'vlans', label: 'VLANs', group: 0 },
  { key: 'addresses', label: 'Addresses', group: 0 },
  { key: 'cloud', label: 'Cloud', group: 0 },
  { key: 'sheets', label: 'Sheets', group: 1 },
  { key: 'review', label: 'Review', group: 1 },
  { key: 'schedules', label: 'Schedules', group: 1 },
  { key: 'parts', label: 'Parts', group: 1 },
] as const;

/** Which key goes to a section together with Alt: figures from 0 on, then letters that browsers leave alone. */
export const sectionKeys = '0123456c789p';
