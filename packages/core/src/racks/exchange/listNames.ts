import type { Network } from '../../model/network/network.ts';
import { placeChain } from '../../model/network/places.ts';
import type { Role } from '../../model/values/roles.ts';
import { nextDeviceName } from '../deviceNames.ts';

/** Names for the devices of a list that has none for them: by the pattern of their site, counted on. */
export class ListNames {
  private readonly last = new Map<string, { stem: string; number: number }>();

  constructor(private readonly network: Network) {}

  next(placeId: string | null, role: Role, modelId: string | null): string {
    const site = placeChain(this.network, placeId)[0]?.id ?? '';
    const key = `${site} ${role} ${modelId ?? ''}`;
    const last = this.last.get(key);
    if (last === undefined) {
      const first = nextDeviceName(this.network, placeId, role, modelId);
      const [, stem = first, digits = '1'] = /^(.*?)(\d+)$/.exec(first) ?? [];
      this.last.set(key, { stem, number: Number(digits) });
      return first;
    }
    const others = [...this.last.values()].filter((one) => one !== last && one.stem === last.stem);
    let number = Math.max(last.number, ...others.map((one) => one.number)) + 1;
    while (this.network.findOne('deviceByName', `${last.stem}${number}`.toLowerCase()) !== null) number++;
    last.number = number;
    return `${last.stem}${number}`;
  }
}
