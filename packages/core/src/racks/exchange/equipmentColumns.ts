import type { Network } from '../../model/network/network.ts';
import { keysOf } from '../../model/values/words.ts';
import { macOf } from '../../model/values/mac.ts';
import { parseInterface } from '../../model/values/ip.ts';

/** What a column of an equipment list can hold, with the headings that say so beside the label itself. */
const fields = {
  name: ['Name', 'devicename', 'device', 'hostname', 'host', 'system', 'systemname'],
  role: ['Role', 'devicetype', 'type', 'devicerole', 'category', 'function', 'class', 'kind'],
  maker: ['Maker', 'manufacturer', 'vendor', 'brand', 'make', 'mfr'],
  model: ['Model', 'modelname', 'modelno', 'modelnumber', 'hardware', 'product', 'hardwaremodel'],
  partNumber: ['Part number', 'part', 'partno', 'pn', 'sku', 'productnumber', 'productid', 'article'],
  status: ['Status', 'state', 'lifecycle'],
  place: ['Place', 'site', 'location', 'path', 'room', 'building', 'where'],
  rack: ['Rack', 'cabinet', 'rackname'],
  unit: ['Unit', 'u', 'ru', 'position', 'rackunit', 'rackposition', 'lowestunit'],
  face: ['Face', 'mounted', 'mountedat', 'rackface'],
  units: ['Height (U)', 'height', 'heightu', 'units', 'uheight', 'size'],
  serial: ['Serial', 'serialnumber', 'serialno', 'sn'],
  address: ['Management address', 'ip', 'ipaddress', 'address', 'managementip', 'mgmtip', 'mgmt', 'ipv4'],
  mac: ['MAC address', 'mac', 'macaddr', 'ethernetaddress'],
  assetNumber: ['Asset number', 'asset', 'assetno', 'assettag', 'inventorynumber', 'inventoryno', 'tag'],
  responsible: ['Responsible', 'owner', 'contact', 'responsibleperson', 'admin'],
  supplier: ['Supplier', 'seller', 'reseller', 'boughtfrom'],
  orderNumber: ['Order', 'orderno', 'ordernumber', 'po', 'purchaseorder', 'ponumber'],
  boughtOn: ['Bought on', 'bought', 'purchased', 'purchasedate', 'purchasedon', 'dateofpurchase'],
  installedOn: ['Installed on', 'installed', 'installdate', 'installationdate', 'inservicesince'],
  price: ['Price paid', 'price', 'cost', 'value', 'purchaseprice', 'amount'],
  currency: ['Currency', 'cur'],
  warrantyUntil: ['Warranty until', 'warranty', 'warrantyend', 'endofwarranty', 'warrantyexpires'],
  contract: ['Support contract', 'contract', 'contractno', 'contractnumber', 'servicecontract'],
  supportUntil: ['Support until', 'support', 'supportend', 'contractend', 'supportexpires'],
  softwareVersion: [
    'Software version',
    'software',
    'version',
    'firmware',
    'os',
    'osversion',
    'firmwareversion',
  ],
  notes: ['Notes', 'note', 'remarks', 'remark', 'comment', 'comments', 'description'],
} as const;
export type EquipmentField = keyof typeof fields;
export const equipmentFields: readonly EquipmentField[] = keysOf<EquipmentField>(fields);
export const equipmentFieldLabel = (field: EquipmentField): string => fields[field][0];

/** Which column holds what, and which become own fields of the devices, under their headings. */
export interface EquipmentColumns {
  fields: Partial<Record<EquipmentField, number>>;
  own: number[];
}

const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, '');
const fieldOf = (cell: string): EquipmentField | undefined => {
  const name = plain(cell);
  return equipmentFields.find((field) => {
    const [label, ...others] = fields[field];
    return plain(label) === name || others.some((other) => other === name);
  });
};

/** Columns by their headings. */
export function equipmentColumnsByName(first: readonly string[]): EquipmentColumns['fields'] {
  const found: EquipmentColumns['fields'] = {};
  first.forEach((cell, column) => {
    const field = fieldOf(cell);
    if (field !== undefined && found[field] === undefined) found[field] = column;
  });
  return found;
}

const sampled = 60;
const enough = 0.6;

/**
 * Columns by what stands in them, for those that no heading names: models of the catalogue, devices that are there,
 * racks, addresses. Where none holds names, the first column in which every text is there once does.
 */
export function equipmentColumnsByContent(
  network: Network,
  rows: readonly (readonly string[])[],
  known: EquipmentColumns['fields'],
  isModel: (text: string) => boolean,
): EquipmentColumns['fields'] {
  const found: EquipmentColumns['fields'] = { ...known };
  const taken = new Set(Object.values(found));
  const sample = rows.slice(0, sampled);
  const width = Math.max(0, ...sample.map((row) => row.length));
  const cellsOf = (column: number): string[] =>
    sample.map((row) => row[column]?.trim() ?? '').filter((cell) => cell !== '');
  const tests: readonly (readonly [EquipmentField, (text: string) => boolean])[] = [
    ['name', (text) => network.findOne('deviceByName', text.toLowerCase()) !== null],
    ['model', isModel],
    ['rack', (text) => network.findOne('rackByName', text.toLowerCase()) !== null],
    ['mac', (text) => macOf(text) !== null && /[:.-]/.test(text)],
    ['address', (text) => parseInterface(text) !== null],
  ];
  for (let column = 0; column < width; column++) {
    if (taken.has(column)) continue;
    const cells = cellsOf(column);
    const field = tests.find(
      ([one, test]) =>
        found[one] === undefined && cells.length > 0 && cells.filter(test).length / cells.length >= enough,
    )?.[0];
    if (field === undefined) continue;
    found[field] = column;
    taken.add(column);
  }
  if (found.name === undefined && found.serial === undefined)
    for (let column = 0; column < width && found.name === undefined; column++) {
      const cells = cellsOf(column);
      const each = new Set(cells.map((cell) => cell.toLowerCase())).size === cells.length;
      if (!taken.has(column) && each && cells.length === sample.length) found.name = column;
    }
  return found;
}

/** Columns with a heading that nothing else is known of: they become own fields, if that is wished. */
export function ownColumns(
  first: readonly string[],
  rows: readonly (readonly string[])[],
  known: EquipmentColumns['fields'],
): number[] {
  const taken = new Set(Object.values(known));
  return first.flatMap((heading, column) =>
    heading.trim() === '' || taken.has(column) || !rows.some((row) => (row[column]?.trim() ?? '') !== '')
      ? []
      : [column],
  );
}
