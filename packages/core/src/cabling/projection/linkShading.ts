import { speedText } from '../../model/values/speed.ts';
import { compareNames } from '../../model/values/order.ts';
import { mediumNames } from '../../sheets/graph/medium.ts';
import type { Shade, ShadeKey } from '../../sheets/graph/shading.ts';
import type { Wire } from './wires.ts';

/** Facts of links that a sheet can colour them by. */
export const linkColourings = ['medium', 'speed'] as const;

export interface LinkShading {
  of: (wire: Wire) => Shade | null;
  key: ShadeKey[];
}

/** Colours of links by medium or by speed; none where the sheet colours by a fact of devices. */
export function linkShading(by: string, wires: readonly Wire[]): LinkShading {
  const textOf =
    by === 'medium'
      ? (wire: Wire): string => mediumNames[wire.medium]
      : by === 'speed'
        ? (wire: Wire): string => (wire.speedBps === null ? 'speed not known' : speedText(wire.speedBps))
        : null;
  if (textOf === null) return { of: () => null, key: [] };
  const order = new Map<string, number>();
  for (const wire of wires) order.set(textOf(wire), by === 'speed' ? (wire.speedBps ?? 0) : 0);
  const texts = [...order.keys()].sort(
    (a, b) => (order.get(a) ?? 0) - (order.get(b) ?? 0) || compareNames(a, b),
  );
  const shade = (text: string): Shade => ({ scale: 'set', index: texts.indexOf(text) % 12 });
  return {
    of: (wire) => shade(textOf(wire)),
    key: texts.map((label) => ({ label, shade: shade(label) })),
  };
}
