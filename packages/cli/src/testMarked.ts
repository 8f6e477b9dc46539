/** A network in which every fact can be told by its text, and all that can be saved of a sheet, for tests of what leaks. */
import { applyChanges } from '@visograph/core/change';
import { readExchange } from '@visograph/core/exchange';
import {
  blankMark,
  blankSheet,
  Network,
  newId,
  newProject,
  type Facet,
  type Projection,
} from '@visograph/core/model';
import {
  documentTitle,
  planOf,
  sceneOf,
  sheetToDot,
  sheetToGraphml,
  sheetToTopology,
  shownGraph,
} from '@visograph/core/sheets';
import { measureText } from '@visograph/drawing';
import { diagramSvg } from '@visograph/drawing/svg';

const ospf = (area: string) => ({ area, cost: 4321, network: 'broadcast' as const });
const routed = (name: string, address: string, area = '0') => ({
  name,
  mode: 'routed' as const,
  vrf: 'ops',
  addresses: [address],
  ospf: ospf(area),
});
const trunk = (name: string) => ({ name, mode: 'trunk' as const, tagged: [3111, 3222], speedBps: 25e9 });
const access = (name: string) => ({ name, mode: 'access' as const, untagged: 3111 });

/** A network in which every fact can be told by its text from every other. */
export function marked(): Network {
  const start = Network.of({ project: [newProject('Projx')] });
  const read = readExchange(start, {
    format: 'visograph-exchange',
    version: 1,
    vrfs: [{ name: 'ops' }, { name: 'cloud' }],
    vlanNumberings: [
      {
        name: 'shore',
        vlans: [
          { vid: 3111, name: 'one' },
          { vid: 3222, name: 'two' },
        ],
      },
    ],
    places: [
      { path: 'Sitex-a', kind: 'site', code: 'SXA', vlanNumbering: 'shore' },
      { path: 'Sitex-a/Roomx', kind: 'room' },
      { path: 'Sitex-b', kind: 'site', code: 'SXB', vlanNumbering: 'shore' },
      { path: 'Acctx', kind: 'account' },
      { path: 'Acctx/Regx', kind: 'region' },
      { path: 'Acctx/Regx/Zonex', kind: 'zone' },
      { path: 'Acctx/Regx/Netx', kind: 'network' },
    ],
    models: [
      { form: 'device', name: 'Modelx 7', role: 'SW', units: 1, maxPowerW: 777 },
      { form: 'cable', name: 'Mediumx', medium: 'OS2', ends: ['LC', 'LC'] },
    ],
    prefixes: [
      { prefix: '10.77.1.0/29', vrf: 'ops', role: 'transit' },
      { prefix: '10.77.2.0/30', vrf: 'ops', role: 'transit' },
      { prefix: '10.77.8.0/22', vrf: 'cloud', role: 'pool', place: 'Acctx/Regx/Netx' },
      { prefix: '10.77.8.0/24', vrf: 'cloud', place: 'Acctx/Regx/Netx' },
    ],
    virtualNetworks: [{ place: 'Acctx/Regx/Netx', vrf: 'cloud' }],
    routeTables: [{ place: 'Acctx/Regx/Netx', name: 'tablex' }],
    cloudSubnets: [
      {
        ...{ place: 'Acctx/Regx/Netx', name: 'subx', zone: 'Acctx/Regx/Zonex', prefix: 'cloud 10.77.8.0/24' },
        routeTable: 'Acctx/Regx/Netx/tablex',
      },
    ],
    gateways: [{ device: 'dvx-edge', direction: 'between', network: 'Acctx/Regx/Netx' }],
    ruleSets: [{ place: 'Acctx/Regx/Netx', name: 'setx' }],
    trafficRules: (['in', 'out'] as const).map((direction) => ({
      ...{ set: 'Acctx/Regx/Netx/setx', position: 1, direction, ports: '4321' },
    })),
    ruleSetUses: ['dvx-vm1:prx20', 'dvx-vm2:prx21'].map((port) => ({ set: 'Acctx/Regx/Netx/setx', port })),
    devices: [
      {
        name: 'dvx-sw1',
        model: 'Modelx 7',
        role: 'SW',
        place: 'Sitex-a/Roomx',
        ports: [trunk('prx1'), access('prx2'), access('prx3'), access('prx4')],
      },
      {
        name: 'dvx-sw2',
        model: 'Modelx 7',
        role: 'SW',
        place: 'Sitex-a/Roomx',
        ports: [trunk('prx5'), access('prx6')],
      },
      {
        name: 'dvx-r1',
        role: 'RT',
        place: 'Sitex-a/Roomx',
        ports: [routed('prx7', '10.77.1.1/29'), routed('prx8', '10.77.2.1/30'), { name: 'prx9' }],
      },
      { name: 'dvx-r2', role: 'RT', place: 'Sitex-a/Roomx', ports: [routed('prx10', '10.77.1.2/29')] },
      {
        name: 'dvx-r3',
        role: 'RT',
        place: 'Sitex-b',
        ports: [routed('prx11', '10.77.1.3/29'), routed('prx12', '10.77.2.2/30'), { name: 'prx13' }],
      },
      { name: 'dvx-h1', role: 'SV', place: 'Sitex-a/Roomx', ports: [{ name: 'prx14' }] },
      {
        ...{ name: 'dvx-edge', role: 'GW', place: 'Acctx/Regx/Netx', units: 0 },
        ports: [{ name: 'prx22', form: 'tunnel', farAddress: '10.77.9.9' }],
      },
      ...[1, 2].map((at) => ({
        ...{ name: `dvx-vm${at}`, role: 'VM' as const, place: 'Acctx/Regx/Netx', units: 0 },
        ports: [
          {
            ...{ name: `prx${19 + at}`, form: 'virtual' as const, vrf: 'cloud' },
            addresses: [`10.77.8.${at}/24`],
          },
        ],
      })),
      { name: 'dvx-alone', role: 'SV', place: 'Sitex-b', ports: [{ name: 'prx15' }] },
    ],
    cables: [
      ['dvx-sw1:prx1', 'dvx-sw2:prx5'],
      ['dvx-sw1:prx2', 'dvx-r1:prx7'],
      ['dvx-sw1:prx3', 'dvx-r2:prx10'],
      ['dvx-sw1:prx4', 'dvx-r3:prx11'],
      ['dvx-r1:prx8', 'dvx-r3:prx12'],
      ['dvx-sw2:prx6', 'dvx-h1:prx14'],
    ].map(([a, b], at) => ({ label: `LBLX-0000${at + 1}`, type: 'Mediumx', lengthM: 77.7, a, b })),
    circuits: [
      {
        number: 'CIRCX-1',
        provider: 'Provx',
        kind: 'private WAN',
        bandwidthBps: 25e9,
        a: 'dvx-r1:prx9',
        b: 'dvx-r3:prx13',
      },
    ],
  });
  if (!read.ok) throw new Error(read.problems.map((one) => `${one.path} ${one.message}`).join('\n'));
  const applied = applyChanges(start, read.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
}

export const sheetId = 'a0000000-0000-7000-8000-000000000000';
const scheduleId = 'a0000000-0000-7000-8000-000000000001';
/** A schedule that tells names, models and what is typed of devices. */
const listed = {
  ...{ scopeId: null, filters: [], groups: [], order: [], numbered: true, blankRepeats: false, notes: null },
  columns: ['name', 'model', 'maxPowerW'].map((key) => ({ key, title: null, width: null, total: null })),
};
export const day = '2027-01-15';

/** The network with a sheet of everything and a note on it. */
export function sheeted(network: Network, projection: Projection, show: readonly Facet[]): Network {
  const draft = network.draft();
  draft.put('sheet', {
    ...blankSheet,
    id: sheetId,
    name: 'Titlex',
    projection,
    show: [...show],
    reading: { ...blankSheet.reading, unfolded: true, wholeAddresses: true, arrows: 'rules' },
  });
  draft.put('mark', {
    ...blankMark,
    id: newId(),
    sheetId,
    form: 'note',
    x: 0,
    y: -200,
    text: 'notex',
  } as never);
  draft.put('schedule', { ...listed, id: scheduleId, name: 'Listx', of: 'devices' });
  draft.put('mark', {
    ...{ ...blankMark, id: newId(), sheetId, scheduleId },
    ...{ form: 'schedule' as const, x: 0, y: -900, height: 300 },
  });
  return draft.finish();
}

/** Every file that the sheet can be saved as and that is text. */
export function files(network: Network): Record<string, string> {
  const sheet = network.get('sheet', sheetId);
  if (sheet === null) throw new Error('no sheet');
  const plan = planOf(network, sheet, { today: day, stamp: { revision: 7, date: day } });
  const graph = shownGraph(plan);
  const title = documentTitle(plan);
  return {
    svg: diagramSvg(sceneOf(plan, { measure: measureText }), {}),
    graphml: sheetToGraphml(title, graph),
    dot: sheetToDot(title, graph),
    topology: JSON.stringify(sheetToTopology(title, graph)),
  };
}
