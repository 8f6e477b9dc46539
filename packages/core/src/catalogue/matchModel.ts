import { distance } from 'fastest-levenshtein';
import type { CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import { modelTitle } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { compareNames } from '../model/values/order.ts';
import { builtInModels } from './builtIn/index.ts';

/** What a list says of a model; what it does not say is empty. */
export interface ModelWords {
  maker: string;
  name: string;
  partNumber: string;
}
export interface ModelMatch {
  /** The model that is meant; null where none, or more than one, answers to these words. */
  model: CatalogueModel | null;
  /** Models that are spelled nearly so, likeliest first, at most three. */
  likely: CatalogueModel[];
}

const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
/** Of ten letters so many may differ. */
const likeness = 0.7;
const mostLikely = 3;

interface Spelling {
  text: string;
  model: CatalogueModel;
}

/**
 * Finds models by the words of a list: maker and name, name alone, part number, first as they are written, then
 * without signs and spaces; what is only nearly so is proposed and never taken. Looks among the models of the network
 * and the built-in ones that it has not taken over.
 */
export class ModelMatcher {
  private readonly byText = new Map<string, CatalogueModel[]>();
  private readonly spellings: Spelling[] = [];
  private readonly known = new Map<string, ModelMatch>();

  constructor(network: Network) {
    const own = [...network.all('model')].filter((model) => model.form === 'device' && model.part === null);
    const titles = new Set(own.map((model) => modelTitle(model).toLowerCase()));
    const others = builtInModels().filter(
      (model) =>
        model.form === 'device' && model.part === null && !titles.has(modelTitle(model).toLowerCase()),
    );
    for (const model of [...own, ...others])
      for (const text of [modelTitle(model), model.name, model.partNumber ?? '']) this.note(text, model);
  }

  private note(text: string, model: CatalogueModel): void {
    if (text === '') return;
    for (const key of new Set([text.toLowerCase(), plain(text)])) {
      const there = this.byText.get(key);
      if (there === undefined) this.byText.set(key, [model]);
      else if (!there.includes(model)) there.push(model);
    }
    this.spellings.push({ text: plain(text), model });
  }

  find(words: ModelWords): ModelMatch {
    const key = `${words.maker}\n${words.name}\n${words.partNumber}`.toLowerCase();
    const before = this.known.get(key);
    const match = before ?? this.search(words);
    if (before === undefined) this.known.set(key, match);
    return match;
  }

  private search({ maker, name, partNumber }: ModelWords): ModelMatch {
    const whole = `${maker} ${name}`.trim();
    const ofMaker = (model: CatalogueModel): boolean =>
      maker === '' || model.maker === null || plain(model.maker) === plain(maker);
    for (const text of [whole, name, partNumber])
      for (const key of [text.toLowerCase(), plain(text)]) {
        const found = key === '' ? [] : (this.byText.get(key) ?? []).filter(ofMaker);
        if (found.length === 1) return { model: found[0] ?? null, likely: [] };
      }
    return { model: null, likely: this.alike([whole, name, partNumber]) };
  }

  private alike(texts: readonly string[]): CatalogueModel[] {
    const wanted = [...new Set(texts.map(plain))].filter((text) => text.length >= 3);
    const best = new Map<CatalogueModel, number>();
    for (const text of wanted)
      for (const spelling of this.spellings) {
        const longer = Math.max(text.length, spelling.text.length);
        if (Math.abs(text.length - spelling.text.length) > longer * (1 - likeness)) continue;
        const score = 1 - distance(text, spelling.text) / longer;
        if (score >= likeness && score > (best.get(spelling.model) ?? 0)) best.set(spelling.model, score);
      }
    return [...best]
      .sort(([a, x], [b, y]) => y - x || compareNames(modelTitle(a), modelTitle(b)))
      .slice(0, mostLikely)
      .map(([model]) => model);
  }
}
