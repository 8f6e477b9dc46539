import { describe, expect, test } from '@jest/globals';
import { addSheet } from '../commands/sheets.ts';
import { sheetScene } from '../../report/sheetPlan.ts';
import { applyChanges } from '../../change/apply.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import { projections } from '../../model/kinds/drawings/projections.ts';
import { endPorts } from './endPorts.ts';
import { unkeptLines } from './sheetGraph.ts';

describe('the ports that a drawn link has at its plates', () => {
  test.each(projections)('on a sheet of %s of the demo every end that says a port has it', (projection) => {
    const start = demoNetwork();
    const set = addSheet(start, { scopeId: null, projection });
    const applied = applyChanges(start, set.changes);
    if (!applied.ok) throw new Error('no sheet');
    const { network } = applied;
    const sheet = network.get('sheet', set.sheetId);
    if (sheet === null) throw new Error('no sheet');
    const shown = { ...sheet, show: [...new Set([...sheet.show, 'portNames' as const])] };
    const scene = sheetScene(network, shown, {
      measure: (text) => text.length * 6,
      today: '2026-01-01',
      quick: true,
    });
    const plates = new Map(scene.plates.map((plate) => [plate.id, plate]));
    expect(scene.links.length).toBeGreaterThan(3);
    let said = 0;
    // What is worked out, such as a route of a cloud, ends at no port.
    const plugged = scene.links.filter(
      ({ kind }) => kind === 'port' || !unkeptLines.some((one) => one === kind),
    );
    for (const link of plugged)
      for (const end of [link.a, link.b]) {
        const plate = plates.get(end.plateId);
        if (plate === undefined || plate.deviceIds.length === 0) continue;
        const ports = endPorts(network, link, plate.deviceIds);
        expect(ports.length).toBeGreaterThan(0);
        const [only] = ports;
        // A run through panels, an aggregate or a bundle says other names, or a count of them.
        if (ports.length !== 1 || only === undefined || end.label === null) continue;
        if (end.label.text.includes(only.name)) said++;
      }
    expect(said).toBeGreaterThan(2);
  });
});
