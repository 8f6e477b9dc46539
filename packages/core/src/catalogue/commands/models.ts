import { groupNames } from '../../model/kinds/equipment/portGroup.ts';
import { applyChanges } from '../../change/apply.ts';
import { create, remove, type ChangeSet } from '../../change/change.ts';
import { blankModel, blankOptics, type CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';
import { kinds, modelTitle } from '../../model/kinds.ts';
import { newId } from '../../model/values/ids.ts';
import type { Network } from '../../model/network/network.ts';
import type { Problem } from '../../model/fields/problem.ts';
import { editRow } from '../../commands/edit.ts';
import type { Attempt } from '../../commands/attempt.ts';

/** A title no model of the catalogue has yet: the one given, or with a number behind it. */
function freeTitle(network: Network, model: Pick<CatalogueModel, 'maker' | 'name'>): string {
  let name = model.name;
  for (
    let number = 2;
    network.findOne('modelByTitle', modelTitle({ ...model, name }).toLowerCase()) !== null;
    number++
  )
    name = `${model.name} ${number}`;
  return name;
}

/** What a new model of each form begins with, so that it can be finished. */
const starts: Record<CatalogueModel['form'], Partial<CatalogueModel>> = {
  device: { role: 'XX' },
  module: {},
  transceiver: {
    units: 0,
    medium: 'OS2',
    optics: blankOptics,
  },
  cable: { units: 0, medium: 'Cat 6A', ends: ['RJ45', 'RJ45'] },
};

/** A draft of an own model: empty, or as a variant of another. It is not in the catalogue until it is added. */
export function draftModel(
  network: Network,
  form: CatalogueModel['form'],
  variantOf: CatalogueModel | null,
): CatalogueModel {
  const base = variantOf ?? { ...blankModel, form, ...starts[form] };
  const name = variantOf === null ? 'New model' : `${variantOf.name} variant`;
  return {
    ...base,
    id: newId(),
    name: freeTitle(network, { ...base, name }),
    partNumber: null,
    sharing: 'draft',
    retired: false,
  };
}

/** What is wrong with a model as it stands in the editor; empty when it can be kept. */
export function modelProblems(network: Network, model: CatalogueModel): Problem[] {
  const before = network.get('model', model.id);
  const set = before === null ? create('model', model) : editRow(network, 'model', before, model).changes[0];
  if (set === undefined) return [];
  const applied = applyChanges(network, [set]);
  return applied.ok ? [] : applied.problems;
}

/** Adds a model or keeps the changes to one. */
export function keepModel(network: Network, model: CatalogueModel): ChangeSet {
  const before = network.get('model', model.id);
  if (before !== null) {
    const set = editRow(network, 'model', before, model);
    return { ...set, sentence: `Changed the model ${modelTitle(model)}` };
  }
  return { changes: [create('model', model)], sentence: `Added the model ${modelTitle(model)}` };
}

export interface ModelUse {
  devices: number;
  modules: number;
  cables: number;
}
export const modelUse = (network: Network, model: CatalogueModel): ModelUse => ({
  devices: network.countOf('devicesByModel', model.id),
  modules: network.countOf('modulesByModel', model.id),
  cables: network.countOf('cablesByType', model.id),
});

/** Removes a model that nothing uses; one in use can be retired instead. */
export function deleteModel(network: Network, model: CatalogueModel): Attempt {
  const use = modelUse(network, model);
  const total = use.devices + use.modules + use.cables;
  if (total > 0)
    return {
      ok: false,
      why: `${modelTitle(model)} is used by ${total} ${use.devices > 0 ? 'devices' : use.modules > 0 ? 'modules' : 'cables'}. Retire it instead: it is no longer offered, and what uses it stays.`,
    };
  return {
    ok: true,
    set: { changes: [remove('model', model)], sentence: `Deleted the model ${modelTitle(model)}` },
  };
}

/**
 * The next step of sharing: an editor offers a draft, an owner accepts it for every project of the organisation
 * or hands it back.
 */
export function shareModel(
  network: Network,
  model: CatalogueModel,
  step: NonNullable<CatalogueModel['sharing']>,
): ChangeSet {
  const sentence = {
    draft: `Took ${modelTitle(model)} back to a draft`,
    offered: `Offered ${modelTitle(model)} to the organisation`,
    accepted: `Accepted ${modelTitle(model)} for the organisation`,
  }[step];
  return { ...editRow(network, 'model', model, { sharing: step }), sentence };
}

/** A shared model of another project as one of this: a copy, named as there unless that name is taken. */
export function adoptModel(network: Network, model: CatalogueModel): Attempt {
  if (network.findOne('modelByTitle', modelTitle(model).toLowerCase()) !== null)
    return { ok: false, why: `There is already a ${kinds.model.one} ${modelTitle(model)} in this project.` };
  const row = { ...model, id: newId(), sharing: null };
  return {
    ok: true,
    set: { changes: [create('model', row)], sentence: `Took over the shared model ${modelTitle(model)}` },
  };
}

/** Words that a search for a model may use: title, part number, role, heights, "48 poe", port kinds. */
export function modelWords(model: CatalogueModel, roleLabel: string): string {
  const counts = model.portGroups.map((group) => {
    const ports = groupNames(group, 'own').length;
    return `${ports} ${group.connector}${group.poeClass === null ? '' : ' poe'} ${ports}-port`;
  });
  const poe = model.poeBudgetW === null ? '' : 'poe';
  return [
    modelTitle(model),
    model.partNumber ?? '',
    roleLabel,
    model.role ?? '',
    model.part ?? '',
    poe,
    `${model.units}u`,
    model.medium ?? '',
    ...counts,
    model.notes ?? '',
  ]
    .join(' ')
    .toLowerCase();
}
