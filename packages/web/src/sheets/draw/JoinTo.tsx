import { modelTitle, roles, type Network } from '@visograph/core/model';
import { useMemo, type ReactNode } from 'react';
import { Picker, type Option } from '../../kit/choice.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Afloat } from './Afloat.tsx';
import type { Lines } from './useLines.ts';

interface Props {
  lines: Lines;
  network: Network;
  /** Names of what the line comes from. */
  from: string;
  /** Devices that stand on the sheet: they come first. */
  here: ReadonlySet<string>;
  fromIds: ReadonlySet<string>;
}

/** What can stand at the far end of a line: a device of the sheet or of the project, or a new one of a model that fits. */
export function JoinTo({ lines, network, from, here, fromIds }: Props): ReactNode {
  const { end, models, joinTo, joinNew, keep } = lines;
  const options = useMemo((): Option[] => {
    if (end === null) return [];
    const among = end.among === null ? null : new Set(end.among);
    const devices =
      end.at !== null && among === null
        ? []
        : [...network.all('device')]
            .filter((device) => !fromIds.has(device.id) && (among === null || among.has(device.id)))
            .sort(
              (a, b) => Number(here.has(b.id)) - Number(here.has(a.id)) || a.name.localeCompare(b.name, 'en'),
            )
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
  }, [end, models, network, here, fromIds]);
  if (end === null) return null;
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
        placeholder={end.among === null ? 'Type a device, a role or a model' : 'Choose one of these'}
        onChange={(id) => {
          const [kind, rest = ''] = id?.split(':') ?? [];
          if (kind === 'device') joinTo(rest);
          else if (kind === 'model') joinNew(rest);
        }}
      />
      <Hint>Only what fits is listed. Esc lets the line go.</Hint>
    </Afloat>
  );
}
