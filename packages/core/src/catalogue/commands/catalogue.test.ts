import { newProject } from '../../model/kinds/sites/project.ts';
import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import type { ChangeSet } from '../../change/change.ts';
import { builtInModels } from '../builtIn/index.ts';
import { blankModel } from '../../model/kinds/equipment/catalogueModel.ts';
import { pictureFault } from '../../model/kinds/equipment/pictures/picture.ts';
import { newId } from '../../model/values/ids.ts';
import type { Network } from '../../model/network/network.ts';
import { portsOf } from '../../model/network/ports.ts';
import { roleCodes, roles } from '../../model/values/roles.ts';
import { readExchange } from '../../exchange/read.ts';
import { writeExchange } from '../../exchange/write.ts';
import { Network as Networks } from '../../model/network/network.ts';
import { deviceNamed, networkOf, rackNamed, smallRoom } from '../../testing/testNetwork.ts';
import { changeModel, changeModels } from './changeModel.ts';
import { deleteDevice } from '../../racks/commands/devices.ts';
import { addKit, kitContents, kitText, placeKit } from './kits.ts';
import { deleteModel, draftModel, keepModel, modelProblems, modelWords, shareModel } from './models.ts';
import { insertModule, takeOutModule } from '../../racks/commands/modules.ts';
import { modulesFor } from '../../racks/slots.ts';
import { connect, proposeConnection } from '../../cabling/commands/cables.ts';
import { findPort } from '../../model/network/ports.ts';

function made(network: Network, set: ChangeSet | null): Network {
  const applied = set === null ? null : applyChanges(network, set.changes);
  if (applied === null || !applied.ok) throw new Error(JSON.stringify(applied?.problems));
  return applied.network;
}
function plug(network: Network, a: string, b: string): Network {
  const port = (title: string) => {
    const found = findPort(network, title.split(':')[0] ?? '', title.split(':')[1] ?? '');
    if (found === null) throw new Error(title);
    return found;
  };
  return made(network, connect(network, proposeConnection(network, port(a), port(b))));
}
const model = (network: Network, title: string) => {
  const found = network.findOne('modelByTitle', title.toLowerCase());
  if (found === null) throw new Error(title);
  return found;
};
/** A network that has the whole built-in catalogue. */
const withCatalogue = (file: Parameters<typeof networkOf>[0]): Network => {
  const start = Networks.of({
    project: [newProject('Test')],
    model: builtInModels().map((one) => ({ ...one, id: newId() })),
  });
  const read = readExchange(start, { format: 'visograph-exchange', version: 1, ...file });
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.network;
};

describe('the built-in catalogue', () => {
  test('at least 90 invented models, every one valid, and a generic one of every role', () => {
    const all = builtInModels();
    expect(all.filter((one) => one.maker !== null).length).toBeGreaterThanOrEqual(90);
    const start = Networks.of({});
    const result = applyChanges(
      start,
      all.map((one) => ({ op: 'create' as const, kind: 'model' as const, id: one.id, after: one })),
    );
    expect(result.ok ? [] : result.problems.map((problem) => problem.message)).toEqual([]);
    for (const role of roleCodes)
      expect([role, all.some((one) => one.maker === null && one.role === role)]).toEqual([role, true]);
  });

  test('every slot has a module and a cover, every module a slot', () => {
    const all = builtInModels();
    const families = new Set(all.flatMap((one) => one.slots.map((slot) => slot.family)));
    for (const one of all.filter((other) => other.form === 'module'))
      expect(families).toContain(one.moduleFamily);
    for (const family of families)
      expect(
        all.filter((one) => one.moduleFamily === family && one.portGroups.length > 0).length,
      ).toBeGreaterThan(0);
  });

  test('a search forgives: "48 poe", a part number, the role', () => {
    const find = (text: string) =>
      builtInModels()
        .filter((one) =>
          text
            .split(' ')
            .every((word) => modelWords(one, one.role === null ? '' : roles[one.role].label).includes(word)),
        )
        .map((one) => one.name);
    expect(find('48 poe')).toEqual(['AX-2448P', 'AX-3448M', 'LC-48P']);
    expect(find('os-bw90')).toEqual(['Bulwark 90']);
    expect(find('firewall 2')).toContain('Bulwark 220');
  });
});

describe('bad figures of a model', () => {
  const network = smallRoom();
  const base = { ...blankModel, id: newId(), name: 'Mine', role: 'SW' as const };
  const group = (pattern: string) => ({ pattern, connector: 'RJ45', role: 'network' }) as never;
  const wrong = (rest: object) =>
    modelProblems(network, { ...base, ...rest })
      .map((problem) => problem.message)
      .join(' ');

  test.each([
    [{ portGroups: [group('gi1-8'), group('gi5-12')] }, 'yields the port name gi5 twice'],
    [{ portGroups: [group('gi1-10000')] }, 'the pattern yields more than 1024 names'],
    [{ portGroups: [group('gi8-1')] }, 'runs backwards'],
    [{ massKg: -3 }, 'Mass is negative'],
    [{ units: 0.3 }, 'is not a whole or half number of units'],
    [{ units: 900 }, 'is above 60'],
    [{ maxPowerW: 100, typicalPowerW: 200 }, '200 W is above the maximum of 100 W'],
    [{ endOfSale: '2030-01-01', endOfSupport: '2029-01-01' }, 'is before the end of sale'],
    [{ endOfSale: '31.12.2030' }, 'is not a date such as 2031-06-30'],
    [{ priceMinor: 100 }, 'Currency is missing although a price is given'],
    [
      {
        slots: [
          { name: 'a', family: 'x', face: 'front' },
          { name: 'A', family: 'x', face: 'front' },
        ],
      },
      'hold the name a twice',
    ],
    [{ name: 'CR-6032', maker: 'Norvane' }, 'There is already a model with the name CR-6032'],
    [{ form: 'module', role: null }, 'a module needs the family of the slots it fits'],
  ])('%j', (rest, message) => expect(wrong(rest)).toContain(message));

  test('a picture must be one: PNG and plain SVG pass, scripts and disguises do not', () => {
    const svg = (text: string) => `data:image/svg+xml;base64,${btoa(text)}`;
    const pixel =
      'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
    expect(pictureFault(pixel)).toBeNull();
    expect(
      pictureFault(svg('<svg xmlns="http://www.w3.org/2000/svg"><rect width="4" height="4"/></svg>')),
    ).toBeNull();
    expect(pictureFault(svg('<svg><script>alert(1)</script></svg>'))).toContain('a script');
    expect(pictureFault(svg('<svg onload="x()"></svg>'))).toContain('an event handler');
    expect(pictureFault(svg('<svg><image href="https://x.example/a.png"/></svg>'))).toContain(
      'a link to somewhere else',
    );
    expect(pictureFault(svg('<html></html>'))).toContain('is not an SVG picture');
    expect(pictureFault(`data:image/png;base64,${btoa('GIF89a, really')}`)).toBe('is not a PNG picture');
    expect(pictureFault('data:text/html;base64,AAAA')).toBe('is neither a PNG nor an SVG picture');
  });
});

describe('own models', () => {
  test('a variant is a draft with a free name; one in use is retired, not deleted', () => {
    const network = smallRoom();
    const variant = draftModel(network, 'device', model(network, 'Norvane CR-6032'));
    expect([variant.name, variant.sharing]).toEqual(['CR-6032 variant', 'draft']);
    const after = made(network, keepModel(network, variant));
    expect(draftModel(after, 'device', model(after, 'Norvane CR-6032')).name).toBe('CR-6032 variant 2');
    expect(shareModel(after, variant, 'offered').sentence).toBe(
      'Offered Norvane CR-6032 variant to the organisation',
    );
    expect(deleteModel(after, variant).ok).toBe(true);
    const used = deleteModel(after, model(after, 'Norvane CR-6032'));
    expect(used.ok ? '' : used.why).toContain('is used by 1 devices. Retire it instead');
  });
});

describe('modules', () => {
  const chassis = () =>
    withCatalogue({
      places: [{ path: 'KQ', kind: 'site', code: 'KQ' }],
      racks: [{ name: 'R1', place: 'KQ', units: 42 }],
      devices: [
        { name: 'core', model: 'Norvane CR-9004', rack: 'R1', unit: 10 },
        { name: 'acc', model: 'Norvane AX-2448P', rack: 'R1', unit: 40 },
      ],
    });

  test('a module brings its ports, numbered by its slot; only the right family goes in', () => {
    const start = chassis();
    const core = deviceNamed(start, 'core');
    expect(new Set(modulesFor(start, core, 'slot 3').map((one) => one.name))).toEqual(
      new Set(['LC-48T', 'LC-48P', 'LC-36X', 'LC-12Q', 'LC cover']),
    );
    const after = made(start, insertModule(start, core, 'slot 3', model(start, 'Norvane LC-36X')));
    expect(
      portsOf(after, core.id)
        .map((port) => port.name)
        .slice(0, 2),
    ).toEqual(['te3/1', 'te3/2']);
    expect(portsOf(after, core.id)).toHaveLength(36);
    const wrong = applyChanges(
      start,
      insertModule(start, core, 'slot 3', model(start, 'Norvane AX supply 715')).changes,
    );
    expect(wrong.ok ? '' : wrong.problems[0]?.message).toBe(
      'slot 3 of core takes modules of the family CR-9000 line card; Norvane AX supply 715 is of AX supply.',
    );
    const nowhere = applyChanges(
      start,
      insertModule(start, core, 'slot 9', model(start, 'Norvane LC-36X')).changes,
    );
    expect(nowhere.ok ? '' : nowhere.problems[0]?.message).toContain(
      'core has no slot slot 9. It has slot 1, slot 2',
    );
  });

  test('taking out a module whose ports are cabled is refused with the list', () => {
    const start = chassis();
    const core = deviceNamed(start, 'core');
    const filled = made(start, insertModule(start, core, 'slot 1', model(start, 'Norvane LC-48T')));
    const cabled = plug(filled, 'core:gi1/7', 'acc:gi1/1');
    const [module] = cabled.find('modulesByDevice', core.id);
    if (module === undefined) throw new Error('no module');
    const refused = takeOutModule(cabled, module);
    expect(refused.ok ? '' : refused.why).toBe(
      'slot 1 of core cannot be emptied: a cable is plugged in at gi1/7 (KQ-00001). Disconnect it first.',
    );
    const out = takeOutModule(filled, module);
    expect(made(filled, out.ok ? out.set : null).count('port')).toBe(start.count('port'));
    expect(made(cabled, deleteDevice(cabled, core)).count('module')).toBe(0);
  });

  test('modules and their ports survive the exchange file', () => {
    const start = chassis();
    const filled = made(
      start,
      insertModule(start, deviceNamed(start, 'core'), 'psu1', model(start, 'Norvane CR supply 3000')),
    );
    const file = writeExchange(filled);
    expect(file.devices?.find((one) => one.name === 'core')).toMatchObject({
      modules: [{ slot: 'psu1', model: 'Norvane CR supply 3000' }],
    });
    const read = readExchange(Networks.of({ project: [newProject('x')] }), JSON.parse(JSON.stringify(file)));
    expect(read.ok && writeExchange(read.network)).toEqual({ ...file, project: file.project });
    expect(read.ok && portsOf(read.network, deviceNamed(read.network, 'core').id)[0]).toMatchObject({
      name: 'psu1',
      role: 'powerIn',
    });
  });
});

describe('changing the model of a device', () => {
  test('a panel keeps front and rear together: the run stays whole', () => {
    const network = withCatalogue({
      places: [{ path: 'KQ', kind: 'site', code: 'KQ' }],
      racks: [{ name: 'R1', place: 'KQ', units: 42 }],
      devices: [
        { name: 'panel', model: 'Lumenroot CP-48', rack: 'R1', unit: 40 },
        { name: 'acc', model: 'Norvane AX-2448P', rack: 'R1', unit: 30 },
        { name: 'box', model: 'Lumenroot Zone box 12', place: 'KQ' },
      ],
    });
    const cabled = plug(
      plug(plug(network, 'panel:F40', 'acc:gi1/1'), 'panel:R40', 'box:R1'),
      'panel:R2',
      'box:R2',
    );
    const change = changeModel(cabled, deviceNamed(cabled, 'panel'), model(cabled, 'Lumenroot CP-24'));
    expect(change.lost).toEqual([]);
    const after = made(cabled, change.attempt.ok ? change.attempt.set : null);
    const at = (label: string) => {
      const cable = after.findOne('cableByLabel', label);
      return after.get('port', cable?.aPortId ?? null);
    };
    expect(at('kq-00002')?.id).toBe(at('kq-00001')?.leadsToId);
    expect(at('kq-00003')?.name).toBe('R2');
  });

  const start = () => {
    const network = withCatalogue({
      places: [{ path: 'KQ', kind: 'site', code: 'KQ' }],
      racks: [{ name: 'R1', place: 'KQ', units: 42 }],
      devices: [
        { name: 'acc', model: 'Norvane AX-2448P', rack: 'R1', unit: 40 },
        { name: 'far', model: 'Norvane AX-2448P', rack: 'R1', unit: 30 },
      ],
    });
    return ['gi1/3', 'gi1/40', 'te1/49'].reduce(
      (at, port) => plug(at, `acc:${port}`, `far:${port}`),
      network,
    );
  };

  test('48 to 24 ports: the same name stays, others move to free ports of their kind, nothing is lost', () => {
    const network = start();
    const change = changeModel(network, deviceNamed(network, 'acc'), model(network, 'Norvane AX-2424P'));
    expect(change.stay.map((one) => one.port.name)).toEqual(['gi1/3']);
    expect(change.move.map((one) => [one.port.name, one.becomes])).toEqual([
      ['gi1/40', 'gi1/1'],
      ['te1/49', 'te1/25'],
    ]);
    expect([change.lost, change.portsBefore, change.portsAfter]).toEqual([[], 53, 29]);
    const after = made(network, change.attempt.ok ? change.attempt.set : null);
    expect(portsOf(after, deviceNamed(after, 'acc').id)).toHaveLength(29);
    expect(after.count('cable')).toBe(3);
    const back = changeModel(after, deviceNamed(after, 'acc'), model(after, 'Norvane AX-2448P'));
    expect(back.lost).toEqual([]);
  });

  test('what finds no port is told, and its cable hangs loose instead of vanishing', () => {
    const network = start();
    const change = changeModel(network, deviceNamed(network, 'acc'), model(network, 'Norvane CR-6032'));
    expect(change.lost.map((one) => [one.port.name, one.cable.label])).toEqual([
      ['gi1/3', 'KQ-00001'],
      ['gi1/40', 'KQ-00002'],
      ['te1/49', 'KQ-00003'],
    ]);
    const after = made(network, change.attempt.ok ? change.attempt.set : null);
    expect(after.findOne('cableByLabel', 'kq-00001')).toMatchObject({ aPortId: null });
    expect(change.attempt.ok && change.attempt.set.sentence).toContain('3 cables hang loose');
  });

  test('several at once: one step, cables between them counted at both ends; none of them changed is said', () => {
    const network = start();
    const both = ['acc', 'far'].map((name) => deviceNamed(network, name));
    const change = changeModels(network, both, model(network, 'Norvane AX-2424P'));
    expect([change.stay.length, change.move.length, change.lost.length]).toEqual([2, 4, 0]);
    if (!change.attempt.ok) throw new Error(change.attempt.why);
    expect(change.attempt.set.sentence).toBe('Changed the model of 2 devices to Norvane AX-2424P');
    const after = made(network, change.attempt.set);
    expect(both.map(({ id }) => portsOf(after, id).length)).toEqual([29, 29]);
    expect(
      [...after.all('cable')].every(({ aPortId, bPortId }) => aPortId !== null && bPortId !== null),
    ).toBe(true);
    const again = changeModels(
      after,
      both.map(({ name }) => deviceNamed(after, name)),
      model(after, 'Norvane AX-2424P'),
    );
    expect(again.attempt).toMatchObject({ ok: false, why: 'They are Norvane AX-2424P already.' });
  });

  test('a model that is too high for its place is refused with the reason', () => {
    const network = withCatalogue({
      places: [{ path: 'KQ' }],
      racks: [{ name: 'R1', place: 'KQ', units: 42 }],
      devices: [
        { name: 'a', model: 'Tessmark T1-Rack', rack: 'R1', unit: 10 },
        { name: 'b', model: 'Tessmark T1-Rack', rack: 'R1', unit: 11 },
      ],
    });
    const { attempt } = changeModel(network, deviceNamed(network, 'a'), model(network, 'Tessmark T2-Rack'));
    expect(attempt.ok ? '' : attempt.why).toContain('b fills U11');
  });
});

test('a kit is placed again with new names and labels, in a new rack', () => {
  const room = smallRoom();
  const kit = addKit('Core rack', kitContents(room, [rackNamed(room, 'KQ-A1')], []));
  const kept = made(room, kit);
  const row = kept.get('kit', kit.kitId);
  if (row === null) throw new Error('no kit');
  expect(kitText(row.contents)).toBe('1 rack, 3 devices, 1 cable');
  const placed = placeKit(kept, row, { placeId: rackNamed(kept, 'KQ-A1').placeId, rackId: null });
  const after = made(kept, placed.attempt.ok ? placed.attempt.set : null);
  expect(rackNamed(after, 'KQ-A3')).toMatchObject({ units: 42, position: 3 });
  expect(placed.deviceIds.map((id) => after.get('device', id)?.name).sort()).toEqual(
    ['kq-pd-1', 'KQ-A1-PP2', 'kq-core-2'].sort(),
  );
  const cable = after.findOne('cableByLabel', 'kq-00004');
  expect([
    after.get('port', cable?.aPortId ?? null)?.name,
    after.get('port', cable?.bPortId ?? null)?.name,
  ]).toEqual(['te1/1', 'F1']);
  const again = placeKit(after, row, {
    placeId: rackNamed(after, 'KQ-A1').placeId,
    rackId: rackNamed(after, 'KQ-A1').id,
  });
  expect(again.attempt.ok ? '' : again.attempt.why).toContain('cannot stand at');
});
