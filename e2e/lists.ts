/** Lists as an engineer brings them, made up: a machine room of 14 racks with its links. */

const racks = 14;
const perRack = 21;
const pad = (number: number): string => String(number).padStart(2, '0');

/** What stands in each rack from the top: a switch of the catalogue, then servers and cameras that it does not know. */
const kindAt = (at: number): { name: string; maker: string; model: string; type: string } => {
  if (at === 0) return { name: 'sw', maker: 'Norvane', model: 'AX-2424P', type: 'switch' };
  if (at === 1) return { name: 'fw', maker: 'Orlo', model: 'F-12', type: 'firewall' };
  return at % 4 === 3
    ? { name: 'st', maker: 'Fennimore', model: 'TK-9', type: 'storage' }
    : { name: 'sv', maker: 'Orlo', model: 'S-40', type: 'server' };
};

interface Listed {
  name: string;
  rack: number;
  at: number;
}
const all: readonly Listed[] = Array.from({ length: racks * perRack }, (_, index) => {
  const rack = Math.floor(index / perRack) + 1;
  const at = index % perRack;
  return { name: `th-${kindAt(at).name}-${pad(rack)}${at < 2 ? '' : pad(at)}`, rack, at };
}).slice(0, 288);

const headings =
  'Hostname,Manufacturer,Model,Type,Site,Cabinet,U,Serial no.,Status,Purchase date,Price,IP address,Cost centre';

function row({ name, rack, at }: Listed): string {
  const { maker, model, type } = kindAt(at);
  const index = (rack - 1) * perRack + at;
  return [
    ...[name, maker, model, type, 'Tern Holm/Machine room', `TH-R${pad(rack)}`, String(42 - at)],
    ...[
      `TH${String(10000 + index)}`,
      at % 7 === 6 ? 'in service' : 'active',
      `${pad((index % 28) + 1)}.03.2025`,
    ],
    ...['1250.00 EUR', `10.77.${rack}.${at + 10}/24`, '4711'],
  ].join(',');
}

/** Twelve rows that cannot be taken, each for a reason of its own, and what is said of it. */
export const faults: readonly (readonly [row: string, why: string])[] = [
  ['th-sw-01,Norvane,AX-2424P,switch,Tern Holm/Machine room,TH-R01,5,,active,,,,', 'is about th-sw-01 too'],
  ['bad-02,Orlo,S-40,server,Tern Holm/Machine room,TH-R01,42,,active,,,,', 'th-sw-01 fills U42'],
  ['bad-03,Orlo,S-40,server,Tern Holm/Machine room,TH-R01,43,,active,,,,', 'TH-R01 has 42 units'],
  ['bad-04,Orlo,S-40,server,Tern Holm/Machine room,TH-R01,top,,active,,,,', 'the unit “top”'],
  ['bad-05,Orlo,S-40,server,Tern Holm/Machine room,,7,,active,,,,', 'unit 7 is given without a rack'],
  [
    'bad-06,Orlo,S-40,server,Tern Holm/Machine room,TH-R02,3,TH10000,active,,,,',
    'has the serial TH10000 too',
  ],
  ['bad-07,Orlo,S-40,server,Tern Holm/Machine room,TH-R02,3,,broken,,,,', 'the status “broken”'],
  ['bad-08,Orlo,S-40,server,Tern Holm/Machine room,TH-R02,3,,active,31.02.2025,,,', 'not a day that exists'],
  ['bad-09,Orlo,S-40,server,Tern Holm/Machine room,TH-R02,3,,active,,cheap,,', 'the price “cheap”'],
  [
    'bad-10,Orlo,S-40,server,Tern Holm/Machine room,TH-R02,3,,active,,,10.77.300.1,',
    '“10.77.300.1” is not an address',
  ],
  ['bad:11,Orlo,S-40,server,Tern Holm/Machine room,TH-R02,3,,active,,,,', 'contains a colon'],
  [',,,,Tern Holm/Machine room,TH-R02,3,,,,,,300 devices', 'it names no device'],
];

/** 300 rows: 288 good ones and the twelve. */
export const equipmentList = (): string =>
  [headings, ...all.map(row), ...faults.map(([text]) => text)].join('\r\n');

/** Each device of a rack to its switch, and the switches in a row. */
export function linkTable(): string {
  const links = all
    .filter(({ at }) => at > 0)
    .map(({ name, rack, at }) => `th-sw-${pad(rack)},gi1/${at},${name},1`);
  const across = Array.from(
    { length: racks - 1 },
    (_, at) => `th-sw-${pad(at + 1)},te1/25,th-sw-${pad(at + 2)},te1/26`,
  );
  return ['Device,Port,Device,Port', ...links, ...across].join('\r\n');
}
