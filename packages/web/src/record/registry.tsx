import type { Kind, Row } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { CableRecord } from '../cabling/record/CableRecord.tsx';
import { CircuitRecord } from '../cabling/record/CircuitRecord.tsx';
import { PortRecord } from '../cabling/record/PortRecord.tsx';
import { ModelRecord } from '../catalogue/record/ModelRecord.tsx';
import { PlaceRecord } from '../places/record/PlaceRecord.tsx';
import { PrefixRecord } from '../addressing/record/PrefixRecord.tsx';
import { DeviceRecord } from '../racks/record/DeviceRecord.tsx';
import {
  PriceListRecord,
  ProfileRecord,
  RuleSetRecord,
  SubnetRecord,
} from '../cloud/record/CloudRecords.tsx';
import { RackRecord } from '../racks/record/RackRecord.tsx';
import { MarkRecord } from '../sheets/record/MarkRecord.tsx';
import { SheetRecord } from '../sheets/record/SheetRecord.tsx';
import { VlanRecord } from '../switching/record/VlanRecord.tsx';

/** The record of each kind that has one of its own; all others are shown by what the kind says of its fields. */
export const records: { readonly [K in Kind]?: (row: Row<K>) => ReactNode } = {
  device: (device) => <DeviceRecord device={device} />,
  port: (port) => <PortRecord port={port} />,
  cable: (cable) => <CableRecord cable={cable} />,
  circuit: (circuit) => <CircuitRecord circuit={circuit} />,
  rack: (rack) => <RackRecord rack={rack} />,
  place: (place) => <PlaceRecord place={place} />,
  vlan: (vlan) => <VlanRecord vlan={vlan} />,
  prefix: (row) => <PrefixRecord row={row} />,
  model: (model) => <ModelRecord model={model} />,
  sheet: (sheet) => <SheetRecord sheet={sheet} />,
  cloudSubnet: (subnet) => <SubnetRecord subnet={subnet} />,
  ruleSet: (set) => <RuleSetRecord set={set} />,
  cloudPriceList: (list) => <PriceListRecord list={list} />,
  providerProfile: (profile) => <ProfileRecord profile={profile} />,
  mark: (mark) => <MarkRecord mark={mark} />,
};
