import { keptAs } from '../../addressing/exchange/managementAddress.ts';
import { sameValue } from '../../change/change.ts';
import type { CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { modelTitle, notesOf } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { moneyText } from '../../model/values/money.ts';
import { roles } from '../../model/values/roles.ts';
import { isOneOf, keysOf } from '../../model/values/words.ts';
import type { Whereabouts } from './whereabouts.ts';

/** Fields that are told together with others, or follow from the model. */
const unsaid = new Set<keyof Device>([
  'id',
  'modelId',
  'placeId',
  'rackId',
  'unit',
  'units',
  'fillsBothFaces',
  'side',
  'priceMinor',
  'currency',
]);
const textOf = (value: unknown): string =>
  typeof value === 'string' || typeof value === 'number' ? String(value) : value === true ? 'yes' : '';

/** What a new device is, where it stands and its address. */
export const newText = (
  where: Whereabouts,
  device: Device,
  model: CatalogueModel | null,
  address: string,
): string =>
  [
    model === null ? roles[device.role].label : modelTitle(model),
    where.text(device) || 'not placed yet',
    address,
  ]
    .filter((part) => part !== '')
    .join(', ');

/** What changes of a device, with both values; `said` is what is told of its addresses already. */
export function changedText(
  network: Network,
  where: Whereabouts,
  before: Device,
  { device, model, said }: { device: Device; model: CatalogueModel | null; said: string },
): string {
  const parts: string[] = [];
  const say = (label: string, from: string, to: string): void => {
    if (from !== to) parts.push(`${label} ${from || 'nothing'} → ${to || 'nothing'}`);
  };
  const was = network.get('model', before.modelId);
  if (before.modelId !== device.modelId)
    say('model', was === null ? '' : modelTitle(was), model === null ? '' : modelTitle(model));
  say('stands at', where.text(before), where.text(device));
  say('price paid', moneyText(before), moneyText(device));
  for (const field of keysOf<keyof Device>(device)) {
    if (unsaid.has(field) || sameValue(before[field], device[field])) continue;
    if (field === 'extra') {
      for (const [name, value] of Object.entries(device.extra))
        if (!isOneOf(Object.values(keptAs), name)) say(name, before.extra[name] ?? '', value);
      continue;
    }
    say(notesOf('device', field)?.label.toLowerCase() ?? field, textOf(before[field]), textOf(device[field]));
  }
  if (said !== '') parts.push(said);
  return parts.length === 0 ? 'nothing differs' : parts.join('; ');
}
