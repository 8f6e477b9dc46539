import { describe, expect, test } from '@jest/globals';
import { z } from 'zod';
import { applyChanges } from '../../change/apply.ts';
import { create } from '../../change/change.ts';
import { readExchange } from '../../exchange/read.ts';
import { blankDevice } from '../kinds/equipment/device.ts';
import { newId } from '../values/ids.ts';
import { newProject } from '../kinds/sites/project.ts';
import { kindNames, kinds } from '../kinds.ts';
import { Network } from '../network/network.ts';
import { grouped } from '../values/numbers.ts';
import { unwritableIn } from '../values/writable.ts';

const start = Network.of({ project: [newProject('Test')] });
const refused = (fields: object): string[] => {
  const row = { ...blankDevice, id: newId(), name: 'sw', role: 'SW' as const, ...fields };
  const applied = applyChanges(start, [create('device', row as never)]);
  return applied.ok ? [] : applied.problems.map((problem) => `${problem.field ?? ''}: ${problem.message}`);
};

describe('refusals speak of the thing and the field', () => {
  test('missing, of another kind, out of range, unknown', () => {
    expect(refused({ role: undefined })).toEqual([
      'role: device sw: Role is not RT, SW, FW, AP, WB, LB, SV, VM, CH, DB, FN, QU, ST, PC, PH, CM, PR, IO, PP, CA, PD, UP, MC, GW, EX or XX.',
    ]);
    expect(refused({ fillsBothFaces: 'yes' })).toEqual([
      'fillsBothFaces: device sw: Fills both faces is not true or false.',
    ]);
    expect(refused({ units: 'two' })).toEqual(['units: device sw: Height is not a number.']);
    expect(refused({ rackId: 'R1' })).toContain('rackId: device sw: Rack is not a row id (UUID).');
    expect(refused({ colour: 1 })).toEqual([': device sw: device sw has no field colour.']);
  });

  test('a file says which field, with its path', () => {
    const read = readExchange(start, {
      format: 'visograph-exchange',
      version: 1,
      devices: [
        { role: 'SW' },
        { name: 7, role: 'SW' },
        { name: 'a', role: 'SWITCH' },
        { name: 'b', rack: [] },
      ],
    });
    expect(read.ok ? [] : read.problems).toEqual([
      { path: '$.devices[0].name', message: 'name is missing.' },
      { path: '$.devices[1].name', message: 'name is not a text.' },
      { path: '$.devices[2].role', message: expect.stringMatching(/^role is not RT, SW, .* or XX\.$/) },
      { path: '$.devices[3].rack', message: 'rack is not a text.' },
    ]);
  });

  test('no kind of value in any field of any kind of row brings out the words of a library', () => {
    const values = [
      undefined,
      null,
      0,
      -1,
      1.5,
      1e99,
      '',
      'x',
      'x'.repeat(5000),
      true,
      [],
      [1],
      {},
      { a: 1 },
      NaN,
    ];
    const library =
      /\bInvalid\b|expected|received|Too (big|small)|Unrecognized|undefined|ZodError|pattern|>=|<=/;
    for (const kind of kindNames)
      for (const [field, schema] of Object.entries<z.ZodType>(kinds[kind].schema.shape))
        for (const value of values) {
          const result = schema.safeParse(value);
          for (const issue of result.success ? [] : result.error.issues)
            expect([kind, field, library.exec(issue.message)?.[0] ?? '', issue.message === '']).toEqual([
              kind,
              field,
              '',
              false,
            ]);
        }
  });
});

describe('characters that cannot be written', () => {
  test('are refused with the field: NUL, control characters, halves of surrogates', () => {
    for (const [letter, code] of [
      ['\u0000', 'U+0000'],
      ['\u0007', 'U+0007'],
      ['\u009f', 'U+009F'],
      ['\ud800', 'U+D800'],
      ['\udc00', 'U+DC00'],
      ['\uffff', 'U+FFFF'],
    ] as const) {
      expect(refused({ notes: `rack${letter}7` })).toEqual([
        `notes: device sw: Notes holds the character ${code}, which cannot be written. Take it out.`,
      ]);
      expect(refused({ name: `s${letter}w` })[0]).toContain('device sw: Name');
      expect(refused({ extra: { owner: letter } })[0]).toContain(`Own fields holds the character ${code}`);
    }
    expect(refused({ name: 'a\nb' })).toEqual(['name: device a\nb: Name holds a line break or a tab.']);
  });

  test('text of any script, combining marks, pairs of surrogates and line breaks in notes are kept', () => {
    for (const text of ['Ελλάδα', 'Привет', 'שלום', 'مرحبا', 'e\u0301', '🚢', '東京', 'one\ntwo\tthree'])
      expect([text, refused({ notes: text }), unwritableIn(text)]).toEqual([text, [], null]);
  });
});

test('thousands are apart by a space, decimals after a point', () => {
  expect([0, 999, 1000, 12345, 1234567, -1234].map((value) => grouped(value))).toEqual([
    '0',
    '999',
    '1 000',
    '12 345',
    '1 234 567',
    '-1 234',
  ]);
  expect([grouped(1234.5, 2), grouped(2n ** 64n), grouped(1999.6)]).toEqual([
    '1 234.50',
    '18 446 744 073 709 551 616',
    '2 000',
  ]);
});
