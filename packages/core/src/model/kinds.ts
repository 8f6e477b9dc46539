import type { z } from 'zod';
import { notesOfSchema, type FieldNotes } from './fields/field.ts';
import { creationOrder, type KindDefinition, type Reference, type Unique } from './fields/kind.ts';
import { projectKind } from './kinds/sites/project.ts';
import { vlanNumberingKind, vlanKind, portProfileKind } from './kinds/logical/vlan.ts';
import { vrfKind } from './kinds/logical/vrf.ts';
import { placeKind } from './kinds/sites/place.ts';
import { rackKind } from './kinds/sites/rack.ts';
import { modelKind } from './kinds/equipment/catalogueModel.ts';
import { deviceKind } from './kinds/equipment/device.ts';
import { moduleKind } from './kinds/equipment/module.ts';
import { portKind } from './kinds/lines/port.ts';
import { cableKind } from './kinds/lines/cable.ts';
import { legKind } from './kinds/lines/leg.ts';
import { circuitKind } from './kinds/lines/circuit.ts';
import { pathwayKind } from './kinds/sites/pathway.ts';
import { prefixKind } from './kinds/logical/prefix.ts';
import { addressKind } from './kinds/logical/address.ts';
import { routeKind, bgpSessionKind, redundancyKind } from './kinds/logical/routing.ts';
import { providerProfileKind } from './kinds/cloud/providerProfile.ts';
import { cloudAccountKind } from './kinds/cloud/cloudAccount.ts';
import { virtualNetworkKind } from './kinds/cloud/virtualNetwork.ts';
import { cloudSubnetKind } from './kinds/cloud/cloudSubnet.ts';
import { routeTableKind, cloudRouteKind } from './kinds/cloud/routeTable.ts';
import { gatewayKind, hubAttachmentKind } from './kinds/cloud/gateway.ts';
import { peeringKind } from './kinds/cloud/peering.ts';
import { instanceKind, balancerTargetKind } from './kinds/cloud/instance.ts';
import { publicAddressKind } from './kinds/cloud/publicAddress.ts';
import { prefixListKind } from './kinds/cloud/prefixList.ts';
import { ruleSetKind, trafficRuleKind, ruleSetUseKind } from './kinds/cloud/ruleSet.ts';
import { dnsZoneKind, dnsZoneUseKind, dnsRecordKind, dnsForwardKind } from './kinds/cloud/dns.ts';
import { demandedLabelKind } from './kinds/cloud/demandedLabel.ts';
import { cloudPriceListKind, cloudPriceKind, flowEstimateKind } from './kinds/cloud/cloudPrice.ts';
import { siteTemplateKind } from './kinds/logical/siteTemplate.ts';
import { sheetKind } from './kinds/drawings/sheet.ts';
import { sheetItemKind } from './kinds/drawings/sheetItem.ts';
import { sheetLinkKind } from './kinds/drawings/sheetLink.ts';
import { markKind } from './kinds/drawings/mark.ts';
import { printedLabelKind } from './kinds/reports/printedLabel.ts';
import { gridViewKind } from './kinds/reports/gridView.ts';
import { scheduleKind } from './kinds/reports/schedule.ts';
import { partsListKind, listedDeviceKind } from './kinds/purchase/partsList.ts';
import { priceKind, priceListKind } from './kinds/purchase/priceList.ts';
import { quotationKind } from './kinds/purchase/quotation.ts';
import { heldLicenceKind, reservedPartKind, stockKind } from './kinds/purchase/stock.ts';
import { kitKind } from './kinds/equipment/kit.ts';
import { waiverKind } from './kinds/review/waiver.ts';
import { requirementKind } from './kinds/review/requirement.ts';
import { ruleGradeKind } from './kinds/review/ruleGrade.ts';

export { modelTitle } from './kinds/equipment/catalogueModel.ts';

/** Every kind of row the model holds, by its name in the journal, the API and the database. */
const definitions = {
  project: projectKind,
  vlanNumbering: vlanNumberingKind,
  vrf: vrfKind,
  vlan: vlanKind,
  portProfile: portProfileKind,
  place: placeKind,
  rack: rackKind,
  model: modelKind,
  device: deviceKind,
  module: moduleKind,
  port: portKind,
  cable: cableKind,
  leg: legKind,
  circuit: circuitKind,
  pathway: pathwayKind,
  prefix: prefixKind,
  address: addressKind,
  route: routeKind,
  bgpSession: bgpSessionKind,
  redundancy: redundancyKind,
  siteTemplate: siteTemplateKind,
  providerProfile: providerProfileKind,
  cloudAccount: cloudAccountKind,
  virtualNetwork: virtualNetworkKind,
  prefixList: prefixListKind,
  ruleSet: ruleSetKind,
  trafficRule: trafficRuleKind,
  ruleSetUse: ruleSetUseKind,
  routeTable: routeTableKind,
  hubAttachment: hubAttachmentKind,
  peering: peeringKind,
  cloudRoute: cloudRouteKind,
  cloudSubnet: cloudSubnetKind,
  gateway: gatewayKind,
  instance: instanceKind,
  balancerTarget: balancerTargetKind,
  publicAddress: publicAddressKind,
  dnsZone: dnsZoneKind,
  dnsZoneUse: dnsZoneUseKind,
  dnsRecord: dnsRecordKind,
  dnsForward: dnsForwardKind,
  demandedLabel: demandedLabelKind,
  cloudPriceList: cloudPriceListKind,
  cloudPrice: cloudPriceKind,
  flowEstimate: flowEstimateKind,
  sheet: sheetKind,
  sheetItem: sheetItemKind,
  sheetLink: sheetLinkKind,
  mark: markKind,
  kit: kitKind,
  waiver: waiverKind,
  ruleGrade: ruleGradeKind,
  requirement: requirementKind,
  schedule: scheduleKind,
  gridView: gridViewKind,
  printedLabel: printedLabelKind,
  heldLicence: heldLicenceKind,
  partsList: partsListKind,
  listedDevice: listedDeviceKind,
  stock: stockKind,
  reservedPart: reservedPartKind,
  priceList: priceListKind,
  price: priceKind,
  quotation: quotationKind,
};
type Definitions = typeof definitions;
export type Kind = keyof Definitions;
export type Rows = { [K in Kind]: z.infer<Definitions[K]['schema']> };
export type Row<K extends Kind = Kind> = Rows[K];

type Values<T> = T[keyof T];
type IndexOfReference<R> = R extends { index: infer I extends string } ? I : never;
type KindIndex<K extends Kind> =
  IndexOfReference<Values<Definitions[K]['refs']>> | (keyof Definitions[K]['indexes'] & string);
type IndexKinds = { [K in Kind as KindIndex<K>]: K };
/** The ways to find rows other than by id: by a reference, or by what a kind defines besides. */
export type IndexName = keyof IndexKinds;
export type IndexKind<N extends IndexName> = IndexKinds[N];

export const kinds: { readonly [K in Kind]: KindDefinition<Rows[K]> } = definitions;

/** A kind of which only the name is known, asked with rows that are of it: the one place where that is taken for granted. */
export const anyKind = (kind: Kind): KindDefinition<Row> => kinds[kind] as KindDefinition<Row>;

/** What a row holds, by field: for what looks at rows of every kind alike. */
export type Held = Readonly<Record<string, unknown>>;
export const held = (row: Row): Held => row;

/** A row with other values in some fields. Not judged: that is for `applyChanges`, or was done before. */
export const withFields = <R extends Row>(row: R, fields: Held): R => ({ ...row, ...fields });

export const isKind = (name: string): name is Kind => name in kinds;
/** In the order in which rows can be created: what a row refers to stands before it. */
export const kindNames: readonly Kind[] = creationOrder(kinds).filter(isKind);

/** A reference to one kind. */
export type Lead = Omit<Reference, 'to'> & { to: Kind };

/** The references of a kind by the field that holds them; one that may lead to several kinds stands there for each. */
export const refsOf = (kind: Kind): [field: string, reference: Lead][] =>
  Object.entries(kinds[kind].refs).flatMap(([field, reference]) =>
    [reference.to].flat().map((to): [string, Lead] => {
      if (!isKind(to)) throw new Error(`${kind}.${field} refers to ${to}, which is no kind.`);
      return [field, { ...reference, to }];
    }),
  );

/** Whether a reference of this row leads to that kind: always, but where another field says which of several it is. */
export const leads = (row: Held, { by, to }: Pick<Lead, 'by' | 'to'>): boolean =>
  by === undefined || row[by] === to;

/** What a row is found by once in a project, or should be: first what must be unique, then what a plan keeps besides. */
export const keyRulesOf = <K extends Kind>(kind: K): readonly Unique<Rows[K]>[] => [
  ...kinds[kind].unique,
  ...(kinds[kind].kept ?? []),
];

/** The kind that a field refers to, or null; null too where it may be one of several. */
export function targetOf(kind: Kind, field: string): Kind | null {
  const to = kinds[kind].refs[field]?.to;
  return typeof to === 'string' && isKind(to) ? to : null;
}

/** Label, unit and help of a field, or null where the kind has no such field. */
export function notesOf(kind: Kind, field: string): FieldNotes | null {
  const schema = kinds[kind].schema.shape[field];
  return schema === undefined ? null : (notesOfSchema(schema) ?? { label: field });
}
