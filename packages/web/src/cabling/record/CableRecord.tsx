import { stockOf, stockText, moveEnd, bEnds, replaceCable, setLeg, swapEnds } from '@visograph/core/cabling';
import { type Attempt } from '@visograph/core/commands';
import {
  cableStatuses,
  endsOf,
  modelTitle,
  placePath,
  placeOfDevice,
  portTitle,
  portsOf,
  whereIs,
  type Cable,
  metresText,
} from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { useWorkspace } from '../../data/workspace.tsx';
import { Picker } from '../../kit/choice.tsx';
import { Button, Keycap } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { mono } from '../../theme/mono.ts';
import { DisconnectButton } from './DisconnectButton.tsx';
import { Card, ChosenFact, EditableFact, Facts, Goto, Head } from '../../record/parts.tsx';
import { OnSheetCard } from '../../sheets/record/OnSheetCard.tsx';
import { LinkSwitchingCard } from '../../switching/record/SwitchingCard.tsx';
import { RowHistory } from '../../record/RowHistory.tsx';
import { RunCard } from './RunCard.tsx';

const Ends = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
  > div > span {
    color: ${({ theme }) => theme.inkSoft};
  }
  p {
    ${mono}
    font-size: 12.5px;
    overflow-wrap: anywhere;
  }
`;

/** Plugs one end into another port: a device, then one of its ports that match. */
function MoveEnd({
  cable,
  side,
  onPick,
}: {
  cable: Cable;
  side: 'a' | 'b';
  onPick: (portId: string) => void;
}): ReactNode {
  const { view } = useProject();
  const { network } = view;
  const now = network.get('port', side === 'a' ? cable.aPortId : cable.bPortId);
  const other = network.get('port', side === 'a' ? cable.bPortId : cable.aPortId);
  const [deviceId, setDevice] = useState(now?.deviceId ?? null);
  const devices = useMemo(
    () =>
      [...network.all('device')]
        .filter((device) => network.countOf('portsByDevice', device.id) > 0)
        .map((device) => ({ id: device.id, text: device.name, detail: whereIs(network, device) })),
    [network],
  );
  const ports =
    deviceId === null
      ? []
      : bEnds(network, other, portsOf(network, deviceId)).filter((end) => end.refused === null);
  return (
    <div style={{ display: 'grid', gap: 6, marginTop: 6 }}>
      <Picker
        label={`${side.toUpperCase()} end: device`}
        options={devices}
        value={deviceId}
        onChange={setDevice}
      />
      <Picker
        label={`${side.toUpperCase()} end: port`}
        options={ports.map(({ port }) => ({ id: port.id, text: port.name }))}
        value={null}
        placeholder={ports.length === 0 ? 'no free port matches' : 'choose a free port'}
        onChange={(id) => id !== null && onPick(id)}
      />
    </div>
  );
}

export function CableRecord({ cable }: { cable: Cable }): ReactNode {
  const { view, canEdit, commit, sync } = useProject();
  const { network } = view;
  const { select } = useWhereabouts();
  const { setDock } = useWorkspace();
  const [moving, setMoving] = useState<'a' | 'b' | null>(null);
  const type = network.get('model', cable.typeId);
  const first = cable.aPortId ?? cable.bPortId;
  const make = (attempt: Attempt): void => {
    if (attempt.ok) {
      if (attempt.set.changes.length > 0) commit(attempt.set);
      setMoving(null);
    } else sync.announce({ tone: 'bad', text: attempt.why });
  };
  const types = [...network.all('model')]
    .filter((model) => model.form === 'cable' && (!model.retired || model.id === cable.typeId))
    .map((model) => ({ id: model.id, text: modelTitle(model) }));
  const end = (title: string, portId: string | null): ReactNode => {
    const port = network.get('port', portId);
    const device = network.get('device', port?.deviceId ?? null);
    return (
      <div>
        <span>{title}</span>
        {port === null || device === null ? (
          <p>open</p>
        ) : (
          <>
            <p>
              <Goto to={{ kind: 'device', id: device.id }}>{device.name}</Goto>
            </p>
            <p>
              <Goto to={{ kind: 'port', id: port.id }}>{port.name}</Goto>
            </p>
            <p>{whereIs(network, device)}</p>
            {device.rackId !== null && (
              <p>{placePath(network, placeOfDevice(network, device)).split('/').at(-1)}</p>
            )}
          </>
        )}
      </div>
    );
  };
  const legs = (['a', 'b'] as const).flatMap((side) =>
    endsOf(network, cable, side)
      .slice(1)
      .map((portId, at) => ({ side, number: at + 2, portId })),
  );
  return (
    <>
      <Head>
        <h2>{cable.label}</h2>
        <p>
          {[
            'cable',
            type === null ? null : modelTitle(type),
            cable.lengthM === null ? null : metresText(cable.lengthM),
            type === null ? null : stockText(stockOf(type, cable.lengthM)),
          ]
            .filter(Boolean)
            .join(' · ')}
        </p>
        <div>
          {first !== null && (
            <Button onPress={() => setDock({ form: 'trace', portId: first })}>
              Trace<Keycap>T</Keycap>
            </Button>
          )}
          {canEdit && <Button onPress={() => make(swapEnds(network, cable))}>Swap ends</Button>}
          {canEdit && (
            <DisconnectButton
              cable={cable}
              onGone={() => select(first === null ? null : { kind: 'port', id: first })}
            />
          )}
        </div>
      </Head>
      <Card title="Ends">
        <Ends>
          {end('A end', cable.aPortId)}
          {end('B end', cable.bPortId)}
        </Ends>
        {canEdit && (
          <div style={{ display: 'flex', gap: 6, marginTop: 8 }}>
            {(['a', 'b'] as const).map((side) => (
              <Button
                key={side}
                aria-pressed={moving === side}
                onPress={() => setMoving(moving === side ? null : side)}
              >
                {`Move ${side.toUpperCase()} end`}
              </Button>
            ))}
          </div>
        )}
        {moving !== null && (
          <MoveEnd
            key={moving}
            cable={cable}
            side={moving}
            onPick={(id) => {
              const port = network.get('port', id);
              if (port !== null) make(moveEnd(network, cable, moving, port));
            }}
          />
        )}
      </Card>
      {legs.length > 0 && (
        <Card title="Further legs">
          {legs.map(({ side, number, portId }) => (
            <p key={`${side}${number}`}>
              {`${side.toUpperCase()} ${number} `}
              {portId === null ? (
                <Hint>hangs loose</Hint>
              ) : (
                <>
                  <Goto to={{ kind: 'port', id: portId }}>
                    {portTitle(network, portId).replace(':', ' ')}
                  </Goto>{' '}
                  {canEdit && (
                    <Button
                      $tone="quiet"
                      aria-label={`Pull out leg ${number} of the ${side.toUpperCase()} end`}
                      style={{ height: 20, padding: '0 4px' }}
                      onPress={() => make(setLeg(network, cable, side, number, null))}
                    >
                      Pull out
                    </Button>
                  )}
                </>
              )}
            </p>
          ))}
        </Card>
      )}
      <Card title="Facts">
        <Facts>
          <EditableFact kind="cable" row={cable} field="label" optional={false} />
          <dt>Type</dt>
          <dd>
            {canEdit ? (
              <Picker
                label="Type"
                hideLabel
                options={types}
                value={cable.typeId}
                onChange={(id) =>
                  id !== null && id !== cable.typeId && make(replaceCable(network, cable, id))
                }
              />
            ) : type === null ? (
              '–'
            ) : (
              modelTitle(type)
            )}
          </dd>
          <EditableFact kind="cable" row={cable} field="lengthM" numeric />
          <EditableFact kind="cable" row={cable} field="splices" numeric optional={false} />
          <ChosenFact kind="cable" row={cable} field="status" options={cableStatuses} />
          <EditableFact kind="cable" row={cable} field="notes" />
        </Facts>
      </Card>
      {first !== null && <RunCard portId={first} />}
      <LinkSwitchingCard portId={first} />
      <OnSheetCard kind="cable" id={cable.id} label={cable.label} />
      <RowHistory rowId={cable.id} />
    </>
  );
}
