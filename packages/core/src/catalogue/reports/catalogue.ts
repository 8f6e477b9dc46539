import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { devicesInScope } from '../../model/network/places.ts';
import { roles } from '../../model/values/roles.ts';
import type { Table } from '../../report/table.ts';

/** Which hardware stands in the scope: every model in use with its count and figures. */
export function hardwareSchedule(network: Network, scopeId: string | null): Table {
  const counts = new Map<string, number>();
  for (const device of devicesInScope(network, scopeId)) {
    if (device.modelId !== null) counts.set(device.modelId, (counts.get(device.modelId) ?? 0) + 1);
    for (const module of network.find('modulesByDevice', device.id))
      counts.set(module.modelId, (counts.get(module.modelId) ?? 0) + 1);
  }
  const models = [...counts.keys()]
    .flatMap((id) => network.get('model', id) ?? [])
    .sort((a, b) => compareNames(modelTitle(a), modelTitle(b)));
  return {
    columns: [
      { key: 'model', label: 'Model' },
      { key: 'partNumber', label: 'Part number' },
      { key: 'role', label: 'Role' },
      { key: 'count', label: 'Count', numeric: true },
      { key: 'units', label: 'Height', numeric: true, unit: 'U' },
      { key: 'massKg', label: 'Mass each', numeric: true, unit: 'kg' },
      { key: 'maxPowerW', label: 'Maximum each', numeric: true, unit: 'W' },
      { key: 'price', label: 'List price each', numeric: true },
      { key: 'currency', label: 'Currency' },
      { key: 'endOfSupport', label: 'End of support' },
    ],
    rows: models.map((model) => ({
      model: modelTitle(model),
      partNumber: model.partNumber,
      role: model.role === null ? model.form : roles[model.role].label,
      count: counts.get(model.id) ?? 0,
      units: model.units,
      massKg: model.massKg,
      maxPowerW: model.maxPowerW,
      price: model.priceMinor === null ? null : model.priceMinor / 100,
      currency: model.currency,
      endOfSupport: model.endOfSupport,
    })),
    ids: models.map((model) => model.id),
  };
}
