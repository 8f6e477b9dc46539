import { describe, expect, test } from '@jest/globals';
import { hostsFile, zoneFile, zoneNames } from '@visograph/core/addressing';
import { checkNetwork } from '@visograph/core/check';
import { findAnything } from '@visograph/core/commands';
import { writeExchange } from '@visograph/core/exchange';
import { allSeeing, seenBy } from '@visograph/core/lens';
import {
  allFactSorts,
  projectionNatures,
  projections,
  type FactSort,
  type Network,
  type Projection,
} from '@visograph/core/model';
import { reports, tableToCsv } from '@visograph/core/report';
import { files, marked, sheeted } from './testMarked.ts';

/** What the facts of each sort are known by in the marked network. */
const telling: Partial<Record<FactSort, RegExp>> = {
  names: /dvx-|Sitex|Roomx|SXA|SXB|Titlex|Projx/,
  models: /Modelx|Mediumx/,
  portNames: /prx/,
  addresses: /10\.77\./,
  vlans: /\b3111\b|\b3222\b/,
  protocols: /4321|OSPF area/,
  labels: /LBLX|CIRCX/,
  lengths: /77\.7/,
  providers: /Provx/,
  notes: /notex/,
};

/** What is told: without ids, and without the numbers that say where something is drawn. */
const words = (text: string): string =>
  text.replaceAll(/[0-9a-f]{8}-[0-9a-f-]{27}/g, '').replaceAll(/ [\w-]+="[-\d., MLQCZHVA%]*"/g, '');

/** All that can be made of a network and is text: drawings, graphs, schedules, findings, files, what a search says. */
function outputs(network: Network): Record<string, string> {
  const tables = reports.map((report): [string, string] => [
    report.key,
    tableToCsv(report.make(network, null)),
  ]);
  const search = ['1', 'a', 'e', 'sw'].map((words) => findAnything(network, words, 500));
  return {
    ...files(network),
    ...Object.fromEntries(tables),
    exchange: JSON.stringify(writeExchange(network)),
    findings: JSON.stringify(checkNetwork(network, '2026-11-30')),
    search: JSON.stringify(search),
    hosts: hostsFile(network),
    zones: zoneNames(network)
      .map((zone) => zoneFile(network, zone, 1) ?? '')
      .join('\n'),
  };
}
const whole = (projection: Projection): Network =>
  sheeted(marked(), projection, projectionNatures[projection].shows);

describe.each([...projections])('through the lens of an audience, on a sheet of %s', (projection) => {
  const network = whole(projection);

  test('with everything seen the facts are there, so that the search can fail', () => {
    const all = words(Object.values(outputs(seenBy(network, allSeeing))).join('\n'));
    for (const [sort, secret] of Object.entries(telling))
      expect([sort, secret.test(all)]).toEqual([sort, true]);
  });

  test.each(Object.keys(telling) as FactSort[])('without %s no output tells any of it', (hidden) => {
    const seen = seenBy(network, { sees: new Set(allFactSorts.filter((sort) => sort !== hidden)) });
    for (const [output, text] of Object.entries(outputs(seen)))
      expect([output, telling[hidden]?.exec(words(text))?.[0]]).toEqual([output, undefined]);
  });
});
