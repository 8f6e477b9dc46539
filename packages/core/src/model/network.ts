import { Map as PersistentMap } from 'immutable';
import { kindNames, kinds, type Kind, type Row, type Rows } from './kinds.ts';
import { addressBlock } from './addressBlock.ts';
import { RowIndex } from './rowIndex.ts';

interface IndexDefinition<K extends Kind> {
  kind: K;
  key: (row: Rows[K]) => string | readonly string[] | null;
}
const on = <K extends Kind>(kind: K, key: IndexDefinition<K>['key']): IndexDefinition<K> => ({ kind, key });
const notActive = ({ status }: { status: string }): string | null => (status === 'active' ? null : status);
const present = (...ids: (string | null)[]): string[] => ids.filter((id) => id !== null);

/** Ways to find rows other than by id. Built when first asked for, then kept up to date with every change. */
const indexDefinitions = {
  placesByParent: on('place', (row) => row.parentId ?? 'root'),
  racksByPlace: on('rack', (row) => row.placeId),
  rackByName: on('rack', (row) => row.name.toLowerCase()),
  modelByTitle: on('model', (row) => kinds.model.nameOf(row).toLowerCase()),
  devicesByRack: on('device', (row) => row.rackId),
  devicesByPlace: on('device', (row) => row.placeId),
  devicesByModel: on('device', (row) => row.modelId),
  deviceByName: on('device', (row) => row.name.toLowerCase()),
  deviceBySerial: on('device', (row) => row.serial?.toLowerCase() ?? null),
  /** Of what is not active: planned or retired. */
  devicesByStatus: on('device', (row) => notActive(row)),
  cablesByStatus: on('cable', (row) => notActive(row)),
  circuitsByStatus: on('circuit', (row) => notActive(row)),
  prefixesByStatus: on('prefix', (row) => notActive(row)),
  modulesByDevice: on('module', (row) => row.deviceId),
  modulesByModel: on('module', (row) => row.modelId),
  portsByModule: on('port', (row) => row.moduleId),
  /** Ports with a connector; those that are only configured are in the next two. */
  portsByDevice: on('port', (row) => (row.form === 'physical' ? row.deviceId : null)),
  everyPortByDevice: on('port', (row) => row.deviceId),
  powerPortsByDevice: on('port', (row) =>
    row.role === 'powerIn' || row.role === 'powerOut' ? row.deviceId : null,
  ),
  portByName: on('port', (row) => `${row.deviceId}:${row.name.toLowerCase()}`),
  portsByPassThrough: on('port', (row) => row.passThroughId),
  cablesByPort: on('cable', (row) => present(row.aPortId, row.bPortId)),
  cableByLabel: on('cable', (row) => row.label.toLowerCase()),
  cablesByType: on('cable', (row) => row.typeId),
  legsByCable: on('leg', (row) => row.cableId),
  legByPort: on('leg', (row) => row.portId),
  circuitByPort: on('circuit', (row) => present(row.aPortId, row.bPortId)),
  circuitByNumber: on('circuit', (row) => row.number.toLowerCase()),
  pathwaysByPlace: on('pathway', (row) => [row.aPlaceId, row.bPlaceId]),
  portsByTransceiver: on('port', (row) => row.transceiverId),
  cablesBySite: on('cable', (row) => /^(.*?)-?\d+$/.exec(row.label)?.[1]?.toLowerCase() ?? null),
  placesByVlanGroup: on('place', (row) => row.vlanGroupId),
  vlansByGroup: on('vlan', (row) => row.groupId),
  vlansByVrf: on('vlan', (row) => row.vrfId),
  vlanByNumber: on('vlan', (row) => `${row.groupId}/${row.vid}`),
  vlanGroupByName: on('vlanGroup', (row) => row.name.toLowerCase()),
  vrfByName: on('vrf', (row) => row.name.toLowerCase()),
  portProfileByName: on('portProfile', (row) => row.name.toLowerCase()),
  devicesByStack: on('device', (row) => row.stack?.toLowerCase() ?? null),
  portsByAggregate: on('port', (row) => row.aggregateId),
  portsByParent: on('port', (row) => row.parentId),
  portsByVrf: on('port', (row) => row.vrfId),
  /** Ports that take part in OSPF, all under `all`. */
  ospfPorts: on('port', (row) => (row.ospf === null ? null : 'all')),
  portsByVlanGroup: on('port', (row) => row.vlanGroupId),
  logicalPortsByDevice: on('port', (row) => (row.form === 'physical' ? null : row.deviceId)),
  prefixesByVrf: on('prefix', (row) => row.vrfId ?? 'global'),
  prefixesByVlan: on('prefix', (row) => row.vlanId),
  prefixesByPlace: on('prefix', (row) => row.placeId),
  addressesByPort: on('address', (row) => row.portId),
  addressesByVrf: on('address', (row) => row.vrfId),
  /** By the host alone, whatever its VRF and prefix length. */
  addressesByHost: on('address', (row) => row.address.slice(0, row.address.indexOf('/'))),
  addressesByBlock: on('address', (row) => addressBlock(row)),
  routesByDevice: on('route', (row) => row.deviceId),
  routesByVrf: on('route', (row) => row.vrfId),
  routesByPort: on('route', (row) => row.viaPortId),
  bgpSessionsByDevice: on('bgpSession', (row) => row.deviceId),
  bgpSessionsByVrf: on('bgpSession', (row) => row.vrfId),
  redundanciesByVirtual: on('redundancy', (row) => row.virtual),
  redundanciesByPort: on('redundancy', (row) => row.portId),
  siteTemplateByName: on('siteTemplate', (row) => row.name.toLowerCase()),
  sheetsByVlan: on('sheet', (row) => row.vlanId),
  sheetsByVrf: on('sheet', (row) => row.vrfId),
  sheetsByScope: on('sheet', (row) => row.scopeId ?? 'root'),
  sheetItemsBySheet: on('sheetItem', (row) => row.sheetId),
  sheetItemsByDevice: on('sheetItem', (row) => row.deviceId),
  sheetItemsByPlace: on('sheetItem', (row) => row.placeId),
  sheetItemsByCircuit: on('sheetItem', (row) => row.circuitId),
  sheetItemsByPrefix: on('sheetItem', (row) => row.prefixId),
  sheetLinksBySheet: on('sheetLink', (row) => row.sheetId),
  sheetLinksByLine: on('sheetLink', (row) => row.cableId ?? row.circuitId ?? row.prefixId),
  marksBySheet: on('mark', (row) => row.sheetId),
  marksByDevice: on('mark', (row) => row.deviceId),
  marksByRack: on('mark', (row) => present(row.aRackId, row.bRackId)),
  marksByLinkedSheet: on('mark', (row) => row.linkSheetId),
};
type Definitions = typeof indexDefinitions;
export type IndexName = keyof Definitions;
type IndexKind<N extends IndexName> = Definitions[N]['kind'];

/** The index that leads from a row to those that hold its id in the given field. */
export const referrers: { kind: Kind; field: string; refersTo: Kind; index: IndexName }[] = [
  { kind: 'place', field: 'vlanGroupId', refersTo: 'vlanGroup', index: 'placesByVlanGroup' },
  { kind: 'vlan', field: 'groupId', refersTo: 'vlanGroup', index: 'vlansByGroup' },
  { kind: 'port', field: 'vlanGroupId', refersTo: 'vlanGroup', index: 'portsByVlanGroup' },
  { kind: 'vlan', field: 'vrfId', refersTo: 'vrf', index: 'vlansByVrf' },
  { kind: 'port', field: 'vrfId', refersTo: 'vrf', index: 'portsByVrf' },
  { kind: 'prefix', field: 'vrfId', refersTo: 'vrf', index: 'prefixesByVrf' },
  { kind: 'address', field: 'vrfId', refersTo: 'vrf', index: 'addressesByVrf' },
  { kind: 'route', field: 'vrfId', refersTo: 'vrf', index: 'routesByVrf' },
  { kind: 'bgpSession', field: 'vrfId', refersTo: 'vrf', index: 'bgpSessionsByVrf' },
  { kind: 'port', field: 'aggregateId', refersTo: 'port', index: 'portsByAggregate' },
  { kind: 'port', field: 'parentId', refersTo: 'port', index: 'portsByParent' },
  { kind: 'address', field: 'portId', refersTo: 'port', index: 'addressesByPort' },
  { kind: 'route', field: 'viaPortId', refersTo: 'port', index: 'routesByPort' },
  { kind: 'redundancy', field: 'portId', refersTo: 'port', index: 'redundanciesByPort' },
  { kind: 'prefix', field: 'vlanId', refersTo: 'vlan', index: 'prefixesByVlan' },
  { kind: 'prefix', field: 'placeId', refersTo: 'place', index: 'prefixesByPlace' },
  { kind: 'route', field: 'deviceId', refersTo: 'device', index: 'routesByDevice' },
  { kind: 'bgpSession', field: 'deviceId', refersTo: 'device', index: 'bgpSessionsByDevice' },
  { kind: 'place', field: 'parentId', refersTo: 'place', index: 'placesByParent' },
  { kind: 'rack', field: 'placeId', refersTo: 'place', index: 'racksByPlace' },
  { kind: 'device', field: 'placeId', refersTo: 'place', index: 'devicesByPlace' },
  { kind: 'sheet', field: 'scopeId', refersTo: 'place', index: 'sheetsByScope' },
  { kind: 'device', field: 'rackId', refersTo: 'rack', index: 'devicesByRack' },
  { kind: 'device', field: 'modelId', refersTo: 'model', index: 'devicesByModel' },
  { kind: 'module', field: 'deviceId', refersTo: 'device', index: 'modulesByDevice' },
  { kind: 'module', field: 'modelId', refersTo: 'model', index: 'modulesByModel' },
  { kind: 'port', field: 'moduleId', refersTo: 'module', index: 'portsByModule' },
  { kind: 'cable', field: 'typeId', refersTo: 'model', index: 'cablesByType' },
  { kind: 'port', field: 'deviceId', refersTo: 'device', index: 'everyPortByDevice' },
  { kind: 'sheetItem', field: 'deviceId', refersTo: 'device', index: 'sheetItemsByDevice' },
  { kind: 'port', field: 'transceiverId', refersTo: 'model', index: 'portsByTransceiver' },
  { kind: 'leg', field: 'cableId', refersTo: 'cable', index: 'legsByCable' },
  { kind: 'leg', field: 'portId', refersTo: 'port', index: 'legByPort' },
  { kind: 'circuit', field: 'aPortId', refersTo: 'port', index: 'circuitByPort' },
  { kind: 'pathway', field: 'aPlaceId', refersTo: 'place', index: 'pathwaysByPlace' },
  { kind: 'cable', field: 'aPortId', refersTo: 'port', index: 'cablesByPort' },
  { kind: 'port', field: 'passThroughId', refersTo: 'port', index: 'portsByPassThrough' },
  { kind: 'sheetItem', field: 'sheetId', refersTo: 'sheet', index: 'sheetItemsBySheet' },
  { kind: 'sheetItem', field: 'placeId', refersTo: 'place', index: 'sheetItemsByPlace' },
  { kind: 'sheetItem', field: 'circuitId', refersTo: 'circuit', index: 'sheetItemsByCircuit' },
  { kind: 'sheetItem', field: 'prefixId', refersTo: 'prefix', index: 'sheetItemsByPrefix' },
  { kind: 'sheetLink', field: 'prefixId', refersTo: 'prefix', index: 'sheetLinksByLine' },
  { kind: 'sheet', field: 'vlanId', refersTo: 'vlan', index: 'sheetsByVlan' },
  { kind: 'sheet', field: 'vrfId', refersTo: 'vrf', index: 'sheetsByVrf' },
  { kind: 'sheetLink', field: 'sheetId', refersTo: 'sheet', index: 'sheetLinksBySheet' },
  { kind: 'sheetLink', field: 'cableId', refersTo: 'cable', index: 'sheetLinksByLine' },
  { kind: 'sheetLink', field: 'circuitId', refersTo: 'circuit', index: 'sheetLinksByLine' },
  { kind: 'mark', field: 'sheetId', refersTo: 'sheet', index: 'marksBySheet' },
  { kind: 'mark', field: 'deviceId', refersTo: 'device', index: 'marksByDevice' },
  { kind: 'mark', field: 'aRackId', refersTo: 'rack', index: 'marksByRack' },
  { kind: 'mark', field: 'linkSheetId', refersTo: 'sheet', index: 'marksByLinkedSheet' },
];

export type Tables = { [K in Kind]: PersistentMap<string, Rows[K]> };
type AnyIndex = RowIndex<Row>;

/** A row as it was and as it is: null where it was made or removed. */
export interface Touched {
  kind: Kind;
  before: Row | null;
  after: Row | null;
}
/** How a network came about: from which, and what was touched. Forgotten when very much was. */
export interface Origin {
  base: WeakRef<Network>;
  touched: readonly Touched[];
}
const mostTouched = 500;

/**
 * A snapshot of the whole network: one table per kind, and indexes. Never changed once made; a changed network
 * shares all that did not change with the one before it.
 */
export class Network {
  private constructor(
    private readonly tables: Tables,
    private readonly indexes: Map<string, AnyIndex>,
    /** Lets what was worked out for the network before be kept where nothing changed. */
    readonly origin: Origin | null = null,
    /** The network that this one holds on plain maps; null: it is no such copy. */
    readonly plainOf: Network | null = null,
  ) {}

  private reading: Network | null = null;

  static empty(): Network {
    return new Network(emptyTables(), new Map());
  }

  /** A network of these rows, which must already be valid: from the database, or sent by the server. */
  static of(rows: Partial<{ [K in Kind]: Iterable<Rows[K]> }>): Network {
    const draft = Network.empty().draft();
    for (const kind of kindNames) for (const row of rows[kind] ?? []) draft.put(kind, row);
    return draft.finish();
  }

  /**
   * The same network on plain maps: made in the time of one pass over it, then several times quicker to read. For
   * work that reads all of it, such as the checks; no draft can be made from it.
   */
  forReading(): Network {
    if (this.plainOf !== null || this.count('port') + this.count('cable') < 3000) return this;
    if (this.reading !== null) return this.reading;
    const tables = Object.fromEntries(
      kindNames.map((kind) => [kind, new Map(this.tables[kind] as Iterable<[string, Row]>)]),
    );
    this.reading = new Network(tables as unknown as Tables, new Map(), null, this);
    return this.reading;
  }

  get<K extends Kind>(kind: K, id: string | null): Rows[K] | null {
    return id === null ? null : (this.table(kind).get(id) ?? null);
  }

  table<K extends Kind>(kind: K): PersistentMap<string, Rows[K]> {
    return this.tables[kind] as PersistentMap<string, Rows[K]>;
  }

  all<K extends Kind>(kind: K): Iterable<Rows[K]> {
    return this.table(kind).values();
  }

  count(kind: Kind): number {
    return this.tables[kind].size;
  }

  /** The rows an index has under a key, in no particular order. */
  find<N extends IndexName>(name: N, key: string): Rows[IndexKind<N>][] {
    const kind: IndexKind<N> = indexDefinitions[name].kind;
    const rows: Rows[IndexKind<N>][] = [];
    for (const id of this.named(name).ids(key)) {
      const row = this.get(kind, id);
      if (row !== null) rows.push(row);
    }
    return rows;
  }

  findOne<N extends IndexName>(name: N, key: string): Rows[IndexKind<N>] | null {
    const kind: IndexKind<N> = indexDefinitions[name].kind;
    return this.get(kind, this.named(name).first(key));
  }

  countOf(name: IndexName, key: string): number {
    return this.named(name).count(key);
  }

  /** The id of another row with the same unique key, or null. */
  sameKey<K extends Kind>(kind: K, row: Rows[K], rule: number): string | null {
    const unique = kinds[kind].unique[rule];
    const key = unique?.key(row) ?? '';
    if (key === '') return null;
    for (const id of this.unique(kind, rule).ids(key.toLowerCase())) if (id !== row.id) return id;
    return null;
  }

  /**
   * The start of a changed network. The indexes of the kinds about to be touched are built here first, so that
   * they are built once and not again in every network made from this one.
   */
  draft(touched: Iterable<Kind> = []): NetworkDraft {
    for (const kind of touched) this.prepare(kind);
    return new NetworkDraft(this.tables, this.indexes, (tables, indexes, touched) => {
      const origin = touched === null ? null : { base: new WeakRef<Network>(this), touched };
      return new Network(tables, indexes, origin);
    });
  }

  /** Builds the indexes of some kinds now, so that the first edit of them does not wait. */
  warm(wanted: readonly Kind[]): this {
    for (const kind of wanted) this.prepare(kind);
    return this;
  }

  private prepare(kind: Kind): void {
    for (const name of Object.keys(indexDefinitions) as IndexName[]) {
      if (indexDefinitions[name].kind === kind) this.named(name);
    }
    kinds[kind].unique.forEach((_rule, at) => this.unique(kind, at));
  }

  private unique<K extends Kind>(kind: K, rule: number): AnyIndex {
    return this.index(`${kind}.unique.${rule}`, kind, (row) => {
      const text = kinds[kind].unique[rule]?.key(row) ?? '';
      return text === '' ? null : text.toLowerCase();
    });
  }

  private named(name: IndexName): AnyIndex {
    const definition = indexDefinitions[name];
    return this.index(name, definition.kind, definition.key as (row: Row) => string | null);
  }

  private index<K extends Kind>(
    name: string,
    kind: K,
    key: (row: Rows[K]) => string | readonly string[] | null,
  ): AnyIndex {
    const built = this.indexes.get(name);
    if (built !== undefined) return built;
    const made =
      this.plainOf !== null ? RowIndex.forReading(key, this.all(kind)) : RowIndex.build(key, this.all(kind));
    const index = made as unknown as AnyIndex;
    this.indexes.set(name, index);
    return index;
  }
}

function emptyTables(): Tables {
  return Object.fromEntries(kindNames.map((kind) => [kind, PersistentMap()])) as unknown as Tables;
}

const kindOfIndex = (name: string): Kind =>
  name in indexDefinitions
    ? indexDefinitions[name as IndexName].kind
    : (name.slice(0, name.indexOf('.')) as Kind);

/** A network being changed: only what is touched is copied. */
export class NetworkDraft {
  private readonly tables: Tables;
  private readonly indexes = new Map<string, AnyIndex>();
  private readonly indexesOfKind = new Map<Kind, AnyIndex[]>();
  private touched: Touched[] | null = [];

  private touch(kind: Kind, before: Row | null, after: Row | null): void {
    if (this.touched === null) return;
    if (this.touched.length >= mostTouched) this.touched = null;
    else this.touched.push({ kind, before, after });
  }

  constructor(
    base: Tables,
    private readonly baseIndexes: ReadonlyMap<string, AnyIndex>,
    private readonly make: (
      tables: Tables,
      indexes: Map<string, AnyIndex>,
      touched: readonly Touched[] | null,
    ) => Network,
  ) {
    this.tables = { ...base };
  }

  get<K extends Kind>(kind: K, id: string): Rows[K] | null {
    return (this.tables[kind] as PersistentMap<string, Rows[K]>).get(id) ?? null;
  }

  put<K extends Kind>(kind: K, row: Rows[K]): void {
    const table = this.open(kind);
    const before = table.get(row.id);
    const indexes = this.indexesOfKind.get(kind) ?? [];
    table.set(row.id, row);
    this.touch(kind, before ?? null, row);
    for (const index of indexes) {
      if (before === undefined) index.add(row);
      else index.replace(before, row);
    }
  }

  drop(kind: Kind, id: string): void {
    const table = this.open(kind);
    const before = table.get(id);
    if (before === undefined) return;
    for (const index of this.indexesOfKind.get(kind) ?? []) index.remove(before);
    table.delete(id);
    this.touch(kind, before, null);
  }

  finish(): Network {
    const tables = { ...this.tables } as Record<Kind, PersistentMap<string, unknown>>;
    for (const kind of this.indexesOfKind.keys()) tables[kind] = tables[kind].asImmutable();
    const indexes = new Map(this.baseIndexes);
    for (const [name, index] of this.indexes) indexes.set(name, index.seal());
    return this.make(tables as Tables, indexes, this.touched);
  }

  private open<K extends Kind>(kind: K): PersistentMap<string, Row> {
    const tables = this.tables as unknown as Record<Kind, PersistentMap<string, Row>>;
    if (!this.indexesOfKind.has(kind)) {
      tables[kind] = tables[kind].asMutable();
      const drafts: AnyIndex[] = [];
      for (const [name, index] of this.baseIndexes) {
        if (kindOfIndex(name) !== kind) continue;
        const draft = index.draft();
        this.indexes.set(name, draft);
        drafts.push(draft);
      }
      this.indexesOfKind.set(kind, drafts);
    }
    return tables[kind];
  }
}
