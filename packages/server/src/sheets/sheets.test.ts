import { unzipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { type ChangeSet } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import {
  devicesIn,
  projectionNatures,
  newId,
  placesWithin,
  projections,
  type Facet,
  type Network,
  type Sheet,
} from '@visograph/core/model';
import { addMark, addSheet, setFacet, setSheet, setItems } from '@visograph/core/sheets';
import { readPdf } from './printing/testPdf.ts';
import { testServer, type Caller, type TestServer } from '../testServer.ts';

let server: TestServer;
let ben: Caller;
let rita: Caller;
let projectId: string;

const network = async (): Promise<Network> => (await server.store.read(projectId)).network;
const sheet = async (name: string): Promise<Sheet> => {
  const found = [...(await network()).all('sheet')].find((one) => one.name === name);
  if (found === undefined) throw new Error(name);
  return found;
};
const send = async (who: Caller, { changes, sentence }: ChangeSet) =>
  who.call<{ detail: string }>('POST', `/projects/${projectId}/changes`, { id: newId(), changes, sentence });
const at = (of: Sheet, what: string): string => `/projects/${projectId}/sheets/${of.id}/${what}`;

beforeAll(async () => {
  server = await testServer();
  [ben, rita] = await Promise.all([
    server.caller('ben@marrow.example'),
    server.caller('rita@marrow.example'),
  ]);
  projectId = (await ben.call<{ id: string }[]>('GET', '/projects')).body[0]?.id ?? '';
}, 60_000);
afterAll(async () => server.end());
jest.setTimeout(120_000);

describe('a sheet on paper', () => {
  test('PDF: A3 across, its text can be read back, its title block is on it', async () => {
    const reply = await rita.call('GET', at(await sheet('Data room · cabling'), 'pdf'));
    expect(reply.status).toBe(200);
    const { pages, bookmarks } = await readPdf(reply.bytes);
    expect(pages).toHaveLength(1);
    expect(
      [pages[0]?.width, pages[0]?.height].map((points) => Math.round(((points ?? 0) / 72) * 25.4)),
    ).toEqual([420, 297]);
    for (const text of ['kq-core-1', 'CR-6032', 'hu1/31', 'Marrow Sound Ferries', 'Data room · cabling'])
      expect(pages[0]?.text).toContain(text);
    expect(bookmarks).toEqual(['Data room · cabling']);
  });

  test('several sheets in one file, each with its bookmark; tiled over A4 it takes several pages', async () => {
    const [one, two] = [await sheet('Data room · cabling'), await sheet('Kelder Quay · cabling')];
    const reply = await ben.call('POST', `/projects/${projectId}/print`, {
      sheetIds: [one.id, two.id],
      page: { size: 'A4', fit: false, scale: 0.5 },
    });
    const { pages, bookmarks } = await readPdf(reply.bytes);
    expect(bookmarks).toEqual([one.name, two.name]);
    expect(pages.length).toBeGreaterThan(2);
    expect(pages.map((page) => page.text).join(' ')).toMatch(/1\s+\/\s+\d+\s+row\s+1,\s+column\s+1/);
  });

  test('sheets and schedules as a set: contents that lead to each, every page numbered', async () => {
    const [one, two] = [await sheet('Data room · cabling'), await sheet('Kelder Quay · cabling')];
    const schedules = [...(await network()).all('schedule')]
      .sort((a, b) => (a.name < b.name ? -1 : 1))
      .slice(0, 2);
    const order = {
      sheetIds: [one.id, two.id],
      scheduleIds: schedules.map(({ id }) => id),
      title: 'As built',
      page: { size: 'A3' as const },
    };
    const reply = await rita.call('POST', `/projects/${projectId}/print`, order);
    const names = [one.name, two.name, ...schedules.map(({ name }) => name)];
    const { pages, bookmarks, links } = await readPdf(reply.bytes);
    expect(bookmarks).toEqual(['Contents', ...names]);
    pages.forEach((page, at) =>
      expect(page.text).toMatch(new RegExp(`\\b${at + 1}\\s+/\\s+${pages.length}$`)),
    );
    expect(pages[0]?.text).toMatch(/^As built/);
    // What the contents say of a page is true: it bears the name, and the link leads there.
    expect(links.map(({ from }) => from)).toEqual([0, 0, 0, 0]);
    links.forEach(({ to }, at) => {
      const name = names[at] ?? '';
      expect(pages[0]?.text).toMatch(
        new RegExp(`${name.replace(/[^\\w ]/g, '.')} (Sheet|Schedule)\\s+${to + 1}\\b`),
      );
      expect(pages[to]?.text).toContain(name);
    });
    expect(links.map(({ to }) => to).slice(0, 3)).toEqual([1, 2, 3]);
  });

  test('a set of nothing, or with a schedule that is gone, is refused by name', async () => {
    const nothing = await rita.call('POST', `/projects/${projectId}/print`, { sheetIds: [] });
    expect([nothing.status, nothing.body]).toMatchObject([422, { title: 'Nothing to print' }]);
    const gone = await rita.call('POST', `/projects/${projectId}/print`, {
      sheetIds: [],
      scheduleIds: ['01920000-0000-7000-8000-000000000000'],
    });
    expect([gone.status, gone.body]).toMatchObject([404, { detail: expect.stringContaining('schedule') }]);
  });

  test('a file of each comes in one archive', async () => {
    const [one, two] = [await sheet('Data room · cabling'), await sheet('Kelder Quay · cabling')];
    const body = { sheetIds: [one.id, two.id] };
    const reply = await rita.call('POST', `/projects/${projectId}/print-each`, body);
    const files = unzipSync(reply.bytes);
    expect(Object.keys(files)).toEqual([`${one.name}.pdf`, `${two.name}.pdf`]);
    const { pages } = await readPdf(files[`${two.name}.pdf`] ?? new Uint8Array());
    expect(pages[0]?.text).toContain('kq-acc-5');
  });

  test('PNG at 1 and at 2: twice as wide; a scale that cannot be is refused', async () => {
    const of = await sheet('Data room · cabling');
    const width = async (query: string): Promise<number> => {
      const { bytes } = await rita.call('GET', at(of, `png?${query}`));
      expect([...bytes.slice(0, 4)]).toEqual([0x89, 0x50, 0x4e, 0x47]);
      return new DataView(bytes.buffer, bytes.byteOffset).getUint32(16);
    };
    const [once, twice] = [await width('scale=1'), await width('scale=2&transparent=1')];
    expect(Math.abs(twice - 2 * once)).toBeLessThan(4);
    const refused = await rita.call<{ detail: string }>('GET', at(of, 'png?scale=9'));
    expect([refused.status, refused.body.detail]).toEqual([422, 'scale is not a number from 0.1 to 4.']);
  });

  test('bundles as on the sheet, in lanes, or each link by itself; another word is refused', async () => {
    const of = await sheet('Data room · cabling');
    const svg = async (query: string): Promise<string> => {
      const { bytes } = await rita.call('GET', at(of, `svg${query}`));
      return new TextDecoder().decode(bytes);
    };
    const count = (text: string): number => [...text.matchAll(/<title>\d+ links of [^<]*, /g)].length;
    expect(count(await svg(''))).toBeGreaterThan(3);
    for (const way of ['open', 'never']) expect(count(await svg(`?bundles=${way}`))).toBe(0);
    expect(await svg('?bundles=closed')).toBe(await svg(''));
    const refused = await rita.call<{ detail: string }>('GET', at(of, 'pdf?bundles=knotted'));
    expect([refused.status, refused.body.detail]).toEqual([
      422,
      'bundles is knotted, not closed, open, never.',
    ]);
  });

  test('what is hidden is in none of the files', async () => {
    const made = addSheet(await network(), {
      scopeId: (await sheet('Data room · cabling')).scopeId,
      name: 'Hidden',
    });
    await send(ben, made);
    for (const facet of ['names', 'cableLabels', 'portNames', 'models', 'notes'] as const)
      await send(ben, setFacet(await sheet('Hidden'), facet, 'hidden'));
    const of = await sheet('Hidden');
    await send(ben, addMark(of, 'note', { text: 'the safe is behind KQ-A1' }));
    const secret = /kq-core-1|KQ-000\d\d|hu1\/31|CR-6032|the safe/;
    const svg = (await rita.call('GET', at(of, 'svg'))).text;
    // The fonts inside are long lines of letters.
    expect(svg.replace(/base64,[^)]*/g, '').match(secret)?.[0]).toBeUndefined();
    const { pages } = await readPdf((await rita.call('GET', at(of, 'pdf'))).bytes);
    expect(pages[0]?.text.match(secret)?.[0]).toBeUndefined();
    for (const format of ['graphml', 'dot', 'topology'])
      expect(
        (await rita.call('GET', at(of, `graph?format=${format}`))).text.match(secret)?.[0],
      ).toBeUndefined();
    const shown = await rita.call('GET', at(await sheet('Data room · cabling'), 'svg'));
    expect(shown.text.includes('kq-core-1')).toBe(true);
  });

  /** Text chunks of a PNG (tEXt, zTXt, iTXt): a picture has none, so that it tells nothing besides what is seen. */
  const textChunks = (png: Buffer): string[] => {
    const found: string[] = [];
    for (let at = 8; at < png.length; at += png.readUInt32BE(at) + 12)
      found.push(png.toString('latin1', at + 4, at + 8));
    return found.filter((name) => /^(tEXt|zTXt|iTXt|eXIf)$/.test(name));
  };

  test('each facet hidden in turn on each projection: PDF and PNG do not hold it', async () => {
    const now = await network();
    const text = (list: Iterable<string>): string[] => [...new Set(list)].filter((one) => one.length > 3);
    for (const projection of projections) {
      const scope = projection === 'cloud' ? 'msf-booking' : 'Ashholm';
      const place = [...now.all('place')].find((one) => one.name === scope);
      const inside = new Set(devicesIn(now, placesWithin(now, place?.id ?? null)).map((device) => device.id));
      const ports = [...now.all('port')].filter((port) => inside.has(port.deviceId));
      const facts: Partial<Record<Facet, string[]>> = {
        names: text([...inside].map((id) => now.get('device', id)?.name ?? '')),
        models: text(
          [...inside].map((id) => now.get('model', now.get('device', id)?.modelId ?? null)?.name ?? ''),
        ),
        portNames: text(ports.map((port) => port.name).filter((name) => /\/|^tun/.test(name))),
        cableLabels: text([...now.all('cable')].map((cable) => cable.label)),
        subnets: text([...now.all('prefix')].map((row) => row.prefix)),
        addresses: text([...now.all('address')].map((row) => row.address.split('/')[0] ?? '')),
        titleBlock: ['Marrow Sound Ferries'],
      };
      const name = `Ashholm hides ${projection}`;
      await send(ben, addSheet(await network(), { scopeId: place?.id ?? null, name, projection }));
      const made = await sheet(name);
      const reading = { ...made.reading, wholeAddresses: true };
      const all = [...projectionNatures[projection].shows];
      await send(ben, editRow(await network(), 'sheet', made, { show: all, reading }));
      const shown =
        (await readPdf((await rita.call('GET', at(await sheet(name), 'pdf'))).bytes)).pages[0]?.text ?? '';
      for (const [facet, values] of Object.entries(facts) as [Facet, string[]][]) {
        if (!all.includes(facet)) continue;
        await send(
          ben,
          editRow(await network(), 'sheet', await sheet(name), { show: all.filter((one) => one !== facet) }),
        );
        const of = await sheet(name);
        const pdf = await rita.call('GET', at(of, 'pdf'));
        const { pages, bookmarks } = await readPdf(pdf.bytes);
        const read = [
          ...pages.map((page) => page.text),
          ...bookmarks,
          Buffer.from(pdf.bytes).toString('latin1'),
        ].join('\n');
        const told = values.filter((value) =>
          new RegExp(`(?<![\\w.])${value.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?![\\w/])`).test(read),
        );
        expect([projection, facet, told]).toEqual([projection, facet, []]);
        if (facet === 'names') {
          const png = await rita.call('GET', at(of, 'png?scale=1'));
          expect(textChunks(Buffer.from(png.bytes))).toEqual([]);
          expect(values.some((value) => shown.includes(value)) || projection === 'sites').toBe(true);
        }
      }
    }
  }, 300_000);

  test('a note with hostile markup is text in the drawing', async () => {
    const of = await sheet('Data room · cabling');
    await send(ben, addMark(of, 'note', { text: '<script>alert(1)</script>', width: 300 }));
    const { text } = await rita.call('GET', at(await sheet('Data room · cabling'), 'svg'));
    // Told as a number: the drawing is long.
    expect(text.split('&lt;script&gt;').length).toBeGreaterThan(1);
    expect(text.search(/<script/i)).toBe(-1);
  });

  test('a symbol of a model is drawn in SVG and in PDF', async () => {
    const symbol = `data:image/svg+xml;base64,${Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"><text x="1" y="8">sym</text></svg>',
    ).toString('base64')}`;
    const model = [...(await network()).all('model')].find((one) => one.name === 'CR-6032');
    if (model === undefined) throw new Error('model');
    const changed = await send(ben, {
      changes: [{ op: 'update', kind: 'model', id: model.id, before: { symbol: null }, after: { symbol } }],
      sentence: 'Symbol',
    });
    expect(changed.status).toBe(200);
    const of = await sheet('Data room · cabling');
    expect((await rita.call('GET', at(of, 'svg'))).text.includes(symbol)).toBe(true);
    const { pages } = await readPdf((await rita.call('GET', at(of, 'pdf'))).bytes);
    expect(pages[0]?.text).toContain('sym');
  });

  test('a sheet that is gone, a reader who writes, paper that is none: told', async () => {
    const of = await sheet('Kelder Quay · cabling');
    expect((await rita.call('GET', at({ ...of, id: newId() }, 'pdf'))).status).toBe(404);
    expect((await send(rita, setFacet(of, 'links', 'faded'))).status).toBe(403);
    const page = { ...of.page, marginMm: 90 };
    const refused = await send(ben, setSheet(of, { page }, 'the paper'));
    expect([refused.status, refused.body.detail]).toEqual([422, expect.stringMatching(/above 50/)]);
  });
});

test('two people who place one device at the same moment: one of them is told, nothing is half done', async () => {
  const of = await sheet('Kelder Quay · cabling');
  const now = await network();
  const device = now.findOne('deviceByName', 'kq-fw-2')?.id ?? '';
  const place = (x: number): ChangeSet => setItems(now, of, new Map([[device, { x, y: 0 }]]), () => 'Moved');
  const anna = await server.caller('anna@marrow.example');
  const replies = await Promise.all([send(ben, place(8)), send(anna, place(16))]);
  const refused = replies.find((reply) => reply.status !== 200);
  expect(replies.filter((reply) => reply.status === 200)).toHaveLength(1);
  expect(refused?.body.detail).toMatch(/kq-fw-2.*moved by somebody/);
  expect(
    (await network()).find('sheetItemsBySheet', of.id).filter((item) => item.subjectId === device),
  ).toHaveLength(1);
});

test('a topology becomes an exchange file, and what cannot be read is told', async () => {
  const of = await sheet('Data room · cabling');
  const { text } = await rita.call('GET', at(of, 'graph?format=topology'));
  const read = await rita.call<{ devices: { name: string }[] }>('POST', '/topology?place=Hall', text);
  expect(read.body.devices.map((device) => device.name)).toContain('kq-core-1');
  const refused = await rita.call<{ detail: string }>('POST', '/topology', '{}');
  expect([refused.status, refused.body.detail]).toEqual([422, expect.stringMatching(/RFC 8345/)]);
});
