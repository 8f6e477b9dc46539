import { applyChanges } from '../../change/apply.ts';
import type { CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Rack } from '../../model/kinds/sites/rack.ts';
import type { Network } from '../../model/network/network.ts';
import { roles } from '../../model/values/roles.ts';
import { nextDeviceName } from '../deviceNames.ts';
import { freePositions } from '../occupancy.ts';
import { spanText } from '../../change/constraints/rackSpace.ts';
import { refusals } from '../placing.ts';
import { addDevice } from './devices.ts';
import type { LineOption } from '../../commands/lineOption.ts';
import { modelWords } from '../../catalogue/commands/models.ts';
import { tryMove } from './racking.ts';

const refuse = (title: string, detail: string): LineOption[] => [{ does: 'refuse', title, detail }];
const mostOptions = 8;

interface Where {
  rack: Rack;
  unit: number | null;
}
type Named = { ok: true; where: Where } | { ok: false; why: string };

/** "KQ-A1", "KQ-A1 U40" or "KQ-A1 40". */
function namedSpot(network: Network, text: string): Named {
  const match = /^(\S+)(?:\s+u?(\d+(?:\.5)?))?$/i.exec(text.trim());
  const rack = network.findOne('rackByName', (match?.[1] ?? '').toLowerCase());
  if (match === null || rack === null)
    return {
      ok: false,
      why: `Write a rack, and a unit if you wish: KQ-A1 U40. There is no rack “${text.trim()}”.`,
    };
  return { ok: true, where: { rack, unit: match[2] === undefined ? null : Number(match[2]) } };
}

/** Models whose words contain every word typed; the exact title alone when it is one. */
function modelsFor(network: Network, text: string): CatalogueModel[] {
  const exact = network.findOne('modelByTitle', text.toLowerCase());
  if (exact?.form === 'device') return [exact];
  const words = text.toLowerCase().split(/\s+/);
  return [...network.all('model')]
    .filter((model) => model.form === 'device' && !model.retired)
    .filter((model) => {
      const all = modelWords(model, roles[model.role ?? 'XX'].label);
      return words.every((word) => all.includes(word));
    })
    .sort(
      (a, b) =>
        Number(a.maker === null) - Number(b.maker === null) || modelTitle(a).length - modelTitle(b).length,
    )
    .slice(0, mostOptions);
}

function addOption(network: Network, model: CatalogueModel, { rack, unit }: Where): LineOption {
  const title = `Add ${modelTitle(model)}`;
  const side = model.halfWidth ? ('left' as const) : ('full' as const);
  const body = { units: model.units, face: 'front' as const, fillsBothFaces: model.fillsBothFaces, side };
  const at = model.units === 0 ? null : (unit ?? freePositions(network, rack, body)[0] ?? null);
  if (model.units > 0 && at === null)
    return { does: 'refuse', title, detail: `${rack.name} has no ${model.units} free units together.` };
  const name = nextDeviceName(network, rack.placeId, model.role ?? 'XX', model.id);
  const passesOn = model.role === 'PD' || model.role === 'UP';
  const candidate = { ...body, name, massKg: model.massKg, maxW: passesOn ? 0 : (model.maxPowerW ?? 0) };
  const found = refusals(network, rack, candidate, at);
  if (found.length > 0)
    return { does: 'refuse', title, detail: `${found.map((one) => one.text).join('; ')}.` };
  const set = addDevice(network, { name, modelId: model.id, rackId: rack.id, placeId: null, unit: at });
  if (set === null) return { does: 'refuse', title, detail: 'This model cannot be placed: it has no role.' };
  const where =
    at === null ? `${rack.name}, at the side` : `${rack.name} ${spanText({ unit: at, units: model.units })}`;
  return { does: 'change', title, detail: `${name} at ${where}`, set };
}

/** `add MODEL to RACK U40`: the models that match, each with the name it would get and its unit. */
export function addLine(network: Network, what: string, to: string): LineOption[] {
  const named = namedSpot(network, to);
  if (!named.ok) return refuse('Add', named.why);
  const models = modelsFor(network, what.trim());
  if (models.length === 0)
    return refuse(
      'Add',
      `No model of the catalogue has “${what.trim()}” in its name, number, role or ports.`,
    );
  return models.map((model) => addOption(network, model, named.where));
}

/** `move DEVICE to RACK U12`. */
export function moveLine(network: Network, what: string, to: string): LineOption[] {
  const device = network.findOne('deviceByName', what.trim().toLowerCase());
  if (device === null) return refuse('Move', `There is no device ${what.trim()}.`);
  const named = namedSpot(network, to);
  if (!named.ok) return refuse('Move', named.why);
  const { rack } = named.where;
  const unit =
    device.units === 0
      ? null
      : (named.where.unit ?? freePositions(network, rack, device, device.id)[0] ?? null);
  if (device.units > 0 && unit === null)
    return refuse('Move', `${rack.name} has no ${device.units} free units together.`);
  const attempt = tryMove(network, device, { rackId: rack.id, unit });
  if (!attempt.ok) return refuse('Move', `${attempt.why}.`);
  const applied = applyChanges(network, attempt.set.changes);
  if (!applied.ok) return refuse('Move', applied.problems[0]?.message ?? 'It cannot be done.');
  return [{ does: 'change', title: `Move ${device.name}`, detail: attempt.set.sentence, set: attempt.set }];
}
