import { describe, expect, test } from '@jest/globals';
import { projectionNatures, projections, type Facet, type Projection } from '@visograph/core/model';
import { files, marked, sheeted } from './testMarked.ts';

/** What each kind of fact is known by. A place is also in the titles of containers and in the title block. */
const tellingOf = (projection: Projection): Partial<Record<Facet, RegExp>> => ({
  ...telling,
  ...(projection === 'sites' ? { devices: /Sitex/, names: /Sitex|Provx|SXA|SXB/ } : {}),
  ...(projection === 'cloud'
    ? {
        containers: /Acctx|Regx|Netx|Zonex|subx/,
        names: /dvx-|tablex/,
        devices: /dvx-|tablex/,
        links: /4321|prx/,
      }
    : {}),
});
const telling: Partial<Record<Facet, RegExp>> = {
  containers: /Roomx|OSPF area/,
  devices: /dvx-|Modelx/,
  links: /LBLX|CIRCX|prx|4321/,
  names: /dvx-|Provx|SXA|SXB/,
  models: /Modelx/,
  portNames: /prx/,
  addresses: /10\.77\.\d\.[1-9]\b/,
  vlanTags: /3111|3222/,
  subnets: /10\.77\.\d\.0/,
  costs: /4321/,
  speeds: /25G|25 G/,
  cableLabels: /LBLX|CIRCX/,
  lengths: /77\.7/,
  media: /Mediumx/,
  notes: /notex/,
  titleBlock: /Projx|Titlex|r7/,
};
/** What else says the same, by nature: a prefix says part of its addresses' text, names of places stand in two facets. */
const alsoHidden: Partial<Record<Facet, readonly Facet[]>> = { containers: ['titleBlock'] };

describe.each([...projections])('%s', (projection) => {
  const network = marked();
  const all = projectionNatures[projection].shows;
  const known = tellingOf(projection);
  const shown = Object.values(files(sheeted(network, projection, all))).join('\n');

  test.each(all.filter((facet) => known[facet] !== undefined))('without %s no file holds it', (facet) => {
    const secret = known[facet] ?? /$^/;
    const show = all.filter((one) => one !== facet && alsoHidden[facet]?.includes(one) !== true);
    for (const [format, text] of Object.entries(files(sheeted(network, projection, show))))
      expect([format, secret.exec(text)?.[0]]).toEqual([format, undefined]);
  });

  test('with everything shown the facts are there, so that the search can fail', () => {
    const expected: Record<Projection, Facet[]> = {
      cabling: [
        'containers',
        'devices',
        'links',
        'names',
        'models',
        'portNames',
        'speeds',
        'cableLabels',
        'lengths',
        'media',
        'notes',
        'titleBlock',
      ],
      switching: [
        'containers',
        'devices',
        'links',
        'names',
        'portNames',
        'vlanTags',
        'speeds',
        'cableLabels',
        'notes',
        'titleBlock',
      ],
      routing: [
        'containers',
        'devices',
        'links',
        'names',
        'portNames',
        'addresses',
        'subnets',
        'costs',
        'notes',
        'titleBlock',
      ],
      cloud: [
        'containers',
        'devices',
        'links',
        'names',
        'portNames',
        'addresses',
        'subnets',
        'costs',
        'notes',
        'titleBlock',
      ],
      sites: ['devices', 'links', 'names', 'portNames', 'cableLabels', 'notes', 'titleBlock'],
    };
    const found = expected[projection].filter((facet) => known[facet]?.test(shown) === true);
    expect(found).toEqual(expected[projection]);
  });

  test('no file holds an id of a row', () => {
    expect(/[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-/.exec(shown)?.[0]).toBeUndefined();
  });
});

test('the order of nodes says nothing about hidden names', () => {
  const named = (prefix: (at: number) => string): string[] => {
    const network = marked();
    const draft = network.draft();
    [...network.all('device')]
      .sort((a, b) => (a.name < b.name ? -1 : 1))
      .forEach((device, at) => draft.put('device', { ...device, name: prefix(at) }));
    return Object.values(
      files(
        sheeted(
          draft.finish(),
          'cabling',
          projectionNatures.cabling.shows.filter((facet) => facet !== 'names'),
        ),
      ),
    );
  };
  expect(named((at) => `a${at}`)).toEqual(named((at) => `z${9 - at}`));
});
