import { readPorts } from '../../catalogue/portsText.ts';
import { ModelMatcher, type ModelWords } from '../../catalogue/matchModel.ts';
import { Wrong } from '../../exchange/listRows.ts';
import { blankModel, type CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import { roleNamed, roleOfName } from '../../model/values/roleWords.ts';
import type { Role } from '../../model/values/roles.ts';
import { compareNames } from '../../model/values/order.ts';

/** What a model is that the catalogue does not know: one that it has, or one of our own. */
export type ModelAnswer = { as: string } | { role: Role; units: number; ports: string };

/** A model that rows of a list name and the catalogue does not know, asked once for all of them. */
export interface UnknownModel {
  /** By which it is answered. */
  key: string;
  title: string;
  /** How many rows name it. */
  rows: number;
  /** Titles of models that are spelled nearly so. */
  likely: string[];
  /** What its rows say that it is; XX where they do not. */
  role: Role;
  /** Height in units that its rows say; null where they do not, or not all the same. */
  units: number | null;
}

interface Asked extends UnknownModel {
  roles: Map<Role, number>;
  heights: Set<number>;
}

/** Whether these words name any model. */
export const namesModel = ({ name, partNumber }: ModelWords): boolean => name !== '' || partNumber !== '';

const titleOf = ({ maker, name, partNumber }: ModelWords): string =>
  [maker, name === '' ? partNumber : name].filter((part) => part !== '').join(' ');

/** The role that a cell says, by its code, its name or a word in it; null where it says none. */
export function roleIn(text: string): Role | null {
  if (text === '') return null;
  const role = roleNamed(text) ?? roleOfName(text);
  return role === 'XX' && text.toUpperCase() !== 'XX' ? null : role;
}

/** Finds the models of a list, asks for those it does not know, and makes those that it is told of. */
export class ListModels {
  private readonly matcher: ModelMatcher;
  private readonly asked = new Map<string, Asked>();
  private readonly own = new Map<string, CatalogueModel>();
  private readonly takenOver = new Map<string, CatalogueModel>();

  constructor(
    private readonly network: Network,
    private readonly answers: Readonly<Record<string, ModelAnswer>>,
  ) {
    this.matcher = new ModelMatcher(network);
  }

  isModel(text: string): boolean {
    return this.matcher.find({ maker: '', name: text, partNumber: '' }).model !== null;
  }

  /** The model that the words of a row name; throws where the catalogue has none and nobody has said what it is. */
  find(words: ModelWords, said: { name: string; role: string; units: string }): CatalogueModel {
    const match = this.matcher.find(words);
    if (match.model !== null) return this.take(match.model);
    const title = titleOf(words);
    const key = title.toLowerCase();
    const asked = this.asked.get(key) ?? {
      ...{ key, title, rows: 0, likely: match.likely.map(modelTitle), role: 'XX', units: null },
      ...{ roles: new Map<Role, number>(), heights: new Set<number>() },
    };
    this.asked.set(key, asked);
    asked.rows++;
    const role = roleIn(said.role) ?? roleOfName(said.name);
    asked.roles.set(role, (asked.roles.get(role) ?? 0) + 1);
    const height = Number(said.units.replace(/\s*u$/i, '').replace(',', '.'));
    if (said.units !== '' && Number.isFinite(height)) asked.heights.add(height);
    const answer = this.answers[key];
    if (answer === undefined)
      throw new Wrong(
        `the catalogue has no model ${title}${asked.likely.length === 0 ? '' : `; did you mean ${asked.likely[0] ?? ''}?`}: say above what it is`,
      );
    return 'as' in answer ? this.named(answer.as, title) : this.make(key, words, answer);
  }

  private named(as: string, title: string): CatalogueModel {
    const { model } = this.matcher.find({ maker: '', name: as, partNumber: '' });
    if (model === null) throw new Wrong(`${title} is said to be ${as}, which the catalogue does not have`);
    return this.take(model);
  }

  /** A built-in model that the network has not: it is taken over. */
  private take(model: CatalogueModel): CatalogueModel {
    if (this.network.get('model', model.id) !== null) return model;
    const key = modelTitle(model);
    const taken = this.takenOver.get(key) ?? { ...model, id: newId() };
    this.takenOver.set(key, taken);
    return taken;
  }

  private make(
    key: string,
    words: ModelWords,
    { role, units, ports }: { role: Role; units: number; ports: string },
  ): CatalogueModel {
    const known = this.own.get(key);
    if (known !== undefined) return known;
    const read = readPorts(ports);
    if (!read.ok) throw new Wrong(`the ports of ${titleOf(words)} cannot be read: ${read.why}`);
    const model: CatalogueModel = {
      ...blankModel,
      id: newId(),
      form: 'device',
      maker: words.maker === '' ? null : words.maker,
      name: words.name === '' ? words.partNumber : words.name,
      partNumber: words.partNumber === '' ? null : words.partNumber,
      role,
      units,
      portGroups: read.groups,
    };
    this.own.set(key, model);
    return model;
  }

  /** The models of these devices that the network has not yet. */
  madeFor(used: ReadonlySet<string>): CatalogueModel[] {
    return [...this.own.values(), ...this.takenOver.values()].filter((model) => used.has(model.id));
  }

  /** What is to be asked, the most frequent first. */
  unknown(): UnknownModel[] {
    return [...this.asked.values()]
      .map(({ roles, heights, ...asked }): UnknownModel => {
        const [role = asked.role] = [...roles]
          .sort(([a, x], [b, y]) => y - x || compareNames(a, b))
          .map(([one]) => one);
        const [units = null] = heights;
        return { ...asked, role, units: heights.size === 1 ? units : null };
      })
      .sort((a, b) => b.rows - a.rows || compareNames(a.title, b.title));
  }
}
