import type { Subject } from '../change/removal.ts';
import type { CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import type { PartSection } from '../model/kinds/purchase/partsList.ts';
import { modelTitle } from '../model/kinds.ts';

/** Why a part cannot be ordered as it is known. */
export type PartGap =
  'no model' | 'generic model' | 'no cable type' | 'no length' | 'no stock length reaches' | 'no cord fits';

/** Something that is bought: what it is called, and in what it is counted. */
export interface Part {
  section: PartSection;
  modelId: string | null;
  what: string;
  partNumber: string | null;
  /** Of a cable that is made in lengths. */
  lengthM: number | null;
  /** Of a licence of the model: its name. */
  licence: string | null;
  unit: 'piece' | 'm';
  gap: PartGap | null;
}

export type PartState = 'planned' | 'in place';

/** That a thing of the network needs so many of a part; of what is sold by the metre in metres. */
export interface Need {
  part: Part;
  count: number;
  state: PartState;
  placeId: string | null;
  /** What it stands for; null for what no thing of the network is. */
  thing: Subject | null;
}

/** One text for one part. */
export const partKey = ({ section, modelId, what, lengthM, licence }: Part): string =>
  [section, modelId ?? what, lengthM ?? '', licence ?? ''].join('|');

export const plainPart = (section: PartSection, what: string, rest: Partial<Part> = {}): Part => ({
  section,
  modelId: null,
  what,
  partNumber: null,
  lengthM: null,
  licence: null,
  unit: 'piece',
  gap: null,
  ...rest,
});

/** A part that is a model of the catalogue; one without a maker and a part number stands for a kind of gear only. */
export const modelPart = (section: PartSection, model: CatalogueModel): Part =>
  plainPart(section, modelTitle(model), {
    modelId: model.id,
    partNumber: model.partNumber,
    gap: model.maker === null && model.partNumber === null ? 'generic model' : null,
  });
