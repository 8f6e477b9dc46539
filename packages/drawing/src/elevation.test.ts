import { describe, expect, test } from '@jest/globals';
import { builtInModels } from '@visograph/core/catalogue';
import { applyChanges } from '@visograph/core/change';
import { blankPlace, blankRack, Network, newId } from '@visograph/core/model';
import { addDevice, elevationScene } from '@visograph/core/racks';
import { shadingOf } from '@visograph/core/sheets';
import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { elevationSize } from './Elevation.tsx';
import { FacePlateShape } from './FacePlate.tsx';
import { FarFace, RackGauges } from './RackFrame.tsx';
import { elevationSvg } from './svg.ts';
import { shadeColour } from './shade.ts';
import { night, paper } from './tokens.ts';

const place = { ...blankPlace, id: newId(), name: 'Room', kind: 'room' as const };
const rack = { ...blankRack, id: newId(), name: 'R1', placeId: place.id, units: 12, massLimitKg: 20 };
const models = builtInModels();
let network = Network.of({ place: [place], rack: [rack], model: models });
const add = (name: string, model: string, unit: number | null): void => {
  const modelId = models.find((one) => one.name === model)?.id ?? '';
  const set = addDevice(network, { name, modelId, rackId: rack.id, placeId: null, unit });
  const applied = applyChanges(network, set?.changes ?? []);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  network = applied.network;
};
add('sw & <1>', 'AX-2448P', 10);
add('srv-1', 'T2-Rack', 5);
add('blank-1', 'Blank 1', 1);
add('strip-a', 'PS-16', null);
const scene = elevationScene(network, rack);
const front = scene.faces[0];
if (front === undefined) throw new Error('no face');
const plate = (name: string) => {
  const found = front.plates.find((one) => one.name === name);
  if (found === undefined) throw new Error(name);
  return found;
};
const markup = (name: string, detail: 'full' | 'names' | 'colours'): string =>
  renderToStaticMarkup(createElement(FacePlateShape, { plate: plate(name), tokens: paper, detail }));

describe('a face', () => {
  test('48 ports cost two shapes at most; less is drawn the further away it is', () => {
    const full = markup('sw & <1>', 'full');
    expect(full.match(/<path/g)?.length).toBeLessThanOrEqual(3);
    expect(full).toContain('sw &amp; &lt;1&gt;');
    expect(markup('sw & <1>', 'names')).toContain('<text');
    expect(markup('sw & <1>', 'names').length).toBeLessThan(full.length);
    expect(markup('sw & <1>', 'colours')).not.toContain('<text');
  });

  test('a blank is hatched and has no code; a planned device is dashed; a retired one is struck', () => {
    expect(markup('blank-1', 'full')).not.toContain('<text');
    const changed = (status: 'planned' | 'retired'): string =>
      renderToStaticMarkup(
        createElement(FacePlateShape, { plate: { ...plate('srv-1'), status }, tokens: paper }),
      );
    expect(changed('planned')).toContain('stroke-dasharray="5 3"');
    expect(changed('retired')).toContain('line-through');
  });

  test('from afar a whole face is a handful of shapes, the chosen one marked', () => {
    const far = renderToStaticMarkup(
      createElement(FarFace, {
        scene,
        face: front,
        tokens: paper,
        chosen: new Set([plate('srv-1').deviceId]),
      }),
    );
    expect((far.match(/<(path|rect)/g) ?? []).length).toBeLessThan(9);
    expect(far).toContain(paper.accent);
  });

  test('a gauge above its limit says so in words and colour', () => {
    const gauges = renderToStaticMarkup(createElement(RackGauges, { scene, width: 800, tokens: paper }));
    expect(gauges).toContain('35 of 20 kg · over');
    expect(gauges).toContain(paper.bad);
  });
});

describe('the printed elevation', () => {
  test('holds every name as text, in both themes, and a key where colours say more than roles', () => {
    for (const tokens of [paper, night]) {
      const svg = elevationSvg(scene, { tokens });
      for (const name of ['sw &amp; &lt;1&gt;', 'srv-1', 'R1 · front', 'R1 · rear'])
        expect(svg).toContain(name);
      expect(svg).toContain(tokens.surface);
    }
    const shading = shadingOf(network, network.find('devicesByRack', rack.id), 'power', {
      today: '2026-11-23',
    });
    const coloured = elevationScene(network, rack, { shading, fact: 'power' });
    const svg = elevationSvg(coloured);
    expect(svg).toContain('above 600 W');
    expect(svg).toContain('920 W');
    expect(elevationSize(coloured).height).toBeGreaterThan(elevationSize(scene).height);
  });

  test('white letters can be read on every shade (4.5 : 1, WCAG 2.2)', () => {
    const luminance = (hex: string): number => {
      const [r = 0, g = 0, b = 0] = [1, 3, 5].map((at) => {
        const value = parseInt(hex.slice(at, at + 2), 16) / 255;
        return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
      });
      return 0.2126 * r + 0.7152 * g + 0.0722 * b;
    };
    const shades = [
      ...(['ok', 'warn', 'bad', 'unknown'] as const).map((state) => ({ scale: 'state' as const, state })),
      ...([0, 1, 2, 3, 4] as const).map((step) => ({ scale: 'ramp' as const, step })),
      ...Array.from({ length: 12 }, (_, index) => ({ scale: 'set' as const, index })),
    ];
    const poor = shades
      .map((shade) => [JSON.stringify(shade), 1.05 / (luminance(shadeColour(paper, shade)) + 0.05)] as const)
      .filter(([, contrast]) => contrast < 4.5);
    expect(poor).toEqual([]);
  });
});
