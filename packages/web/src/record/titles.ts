import { modelTitle, portTitle, type Network } from '@visograph/core';
import type { Selection } from '../data/location.ts';

/** What a selected thing is called, in one line. */
export function titleOf(network: Network, selection: Selection): string {
  switch (selection.kind) {
    case 'port':
      return portTitle(network, selection.id).replace(':', ' ');
    case 'cable':
      return network.get('cable', selection.id)?.label ?? '';
    case 'mark':
      return network.get('mark', selection.id)?.form ?? '';
    case 'circuit':
      return network.get('circuit', selection.id)?.number ?? '';
    case 'prefix':
      return network.get('prefix', selection.id)?.prefix ?? '';
    case 'vlan': {
      const vlan = network.get('vlan', selection.id);
      return vlan === null ? '' : `VLAN ${vlan.vid} ${vlan.name}`;
    }
    case 'model': {
      const model = network.get('model', selection.id);
      return model === null ? '' : modelTitle(model);
    }
    default:
      return network.get(selection.kind, selection.id)?.name ?? '';
  }
}
