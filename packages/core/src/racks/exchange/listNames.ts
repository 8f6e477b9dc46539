import type { Network } from '../../model/network/network.ts';
import { placeChain } from '../../model/network/places.ts';
import type { Role } from '../../model/values/roles.ts';
import { nextDeviceName } from '../deviceNames.ts';

/** Names for the devices of a list that has none for them: by the pattern of their site, counted on. */
export class ListNames {
  private readonly last = new Map<string, { stem: string; number: number }>();

  constructor(
    private readonly network: Network,
    /** Names that the list itself gives, in lower case. */
    private readonly spokenFor: ReadonlySet<string>,
  ) {}

  private isTaken(name: string): boolean {
    const key = name.toLowerCase();
    return this.spokenFor.has(key) || this.network.findOne('deviceByName', key) !== null;
  }

  next(placeId: string | null, role: Role, modelId: string | null): string {
    const site = placeChain(this.network, placeId)[0]?.id ?? '';
    const key = `${site} ${role} ${modelId ?? ''}`;
    const last = this.last.get(key);
    const first = last === undefined ? nextDeviceName(this.network, placeId, role, modelId) : '';
    const [, begun = first, digits = '1'] = /^(.*?)(\d+)$/.exec(first) ?? [];
    const stem = last?.stem ?? begun;
    const given = [...this.last.values()].filter((one) => one.stem === stem).map((one) => one.number + 1);
    let number = Math.max(last === undefined ? Number(digits) : 1, ...given);
    while (this.isTaken(`${stem}${number}`)) number++;
    this.last.set(key, { stem, number });
    return `${stem}${number}`;
  }
}
