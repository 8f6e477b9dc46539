import type { Change } from '../change/change.ts';
import { blankModel, type CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import { blankDevice, type Device } from '../model/kinds/equipment/device.ts';
import { defaultCablingRules } from '../model/kinds/sites/project.ts';
import { blankRack } from '../model/kinds/sites/rack.ts';
import { readSheets } from '../sheets/exchange/readSheets.ts';
import type { Module } from '../model/kinds/equipment/module.ts';
import { namesNow } from './oldNames.ts';
import { newId } from '../model/values/ids.ts';
import { modelTitle } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import {
  exchangeSchema,
  formatName,
  formatVersion,
  type DeviceEntry,
  type ExchangeFile,
  type ModelEntry,
} from './format.ts';
import { findModel } from '../catalogue/exchange/findModel.ts';
import { given } from './given.ts';
import { readCables, readCircuits, readPathways } from '../cabling/exchange/readCabling.ts';
import { ensurePlace } from '../places/exchange/readPlace.ts';
import { readDeviceRouting, readNumbering, readPrefixes, vlanNumberingNamed } from './readLogical.ts';
import { mergePorts } from './readPorts.ts';
import { readPrintedLabels } from '../labels/exchange/printedLabels.ts';
import { readWaivers } from '../check/exchange/waivers.ts';
import { readSections } from './sections.ts';
import { Staging, type FileProblem } from './staging.ts';

export type ReadResult =
  | { ok: true; changes: Change[]; network: Network; sentence: string }
  | { ok: false; problems: FileProblem[] };

/** Parses the text of a file. Not JSON: one problem that says where. */
export function parseExchange(
  text: string,
): { ok: true; data: unknown } | { ok: false; problems: FileProblem[] } {
  try {
    return { ok: true, data: JSON.parse(text) };
  } catch (error) {
    const why = error instanceof Error ? error.message : 'unreadable';
    return {
      ok: false,
      problems: [
        {
          path: '$',
          message: `The file is not JSON: ${why.slice(0, 200)}. Choose a Visograph exchange file.`,
        },
      ],
    };
  }
}

function checkShape(
  data: unknown,
): { ok: true; file: ExchangeFile } | { ok: false; problems: FileProblem[] } {
  const fail = (path: string, message: string): { ok: false; problems: FileProblem[] } => ({
    ok: false,
    problems: [{ path, message }],
  });
  if (typeof data !== 'object' || data === null || Array.isArray(data)) {
    return fail('$', 'The file does not hold one JSON object. Choose a Visograph exchange file.');
  }
  const head = data as { format?: unknown; version?: unknown };
  if (head.format !== formatName)
    return fail('$.format', `This is not a Visograph exchange file: format must be "${formatName}".`);
  if (head.version !== formatVersion) {
    return fail(
      '$.version',
      `Version ${String(head.version)} cannot be read: this Visograph reads version ${formatVersion}.`,
    );
  }
  const parsed = exchangeSchema.safeParse(data);
  if (parsed.success) return { ok: true, file: parsed.data };
  const problems = parsed.error.issues.slice(0, 500).map((issue) => ({
    path: issue.path.reduce<string>(
      (path, step) => (typeof step === 'number' ? `${path}[${step}]` : `${path}.${String(step)}`),
      '$',
    ),
    message: `${String(issue.path.findLast((step) => typeof step === 'string') ?? 'The file')} ${issue.message}.`,
  }));
  return { ok: false, problems };
}

const modelFromEntry = (entry: ModelEntry, existing: CatalogueModel | null): CatalogueModel => ({
  ...blankModel,
  units: entry.form === undefined || entry.form === 'device' ? 1 : 0,
  ...existing,
  ...given(entry, []),
  maker: entry.maker ?? null,
  name: entry.name,
  id: existing?.id ?? newId(),
});

/** The modules of a device after the file: those it had, replaced slot by slot by those listed. */
function readModules(staging: Staging, device: Device, entry: DeviceEntry, at: string): Module[] {
  const modules = new Map(
    staging.network.find('modulesByDevice', device.id).map((one) => [one.slot.toLowerCase(), one]),
  );
  (entry.modules ?? []).forEach((listed, index) => {
    const path = `${at}.modules[${index}]`;
    const model = findModel(staging, listed.model, 'module', `${path}.model`);
    if (model === null) return;
    const existing = modules.get(listed.slot.toLowerCase());
    const row: Module = {
      serial: null,
      notes: null,
      ...existing,
      ...given(listed, ['model']),
      slot: listed.slot,
      id: existing?.id ?? newId(),
      deviceId: device.id,
      modelId: model.id,
    };
    staging.put('module', row, path);
    modules.set(listed.slot.toLowerCase(), row);
  });
  return [...modules.values()];
}

function readDevice(staging: Staging, entry: DeviceEntry, at: string): void {
  const existing = staging.network.findOne('deviceByName', entry.name.toLowerCase());
  const model = entry.model
    ? findModel(staging, entry.model, 'device', `${at}.model`)
    : entry.model === undefined
      ? staging.network.get('model', existing?.modelId ?? null)
      : null;
  const rack = entry.rack ? staging.network.findOne('rackByName', entry.rack.toLowerCase()) : null;
  if (entry.rack && rack === null)
    staging.problem(
      `${at}.rack`,
      `There is no rack “${entry.rack}”. Add it under racks, or correct the name.`,
    );
  const role = entry.role ?? existing?.role ?? model?.role ?? null;
  if (role === null && !entry.model)
    staging.problem(`${at}.role`, `${entry.name} has neither a role nor a model. Give one of them.`);
  const rackGiven = entry.rack === undefined ? (existing?.rackId ?? null) : (rack?.id ?? null);
  const row: Device = {
    ...blankDevice,
    ...(model === null
      ? {}
      : {
          units: model.units,
          fillsBothFaces: model.fillsBothFaces,
          side: model.halfWidth ? 'left' : 'full',
        }),
    ...existing,
    ...given(entry, ['model', 'rack', 'place', 'modules', 'ports', 'onlyListedPorts', 'routes', 'bgp']),
    name: entry.name,
    id: existing?.id ?? newId(),
    role: role ?? 'XX',
    modelId: model?.id ?? null,
    rackId: rackGiven,
    placeId:
      rackGiven !== null
        ? null
        : entry.place
          ? ensurePlace(staging, entry.place, `${at}.place`)
          : entry.place === null
            ? null
            : (existing?.placeId ?? null),
  };
  staging.put('device', row, at);
  const modules = readModules(staging, row, entry, at);
  mergePorts(staging, { device: row, model, modules }, entry, existing === null, at);
  readDeviceRouting(staging, row, entry, at);
}

function readPhysical(staging: Staging, file: ExchangeFile): void {
  const depth = (path: string): number => path.split('/').length;
  const places = (file.places ?? []).map((entry, index) => ({ entry, at: `$.places[${index}]` }));
  for (const { entry, at } of places.sort((a, b) => depth(a.entry.path) - depth(b.entry.path))) {
    ensurePlace(staging, entry.path, at, {
      ...given(entry, ['path', 'vlanNumbering']),
      ...(entry.vlanNumbering === undefined
        ? {}
        : { vlanNumberingId: vlanNumberingNamed(staging, entry.vlanNumbering, `${at}.vlanNumbering`) }),
    });
  }
  (file.racks ?? []).forEach((entry, index) => {
    const at = `$.racks[${index}]`;
    const existing = staging.network.findOne('rackByName', entry.name.toLowerCase());
    const inside = ensurePlace(staging, entry.place, `${at}.place`);
    if (inside === null) return;
    staging.put(
      'rack',
      {
        ...blankRack,
        position: index + 1,
        ...existing,
        ...given(entry, ['place']),
        name: entry.name,
        id: existing?.id ?? newId(),
        placeId: inside,
      },
      at,
    );
  });
  (file.models ?? []).forEach((entry, index) => {
    const title = modelTitle({ maker: entry.maker ?? null, name: entry.name }).toLowerCase();
    staging.put(
      'model',
      modelFromEntry(entry, staging.network.findOne('modelByTitle', title)),
      `$.models[${index}]`,
    );
  });
}

/**
 * Reads a parsed exchange file on top of a network: rows are created or updated by name; what the file does not
 * mention stays. Gives the changes, or the complete list of what is wrong with where; never a part.
 */
export function readExchange(network: Network, data: unknown): ReadResult {
  const shape = checkShape(namesNow(data));
  if (!shape.ok) return shape;
  const { file } = shape;
  const staging = new Staging(network);
  const project = [...network.all('project')][0];
  if (file.project !== undefined && network.count('place') === 0 && network.count('device') === 0) {
    staging.put(
      'project',
      {
        id: project?.id ?? newId(),
        name: file.project.name,
        labelDigits: file.project.labelDigits ?? project?.labelDigits ?? 5,
        symbols: { ...project?.symbols, ...file.project.symbols },
        cabling: { ...defaultCablingRules, ...project?.cabling, ...file.project.cabling },
      },
      '$.project',
    );
  }
  readNumbering(staging, file);
  readPhysical(staging, file);
  (file.devices ?? []).forEach((entry, index) => readDevice(staging, entry, `$.devices[${index}]`));
  readCables(staging, file);
  readCircuits(staging, file);
  readPathways(staging, file);
  readPrefixes(staging, file);
  readSections(staging, file);
  // Tables of sheets are schedules, which have a section.
  readSheets(staging, file);
  readPrintedLabels(staging, file);
  readWaivers(staging, file);
  const result = staging.finish();
  if (!result.ok) return result;
  const devices = result.changes.filter((change) => change.kind === 'device').length;
  const cables = result.changes.filter((change) => change.kind === 'cable').length;
  return { ...result, sentence: `Imported ${devices} devices and ${cables} cables from an exchange file` };
}
