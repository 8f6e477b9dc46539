import type { CircuitEnd } from '@visograph/core/cabling';
import { compareNames, modelTitle, roles, type Network } from '@visograph/core/model';
import type { Plate } from '@visograph/core/sheets';
import { useMemo, type ReactNode } from 'react';
import { Picker, type Option } from '../../kit/choice.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Afloat } from './Afloat.tsx';
import { unnamedProvider } from './lineAsk.ts';
import type { Lines } from './useLines.ts';

interface Props {
  lines: Lines;
  network: Network;
  /** Names of what the line comes from. */
  from: string;
  plates: readonly Plate[];
  fromPlates: readonly Plate[];
}

/** Places of the sheet and the networks of providers: what a circuit between places can lead to. */
function circuitEnds(network: Network, plates: readonly Plate[], fromPlates: readonly Plate[]): Option[] {
  const providers = new Set([...network.all('circuit')].flatMap(({ provider }) => provider ?? []));
  return [
    ...plates
      .filter((plate) => plate.form === 'place' && !fromPlates.includes(plate))
      .map((plate) => ({
        id: `place:${plate.subjects[0] ?? ''}`,
        text: plate.name,
        detail: 'on this sheet',
      })),
    ...[...providers]
      .sort(compareNames)
      .map((name) => ({ id: `provider:${name}`, text: name, detail: 'network of a provider' })),
    { id: `provider:${unnamedProvider}`, text: 'another provider', detail: 'its name is said next' },
  ];
}

/** What can stand at the far end of a line: a device of the sheet or of the project, or a new one of a model that fits. */
export function JoinTo({ lines, network, from, plates, fromPlates }: Props): ReactNode {
  const { end, models, choices, choose, joinTo, joinNew, keep } = lines;
  const options = useMemo((): Option[] => {
    if (end === null) return [];
    if (choices !== null) return [...choices];
    if (fromPlates.some((plate) => plate.form === 'place')) return circuitEnds(network, plates, fromPlates);
    const here = new Set(plates.flatMap((plate) => plate.deviceIds));
    const fromIds = new Set(fromPlates.flatMap((plate) => plate.deviceIds));
    const among = end.among === null ? null : new Set(end.among);
    const devices =
      end.at !== null && among === null
        ? []
        : [...network.all('device')]
            .filter((device) => !fromIds.has(device.id) && (among === null || among.has(device.id)))
            .sort((a, b) => Number(here.has(b.id)) - Number(here.has(a.id)) || compareNames(a.name, b.name))
            .map((device) => ({
              id: `device:${device.id}`,
              text: device.name,
              detail: [roles[device.role].label, here.has(device.id) ? '' : 'not on this sheet']
                .filter(Boolean)
                .join(' · '),
            }));
    const fresh =
      among !== null
        ? []
        : models.map((model) => ({
            id: `model:${model.id}`,
            text: `new ${model.maker === null ? model.name.replace(/^Generic /, '') : modelTitle(model)}`,
            detail: roles[model.role ?? 'XX'].label,
          }));
    return [...devices, ...fresh];
  }, [end, models, choices, network, plates, fromPlates]);
  if (end === null) return null;
  const joined = (kind: string, id: string): CircuitEnd =>
    kind === 'place' ? { placeId: id } : kind === 'provider' ? { provider: id } : { deviceId: id };
  return (
    <Afloat at={end.at ?? end.from.at} label="What stands at the other end" onEscape={keep}>
      <strong>{`${from} to …`}</strong>
      <Picker
        label="What stands at the other end"
        hideLabel
        autoFocus
        width={280}
        value={null}
        options={options}
        placeholder={
          choices !== null
            ? choices.length === 0
              ? 'Nothing here that it could be joined to'
              : 'Type what it is to be joined to'
            : fromPlates.some((plate) => plate.form === 'place')
              ? 'Type a place or a provider'
              : end.among === null
                ? 'Type a device, a role or a model'
                : 'Choose one of these'
        }
        onChange={(id) => {
          if (choices !== null) return id === null ? undefined : choose(id);
          const [kind = '', ...rest] = id?.split(':') ?? [];
          if (kind === 'model') joinNew(rest.join(':'));
          else if (kind !== '') joinTo(joined(kind, rest.join(':')));
          return undefined;
        }}
      />
      <Hint>Only what fits is listed. Esc lets the line go.</Hint>
    </Afloat>
  );
}
