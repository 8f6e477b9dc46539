import { newProject } from '../model/kinds/sites/project.ts';
/** Small networks for tests: read through the importer, as a user's file would be. */
import { readExchange } from '../exchange/read.ts';
import type { ExchangeFile } from '../exchange/format.ts';
import { Network } from '../model/network/network.ts';
import { findPort } from '../model/network/ports.ts';

export function networkOf(file: Omit<Partial<ExchangeFile>, 'format' | 'version'>): Network {
  const start = Network.of({ project: [newProject('Test')] });
  const read = readExchange(start, { format: 'visograph-exchange', version: 1, ...file });
  if (!read.ok)
    throw new Error(read.problems.map((problem) => `${problem.path} ${problem.message}`).join('\n'));
  return read.network;
}

export function portId(network: Network, title: string): string {
  const [device = '', name = ''] = title.split(':');
  const port = findPort(network, device, name);
  if (port === null) throw new Error(`no port ${title}`);
  return port.id;
}

export function deviceNamed(network: Network, name: string) {
  const device = network.findOne('deviceByName', name.toLowerCase());
  if (device === null) throw new Error(`no device ${name}`);
  return device;
}

export function rackNamed(network: Network, name: string) {
  const rack = network.findOne('rackByName', name.toLowerCase());
  if (rack === null) throw new Error(`no rack ${name}`);
  return rack;
}

/** One room with a rack of 42 U: a core switch, an access switch and two panels joined by a trunk. */
export const smallRoom = (): Network =>
  networkOf({
    places: [
      { path: 'Kelder Quay', kind: 'site', code: 'KQ' },
      { path: 'Kelder Quay/Data room', kind: 'room' },
    ],
    racks: [
      { name: 'KQ-A1', place: 'Kelder Quay/Data room', units: 42, position: 1 },
      { name: 'KQ-A2', place: 'Kelder Quay/Data room', units: 42, position: 2 },
    ],
    devices: [
      { name: 'kq-core-1', model: 'Norvane CR-6032', rack: 'KQ-A1', unit: 38 },
      { name: 'kq-acc-1', model: 'Norvane AX-2448P', rack: 'KQ-A2', unit: 40 },
      { name: 'KQ-A1-PP1', model: 'Lumenroot LP-24LC', rack: 'KQ-A1', unit: 42 },
      { name: 'KQ-A2-PP1', model: 'Lumenroot LP-24LC', rack: 'KQ-A2', unit: 42 },
      { name: 'KQ-A1-PDA', model: 'Brackwater PS-16', rack: 'KQ-A1' },
    ],
    cables: [
      { label: 'KQ-00001', type: 'OS2 duplex LC', lengthM: 2, a: 'kq-core-1:te1/1', b: 'KQ-A1-PP1:F1' },
      { label: 'KQ-00002', type: 'OS2 duplex LC', lengthM: 15, a: 'KQ-A1-PP1:R1', b: 'KQ-A2-PP1:R1' },
      { label: 'KQ-00003', type: 'OS2 duplex LC', lengthM: 1, a: 'KQ-A2-PP1:F1', b: 'kq-acc-1:te1/49' },
    ],
  });
