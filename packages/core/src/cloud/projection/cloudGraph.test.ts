import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import type { ChangeSet } from '../../change/change.ts';
import { projectionNatures } from '../../model/kinds/drawings/projections.ts';
import { blankSheet, plainReading, type Reading, type Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import { bringBack, leaveOut } from '../../sheets/commands/sheets.ts';
import { planOf } from '../../sheets/projection/plan.ts';
import type { DrawingPlan } from '../../sheets/scene/drawingPlan.ts';
import { cloudOfMany } from '../../testing/testCloudOfMany.ts';
import {
  cloudOfEverything,
  everyCloud,
  subnetNamed,
  testCloud,
  testInstance,
} from '../../testing/testCloud.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import { natureOf } from '../nature.ts';
import { passageOf, setsOfPort } from '../rules/passage.ts';
import { seatsOfDevice } from '../inventory.ts';
import { classesOf } from './cloudArrows.ts';
import { subjectOf } from './cloudScope.ts';

const today = '2026-12-01';
const sheetOf = (reading: Partial<Reading> = {}, fields: Partial<Sheet> = {}): Sheet => ({
  ...blankSheet,
  ...{ id: newId(), name: 'Clouds', projection: 'cloud', show: [...projectionNatures.cloud.usual] },
  reading: { ...plainReading, ...reading },
  ...fields,
});
const plan = (network: Network, reading: Partial<Reading> = {}, fields: Partial<Sheet> = {}): DrawingPlan =>
  planOf(network, sheetOf(reading, fields), { today });
const placed = (network: Network, name: string): string => {
  const found = [...network.all('place')].find((place) => place.name === name);
  if (found === undefined) throw new Error(`no place ${name}`);
  return found.id;
};
const arrowsOf = ({ graph }: DrawingPlan): string[] => {
  const names = new Map(graph.nodes.map(({ id, name }) => [id, name]));
  return graph.links
    .filter(({ arrow }) => arrow === true)
    .map(({ a, b, text }) => `${names.get(a) ?? ''} > ${names.get(b) ?? ''}: ${text}`)
    .sort();
};
const demo = demoNetwork();

describe('a sheet of clouds', () => {
  const { graph } = plan(demo, {}, { scopeId: placed(demo, 'msf-booking') });
  const boxes = new Map(graph.containers.map((one) => [one.id, one]));
  const around = (id: string | null): string[] => {
    const box = boxes.get(id ?? '');
    return box === undefined ? [] : [box.title, ...around(box.parentId)];
  };

  test('has each subnet in its zone, that in its network, that in its region and account', () => {
    const node = graph.nodes.find(({ name }) => name === 'cl-web-2');
    expect(around(node?.containerId ?? null)).toEqual([
      'service-n1b · outward only',
      'n1b',
      'booking',
      'north-1',
      'msf-booking',
    ]);
  });

  test('says at each subnet what it is to the internet', () => {
    for (const subnet of demo.all('cloudSubnet')) {
      const box = boxes.get(subnet.id);
      const { nature } = natureOf(demo, subnet);
      expect([box?.nature, box?.title]).toEqual([nature, `${subnet.name} · ${nature}`]);
    }
    expect(new Set([...boxes.values()].flatMap(({ nature }) => nature ?? [])).size).toBe(4);
  });

  test('puts gateways on the border of their network, or into the subnet they stand in', () => {
    const borders = graph.nodes.flatMap(({ name, border }) =>
      border === undefined ? [] : [[name, border.side, boxes.get(border.of)?.title]],
    );
    expect(borders.sort()).toEqual([
      ['cl-gw-1', 'top', 'booking'],
      ['cl-vpn-1', 'right', 'booking'],
      ['to backup', 'left', 'booking'],
      ['to booking', 'right', 'backup'],
    ]);
    const nat = graph.nodes.find(({ name }) => name === 'cl-nat-1');
    expect(around(nat?.containerId ?? null)[0]).toBe('open-n1a · open');
  });

  test('joins the two firewalls of the premises by a tunnel each, and the networks by their peering', () => {
    const names = new Map(graph.nodes.map(({ id, name }) => [id, name]));
    const joins = graph.links
      .filter(({ medium }) => medium === 'tunnel' || medium === 'peering' || medium === 'uplink')
      .map(({ a, b, medium, text }) =>
        [medium, ...[names.get(a), names.get(b)].sort(), text].join(' ').trim(),
      );
    expect(joins.sort()).toEqual([
      'peering to backup to booking',
      'tunnel cl-vpn-1 kq-fw-1 BGP',
      'tunnel cl-vpn-1 kq-fw-2 BGP',
      'uplink Internet cl-gw-1',
    ]);
    const wall = graph.nodes.find(({ name }) => name === 'kq-fw-1');
    expect([wall?.outside, around(wall?.containerId ?? null)]).toEqual([true, ['Kelder Quay']]);
  });

  test('shows where packets of each subnet are sent that leave its network', () => {
    expect(arrowsOf(plan(demo, { arrows: 'routes' }, { scopeId: placed(demo, 'booking') }))).toEqual([
      '10.64.0.0/24 > cl-gw-1: 0.0.0.0/0, ::/0',
      '10.64.1.0/24 > cl-gw-1: 0.0.0.0/0, ::/0',
      '10.64.16.0/22 > cl-nat-1: 0.0.0.0/0',
      '10.64.16.0/22 > cl-vpn-1: 10.40.0.0/14',
      '10.64.20.0/22 > cl-nat-2: 0.0.0.0/0',
      '10.64.20.0/22 > cl-vpn-1: 10.40.0.0/14',
      '10.64.32.0/24 > cl-vpn-1: 10.40.0.0/14',
      '10.64.32.0/24 > to backup: 10.65.0.0/20',
    ]);
  });

  test('shows one kind of arrows at a time, or none', () => {
    const mediaOf = (reading: Partial<Reading>): Set<string> =>
      new Set(
        plan(demo, reading)
          .graph.links.filter(({ arrow }) => arrow)
          .map(({ medium }) => medium),
      );
    expect(mediaOf({})).toEqual(new Set(['route']));
    expect(mediaOf({ arrows: 'rules' })).toEqual(new Set(['rule']));
    expect(mediaOf({ arrows: 'none' })).toEqual(new Set());
  });

  test('of one network alone shows the other end of its peering as where it leads', () => {
    const alone = plan(demo, {}, { scopeId: placed(demo, 'backup') });
    expect(alone.graph.containers.map(({ title }) => title).sort()).toEqual([
      'backup',
      'n1a',
      'vault-n1a · closed',
    ]);
    const ends = alone.graph.nodes.filter(({ picks }) => picks?.kind === 'peering');
    expect(ends.map(({ name, border }) => [name, border?.side])).toEqual([['to booking', 'right']]);
    expect(alone.graph.links.filter(({ medium }) => medium === 'peering')).toEqual([]);
  });

  test('of a place without clouds is empty', () => {
    const { graph: none } = plan(demo, {}, { scopeId: placed(demo, 'Kelder Quay') });
    expect([none.nodes, none.links, none.containers]).toEqual([[], [], []]);
  });

  test('tells what is wrong where it stands: no table, no route, not accepted', () => {
    const said = (network: Network, name: string): readonly string[] | undefined =>
      plan(network).graph.nodes.find((node) => node.name === name)?.lines;
    expect(said(demo, '10.64.33.0/24')?.[0]).toBe('no route table');
    const halves = testCloud({
      peerings: [{ name: 'p', aNetwork: 'acct/north/one', bNetwork: 'acct/north/two', bAccepted: false }],
    });
    expect(said(halves, 'to two')).toEqual(['no route']);
    expect(said(halves, 'to one')).toEqual(['not accepted', 'no route']);
  });

  test('a router of the region joins networks at their border; a subnet in no zone stands in the network', () => {
    const network = everyCloud({
      cloudSubnets: [
        ...cloudOfEverything.cloudSubnets.map((one) =>
          one.name === 'side' ? { ...one, zone: undefined } : one,
        ),
      ],
    });
    const { graph: drawn } = plan(network);
    const hub = drawn.nodes.find(({ name }) => name === 'hub');
    const end = drawn.nodes.find(({ picks }) => picks?.kind === 'hubAttachment');
    expect([hub?.border, end?.border?.side]).toEqual([undefined, 'bottom']);
    expect(drawn.links.some(({ a, b }) => a === hub?.id && b === end?.id)).toBe(true);
    const side = subnetNamed(network, 'side', 'side');
    expect(drawn.containers.find(({ id }) => id === side.id)?.parentId).toBe(side.placeId);
    // A tunnel whose far end nobody documented ends where it says.
    expect(drawn.stubs.map(({ text }) => text)).toEqual(['198.51.100.9']);
  });
});

describe('who may call whom', () => {
  test('of the demo', () => {
    expect(arrowsOf(plan(demo, { arrows: 'rules' }))).toContain('cl-web-1 > cl-db-1: TCP 5432');
    expect(arrowsOf(plan(demo, { arrows: 'rules' }))).toContain(
      'Internet > cl-lb-1: http (TCP 80), https (TCP 443)',
    );
  });

  test.each([
    ['demo', demo],
    ['everything', everyCloud()],
    ['many', cloudOfMany({ networks: 1, zones: 2, tiers: 3, instances: 2, rules: 2 })],
  ])('property: in %s an arrow is there for a service exactly where its packets pass', (_name, network) => {
    const { graph } = plan(network, { arrows: 'rules', unfolded: true });
    const told = new Map(
      graph.links.filter(({ medium }) => medium === 'rule').map(({ a, b, text }) => [`${a}>${b}`, text]),
    );
    const instances = graph.nodes.filter(
      ({ form, deviceIds: [id = ''] }) =>
        form === 'device' &&
        network.findOne('gatewayByDevice', id) === null &&
        seatsOfDevice(network, id).length > 0,
    );
    expect(instances.length).toBeGreaterThan(1);
    let passing = 0;
    for (const from of instances)
      for (const to of instances) {
        if (from === to) continue;
        const [a, b] = [from, to].map(({ id }) => seatsOfDevice(network, id)[0]?.portId ?? '');
        for (const port of [22, 443, 5432, 8080]) {
          const { end } = passageOf(
            network,
            { portId: a ?? '' },
            { portId: b ?? '' },
            { protocol: 'TCP', port },
          );
          const text = told.get(`${from.id}>${to.id}`) ?? '';
          const says = text === 'anything' || new RegExp(`TCP ${port}\\b|TCP to any port`).test(text);
          if (end.passes) passing++;
          expect([from.name, to.name, port, says]).toEqual([from.name, to.name, port, end.passes]);
        }
      }
    expect(passing).toBeGreaterThan(0);
  });

  test('those whom no rule tells apart are one class, and those whom one does are not', () => {
    const apart = testCloud({
      devices: [
        testInstance('web-1', 'one', '10.1.0.11/24'),
        testInstance('web-2', 'one', '10.1.0.12/24'),
        testInstance('web-3', 'one', '10.1.0.13/24'),
        testInstance('far', 'one', '10.1.1.11/24'),
      ],
      ruleSets: [{ name: 'far', place: 'acct/north/one' }],
      trafficRules: [{ set: 'acct/north/one/far', position: 1, ports: '22', prefix: '10.1.0.12/32' }],
      ruleSetUses: [{ set: 'acct/north/one/far', port: 'far:eth0' }],
    });
    const keys = classesOf(apart, [...apart.all('device')]);
    const keyOf = (name: string) => keys.get(apart.findOne('deviceByName', name)?.id ?? '')?.key;
    expect(keyOf('web-1')).toBe(keyOf('web-3'));
    expect(keyOf('web-2')).not.toBe(keyOf('web-1'));
    const far = arrowsOf(plan(apart, { arrows: 'rules' })).filter((one) => one.includes('> far'));
    expect(far).toEqual(['web-2 > far: ssh (TCP 22)']);
  });

  test('very many arrows lead from subnet to subnet', () => {
    const many = cloudOfMany({ networks: 1, zones: 2, tiers: 3, instances: 12 });
    const arrows = plan(many, { arrows: 'rules', unfolded: true }).graph.links.filter(
      ({ medium }) => medium === 'rule',
    );
    expect(arrows.every(({ a, b }) => a.startsWith('subnet:') && b.startsWith('subnet:'))).toBe(true);
    // The instances of both zones of the second tier call those of both zones of the third.
    expect(arrows).toHaveLength(4);
  });
});

describe('instances that are alike', () => {
  const many = cloudOfMany({ networks: 1, zones: 1, tiers: 3, instances: 5 });
  const folds = (reading: Partial<Reading>) =>
    plan(many, reading).graph.nodes.filter(({ form }) => form === 'fold');

  test('are one plate from four on, and one by one where a person opened it', () => {
    expect(folds({}).map(({ deviceIds }) => deviceIds.length)).toEqual([5, 5]);
    const [first] = folds({});
    expect(folds({ unfolded: [first?.id ?? ''] })).toHaveLength(1);
    expect(folds({ unfolded: true })).toHaveLength(0);
  });

  test('are what a person gathered', () => {
    const two = [...many.all('device')].filter(({ name }) => /tier1-za-[01]$/.test(name)).map(({ id }) => id);
    const own = folds({ unfolded: true, gathered: [two] });
    expect(own.map(({ deviceIds }) => deviceIds.length)).toEqual([2]);
  });

  test('a fold calls what its members call', () => {
    const arrows = arrowsOf(plan(many, { arrows: 'rules' }));
    expect(arrows).toEqual([
      'net-0-tier1-za-0 … net-0-tier1-za-4 > net-0-tier2-za-0 … net-0-tier2-za-4: TCP 5432',
    ]);
  });
});

describe('what is left out of a sheet of clouds', () => {
  const after = (network: Network, set: ChangeSet): Network => {
    const applied = applyChanges(network, set.changes);
    if (!applied.ok) throw new Error(applied.problems[0]?.message);
    return applied.network;
  };

  test('a subnet goes with all that is in it, stays in the network, and comes back', () => {
    const sheet = sheetOf();
    const draft = demo.draft();
    draft.put('sheet', sheet);
    const start = draft.finish();
    const subnet = subnetNamed(start, 'booking', 'data-n1a');
    const subject = subjectOf(start, subnet) ?? '';
    const without = after(start, leaveOut(start, sheet, [subject]));
    const names = (network: Network): string[] =>
      planOf(network, sheet, { today }).graph.nodes.map(({ name }) => name);
    expect(names(start)).toContain('cl-db-1');
    expect(names(without)).not.toContain('cl-db-1');
    expect(names(without)).not.toContain('10.64.32.0/24');
    expect(without.count('cloudSubnet')).toBe(start.count('cloudSubnet'));
    expect(without.count('device')).toBe(start.count('device'));
    const gone = planOf(without, sheet, { today }).away;
    expect(gone.map(({ id, name }) => [id, name])).toEqual([[subject, 'data-n1a']]);
    expect(names(after(without, bringBack(without, sheet, [subject]))).sort()).toEqual(names(start).sort());
  });

  test('a network goes with its end of a peering', () => {
    const sheet = sheetOf();
    const draft = demo.draft();
    draft.put('sheet', sheet);
    const start = draft.finish();
    const backup = placed(start, 'backup');
    const without = after(start, leaveOut(start, sheet, [backup]));
    const { graph, away } = planOf(without, sheet, { today });
    expect(graph.nodes.map(({ name }) => name)).not.toContain('to booking');
    expect(graph.nodes.map(({ name }) => name)).toContain('to backup');
    expect(away.map(({ name }) => name)).toEqual(['backup']);
  });
});

test('rule sets of an arrow are those that let it in', () => {
  const { graph } = plan(demo, { arrows: 'rules' });
  const arrow = graph.links.find(({ text }) => text === 'TCP 5432');
  const [seat] = seatsOfDevice(demo, arrow?.b ?? '');
  const sets = setsOfPort(demo, seat?.portId ?? '').map(({ id }) => id);
  expect(arrow?.cables[0]?.kind).toBe('ruleSet');
  expect(sets).toContain(arrow?.cables[0]?.id);
});
