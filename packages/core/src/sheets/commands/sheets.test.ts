import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import type { ChangeSet } from '../../change/change.ts';
import { readExchange } from '../../exchange/read.ts';
import { writeExchange } from '../../exchange/write.ts';
import { newProject } from '../../model/kinds/sites/project.ts';
import { Network } from '../../model/network/network.ts';
import { facetState } from '../../model/kinds/drawings/sheet.ts';
import { blankMark } from '../../model/kinds/drawings/mark.ts';
import { deviceNamed, rackNamed, smallRoom } from '../../testing/testNetwork.ts';
import { addMark, changeMark, copyMarks, orderMarks, removeMarks } from './marks.ts';
import { deleteDevice } from '../../racks/commands/devices.ts';
import { disconnect } from '../../cabling/commands/cables.ts';
import {
  addSheet,
  deleteSheet,
  groupOnSheet,
  placeOnSheet,
  removeView,
  saveView,
  setFacet,
  setItems,
  setLink,
  sisterSheet,
  tidySheet,
  ungroup,
  unfoldTags,
  useView,
} from './sheets.ts';

const done = (network: Network, set: ChangeSet): Network => {
  const applied = applyChanges(network, set.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
};
const start = () => {
  const room = smallRoom();
  const made = addSheet(room, { scopeId: null });
  const network = done(room, made);
  const sheet = network.get('sheet', made.sheetId);
  if (sheet === null) throw new Error('sheet');
  const again = (now: Network) => now.get('sheet', made.sheetId) ?? sheet;
  return { network, sheet, again };
};

describe('what a sheet shows', () => {
  test('a view keeps shown, faded and locked together, and is put back by name', () => {
    const { network, sheet, again } = start();
    const faded = done(network, setFacet(sheet, 'links', 'faded'));
    const saved = done(faded, saveView(again(faded), ' For the field team '));
    const other = done(saved, setFacet(again(saved), 'links', 'hidden'));
    expect(facetState(again(other), 'links')).toBe('hidden');
    const [view] = again(other).views;
    expect(view?.name).toBe('For the field team');
    if (view === undefined) throw new Error('view');
    const back = done(other, useView(again(other), view));
    expect(facetState(again(back), 'links')).toBe('faded');
    expect(again(done(back, removeView(again(back), view.name))).views).toEqual([]);
  });

  test('removing a group deletes nothing that is in it', () => {
    const { network, sheet, again } = start();
    const noted = addMark(sheet, 'note', { text: 'here' });
    let now = done(network, noted);
    now = done(now, groupOnSheet(sheet, 'Core', [deviceNamed(now, 'kq-core-1').id, noted.markId]));
    const group = again(now).groups[0]?.id ?? '';
    const count = [now.count('device'), now.count('mark')];
    now = done(now, ungroup(again(now), group));
    expect(again(now).groups).toEqual([]);
    expect([now.count('device'), now.count('mark')]).toEqual(count);
  });
});

describe('laying out afresh', () => {
  test('locked plates stay; of a selection only its own are given up', () => {
    const { network, sheet } = start();
    const [a, b, c] = ['kq-core-1', 'kq-acc-1', 'KQ-A1-PP1'].map((name) => deviceNamed(network, name).id) as [
      string,
      string,
      string,
    ];
    let now = done(
      network,
      placeOnSheet(network, sheet, new Map([a, b, c].map((id, at) => [id, { x: at * 8, y: 0 }]))),
    );
    now = done(
      now,
      setItems(now, sheet, new Map([[a, { locked: true }]]), () => 'Locked'),
    );
    const one = done(now, tidySheet(now, sheet, new Set([b])));
    expect(
      one
        .find('sheetItemsBySheet', sheet.id)
        .map((item) => item.subjectId)
        .sort(),
    ).toEqual([a, c].sort());
    const all = done(now, tidySheet(now, sheet));
    expect(all.find('sheetItemsBySheet', sheet.id).map((item) => item.subjectId)).toEqual([a]);
  });
});

describe('links by hand', () => {
  test('a slid label is kept, and forgotten when the link is as it draws itself', () => {
    const { network, sheet } = start();
    const cable = network.findOne('cableByLabel', 'kq-00002');
    if (cable === null) throw new Error('cable');
    const line = { kind: 'cable' as const, id: cable.id, label: cable.label };
    const slid = done(
      network,
      setLink(network, sheet, line, { aLabel: { x: 4, y: -12 } }, 'Slid a label of'),
    );
    expect(slid.find('sheetLinksBySheet', sheet.id)).toMatchObject([
      { subjectKind: 'cable', subjectId: cable.id, aLabel: { x: 4, y: -12 } },
    ]);
    const plain = done(slid, setLink(slid, sheet, line, { aLabel: null }, 'Let go'));
    expect(plain.count('sheetLink')).toBe(0);
    const gone = done(slid, disconnect(slid, cable));
    expect(gone.count('sheetLink')).toBe(0);
  });
});

describe('marks', () => {
  test('are added, changed, copied, ordered and removed', () => {
    const { network, sheet } = start();
    const made = addMark(sheet, 'enclosure', { x: 8, y: 8, text: 'West wing' });
    expect(made.sentence).toBe('Added an enclosure to sheet All sites · cabling');
    let now = done(network, made);
    const mark = () => {
      const found = now.get('mark', made.markId);
      if (found === null) throw new Error('mark');
      return found;
    };
    expect(mark()).toMatchObject({ level: -1, text: 'West wing' });
    now = done(now, changeMark(sheet, mark(), { tone: 'warn' }));
    const copy = copyMarks(sheet, [mark()], { x: 32, y: 32 });
    now = done(now, copy);
    expect(now.get('mark', copy.markIds[0] ?? '')).toMatchObject({ x: 40, tone: 'warn', text: 'West wing' });
    now = done(now, orderMarks(now, sheet, [mark()], 'front'));
    expect(mark().level).toBe(2);
    now = done(now, removeMarks(sheet, [mark()]));
    expect(now.count('mark')).toBe(1);
    expect(done(now, deleteSheet(now, sheet)).count('mark')).toBe(0);
  });

  test('a callout outlives the device it points at', () => {
    const { network, sheet } = start();
    const device = deviceNamed(network, 'kq-core-1');
    const made = addMark(sheet, 'callout', { text: 'replace in May', deviceId: device.id });
    const now = done(network, made);
    const after = done(now, deleteDevice(now, device));
    expect(after.get('mark', made.markId)).toMatchObject({ text: 'replace in May', deviceId: null });
  });

  test.each([
    [{ form: 'line' as const, points: [{ x: 0, y: 0 }] }, /fewer than two/],
    [{ form: 'polygon' as const }, /fewer than three/],
    [{ form: 'dimension' as const }, /missing/],
    [{ form: 'picture' as const }, /missing/],
    [{ form: 'picture' as const, picture: 'data:text/html;base64,PGI+' }, /neither a PNG nor an SVG/],
    [
      {
        form: 'picture' as const,
        picture: `data:image/svg+xml;base64,${btoa('<svg><script>x</script></svg>')}`,
      },
      /holds a script/,
    ],
    [{ form: 'note' as const, text: 'x'.repeat(4001) }, /4000/],
  ])('what is not a mark is refused: %j', ({ form, ...fields }, why) => {
    const { network, sheet } = start();
    const applied = applyChanges(network, addMark(sheet, form, { ...blankMark, ...fields }).changes);
    expect(applied.ok ? '' : applied.problems[0]?.message).toMatch(why);
  });
});

test('a sheet with everything on it is written and read back the same', () => {
  const { network, sheet, again } = start();
  const core = deviceNamed(network, 'kq-core-1');
  const cable = network.findOne('cableByLabel', 'kq-00001');
  if (cable === null) throw new Error('cable');
  const other = addSheet(network, { scopeId: null, projection: 'sites' });
  let now = done(network, other);
  const note = addMark(sheet, 'callout', { text: '**bold**', deviceId: core.id, linkSheetId: other.sheetId });
  now = done(now, note);
  now = done(
    now,
    addMark(sheet, 'dimension', { aRackId: rackNamed(now, 'KQ-A1').id, bRackId: rackNamed(now, 'KQ-A2').id }),
  );
  now = done(now, placeOnSheet(now, sheet, new Map([[core.id, { x: 16, y: 24 }]])));
  now = done(
    now,
    setLink(
      now,
      sheet,
      { kind: 'cable', id: cable.id, label: cable.label },
      { bends: [{ x: 8, y: 8 }] },
      'Bent',
    ),
  );
  now = done(now, groupOnSheet(sheet, 'Core', [core.id, note.markId]));
  now = done(now, setFacet(again(now), 'models', 'faded'));
  now = done(now, saveView(again(now), 'Field'));
  const file = writeExchange(now);
  const read = readExchange(Network.of({ project: [newProject('Test')] }), JSON.parse(JSON.stringify(file)));
  if (!read.ok) throw new Error(JSON.stringify(read.problems.slice(0, 3)));
  expect(writeExchange(read.network).sheets).toEqual(file.sheets);
  const entry = file.sheets?.find((one) => one.name === sheet.name);
  expect(entry).toMatchObject({
    faded: ['models'],
    positions: [{ device: 'kq-core-1', x: 16, y: 24 }],
    links: [{ cable: 'KQ-00001', bends: [{ x: 8, y: 8 }] }],
    groups: [{ name: 'Core', devices: ['kq-core-1'] }],
  });
  expect(entry?.marks).toHaveLength(2);
});

describe('one sheet read in several ways', () => {
  test('the sister is made once and found the next time, each with what its kind shows', () => {
    const { network, sheet } = start();
    const made = sisterSheet(network, sheet, 'switching');
    if (made.set === null) throw new Error('there already');
    const after = done(network, made.set);
    expect(after.get('sheet', made.sheetId)).toMatchObject({ projection: 'switching', scopeId: null });
    expect(after.get('sheet', made.sheetId)?.show).toContain('vlanTags');
    expect(sisterSheet(after, sheet, 'switching')).toEqual({ sheetId: made.sheetId, set: null });
    const sister = after.get('sheet', made.sheetId);
    expect(sister !== null && sisterSheet(after, sister, 'cabling')).toEqual({
      sheetId: sheet.id,
      set: null,
    });
  });

  test('numbers at the ends of a link are unfolded and folded again', () => {
    const { network, sheet, again } = start();
    const open = done(network, unfoldTags(sheet, 'line', true));
    expect(again(open).reading.unfolded).toEqual(['tags:line']);
    expect(again(done(open, unfoldTags(again(open), 'line', false))).reading.unfolded).toEqual([]);
  });

  test('of a port’s part in a subnet a sheet keeps nothing', () => {
    const { network, sheet } = start();
    const port = [...network.all('port')][0];
    const set = setLink(
      network,
      sheet,
      { kind: 'port', id: port?.id ?? '', label: 'a part' },
      { straight: true },
      'Straightened',
    );
    expect(set.changes).toEqual([]);
  });
});
