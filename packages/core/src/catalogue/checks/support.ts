import { yearsFrom, type Day } from '../../model/values/day.ts';
import { defineRule, type Evidence, type Rule } from '../../check/finding.ts';
import { idsOf, nameOf } from '../../check/names.ts';
import { bothOf, rowParts } from '../../check/rowParts.ts';
import { compareNames } from '../../model/values/order.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';

/** Told a year ahead, as long as a replacement takes to be asked for, and a fault from the day itself on. */
const ending = ({ id }: Device, on: Day): Evidence<{ on: Day }> => ({
  severity: 'bad',
  subjects: [{ kind: 'device', id }],
  facts: { on },
  days: [
    { from: yearsFrom(on, -1), severity: 'warn' },
    { from: on, severity: 'bad' },
  ],
});

const modelSupport = defineRule({
  key: 'model-support-ends',
  title: 'Gear that its maker no longer supports',
  why: 'After its end of support a model gets no more corrections, also not for what can be broken into.',
  reads: { device: ['modelId', 'status'], model: ['endOfSupport'] },
  find: rowParts(
    'device',
    (network, device) => {
      const on = network.get('model', device.modelId)?.endOfSupport ?? null;
      return on === null ? null : ending(device, on);
    },
    (network, touched) =>
      bothOf(touched, 'model').flatMap(({ id }) => network.find('devicesByModel', id).map((row) => row.id)),
  ),
  says: ({ on }, network, [device]) => {
    const model = network.get('model', network.get('device', device?.id ?? null)?.modelId ?? null);
    return `The maker’s support of ${model === null ? 'its model' : modelTitle(model)} ends on ${on}, and ${nameOf(network, 'device', device?.id ?? null)} is one. Plan its successor.`;
  },
});

const contract = defineRule({
  key: 'support-contract-ends',
  title: 'Support contracts that end',
  why: 'Without a contract a broken device is replaced when somebody sells one, not the next morning.',
  reads: { device: ['supportUntil', 'status'] },
  find: rowParts('device', (_network, device) =>
    device.supportUntil === null ? null : ending(device, device.supportUntil),
  ),
  says: ({ on }, network, [device]) =>
    `Support of ${nameOf(network, 'device', device?.id ?? null)} is paid until ${on}. Extend it, or write down its successor.`,
});

const retiredModel = defineRule({
  key: 'model-retired',
  title: 'Models that are retired and in use',
  why: 'The house has given the model up: what is planned with it cannot be ordered, and nobody keeps spares.',
  reads: { device: ['modelId', 'status'], model: ['retired'] },
  find: rowParts(
    'model',
    (network, model) => {
      const using = model.retired ? network.find('devicesByModel', model.id) : [];
      if (using.length === 0) return null;
      return {
        severity: 'warn',
        subjects: [
          { kind: 'model', id: model.id },
          ...using.map(({ id }) => ({ kind: 'device' as const, id })),
        ],
        facts: { devices: using.length },
      };
    },
    (_network, touched) => bothOf(touched, 'device').flatMap(({ modelId }) => modelId ?? []),
  ),
  says: ({ devices }, network, [model]) => {
    const row = network.get('model', model?.id ?? null);
    return `${row === null ? 'The model' : modelTitle(row)} is retired and ${devices} ${devices === 1 ? 'device is' : 'devices are'} of it. Give ${devices === 1 ? 'it' : 'them'} another model when ${devices === 1 ? 'it is' : 'they are'} replaced.`;
  },
  about: (_facts, network, subjects) => [
    ...idsOf(subjects, 'model').map((id) => `model ${nameOf(network, 'model', id)}`),
    ...idsOf(subjects, 'device')
      .map((id) => `device ${nameOf(network, 'device', id)}`)
      .sort(compareNames),
  ],
});

export const supportRules: readonly Rule[] = [modelSupport, contract, retiredModel];
