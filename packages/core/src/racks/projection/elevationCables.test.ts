import { describe, expect, test } from '@jest/globals';
import { networkOf, portId, rackNamed, smallRoom } from '../../testing/testNetwork.ts';
import { elevationScene } from './elevation.ts';
import { elevationCables } from './elevationCables.ts';

const front = (network: ReturnType<typeof smallRoom>, rack: string) => {
  const scene = elevationScene(network, rackNamed(network, rack));
  const [face] = scene.faces;
  if (face === undefined) throw new Error('no face');
  return { scene, cables: elevationCables(network, scene, face) };
};

describe('cables on the face of a rack', () => {
  test('each used port of the face has its cable, with both ends, type and length to read', () => {
    const network = smallRoom();
    const { cables } = front(network, 'KQ-A1');
    expect(cables.map((cable) => cable.spoken)).toEqual([
      'KQ-00001: kq-core-1 te1/1 – KQ-A1-PP1 F1 · OS2 duplex LC · 2 m · 25G',
    ]);
    expect(cables[0]?.portIds).toEqual([portId(network, 'kq-core-1:te1/1'), portId(network, 'KQ-A1-PP1:F1')]);
    expect(cables[0]?.jacket).toBe('#D9B01F');
  });

  test('one that leaves the rack goes out at the top; one to gear at the other face is left to it', () => {
    const network = networkOf({
      places: [{ path: 'S', kind: 'site' }],
      racks: [{ name: 'R1', place: 'S', units: 20 }],
      devices: [
        { name: 'sw', model: 'Norvane AX-2424P', rack: 'R1', unit: 10 },
        { name: 'strip', model: 'Brackwater PS-16', rack: 'R1' },
        { name: 'far', role: 'SW', ports: [{ name: '1', connector: 'RJ45' }] },
      ],
      cables: [
        { label: 'X-1', type: 'Cat 6A RJ45', a: 'sw:gi1/1', b: 'far:1' },
        { label: 'X-2', type: 'power C13–C14', a: 'strip:o1', b: 'sw:psu1' },
      ],
    });
    const { cables } = front(network, 'R1');
    expect(cables.map((cable) => cable.spoken.slice(0, 3))).toEqual(['X-1']);
    const last = Number(/V(-?[\d.]+)$/.exec(cables[0]?.d ?? '')?.[1]);
    expect(last).toBeLessThan(0);
  });
});
