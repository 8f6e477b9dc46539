import { defineRule, type Rule } from '../../check/finding.ts';
import { idsOf, nameOf } from '../../check/names.ts';
import { rowParts } from '../../check/rowParts.ts';
import { modelTitle } from '../../model/kinds.ts';
import { compareNames } from '../../model/values/order.ts';

/** "40", "VLAN 40", "vlan0040": a name that says no more than the number. */
const onlyNumber = (name: string, vid: number): boolean => {
  const digits = /^(?:vlan)?[\s_-]*0*(\d+)$/i.exec(name)?.[1];
  return digits !== undefined && Number(digits) === vid;
};

const nameless = defineRule({
  key: 'vlan-without-name',
  title: 'VLANs called by their number',
  why: 'A number says nothing of who is in a VLAN: sooner or later a port is put into the wrong one.',
  standard: 'IEEE 802.1Q, 12.10',
  reads: { vlan: ['name', 'vid', 'purpose'] },
  find: rowParts('vlan', (_network, row) =>
    row.purpose === 'parking' || !onlyNumber(row.name, row.vid)
      ? null
      : { severity: 'warn', subjects: [{ kind: 'vlan', id: row.id }], facts: {} },
  ),
  says: (_facts, network, [vlan]) => {
    const row = network.get('vlan', vlan?.id ?? null);
    return `VLAN ${row?.vid ?? ''} is called “${row?.name ?? ''}”, which is only its number. Name it after who is in it.`;
  },
});

/** Units of one stack run one image, which fits one family of hardware. */
const mixedStack = defineRule({
  key: 'stack-mixed',
  title: 'Stacks of unlike models',
  why: 'Units of different models seldom run one image: a stack with a stranger in it does not come up, or leaves it out.',
  reads: { device: ['stack', 'modelId', 'status'] },
  find: (network) => {
    const stacks = new Map<string, { id: string; modelId: string | null }[]>();
    for (const { id, stack, modelId } of network.all('device')) {
      if (stack === null) continue;
      const units = stacks.get(stack.toLowerCase()) ?? [];
      units.push({ id, modelId });
      stacks.set(stack.toLowerCase(), units);
    }
    return [...stacks.values()].flatMap((units) => {
      // A unit without a model may be of any.
      const models = new Set(units.flatMap(({ modelId }) => modelId ?? []));
      if (models.size < 2) return [];
      return [
        {
          severity: 'warn' as const,
          subjects: units.map(({ id }) => ({ kind: 'device' as const, id })),
          facts: { models: [...models].sort() },
        },
      ];
    });
  },
  says: ({ models }, network, subjects) => {
    const stack = network.get('device', subjects[0]?.id ?? null)?.stack ?? '';
    const named = models
      .flatMap((id) => network.get('model', id) ?? [])
      .map(modelTitle)
      .sort(compareNames);
    return `The stack ${stack} is of ${named.join(' and ')}. Use one model, or make two stacks.`;
  },
  about: (_facts, network, subjects) =>
    idsOf(subjects, 'device')
      .map((id) => `device ${nameOf(network, 'device', id)}`)
      .sort(compareNames),
});

export const memberRules: readonly Rule[] = [nameless, mixedStack];
