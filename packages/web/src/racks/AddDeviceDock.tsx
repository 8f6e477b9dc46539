import { applyChanges, spanText, type Body } from '@visograph/core/change';
import {
  byName,
  expandPortPattern,
  modelTitle,
  placePath,
  racksIn,
  placesWithin,
  roles,
  type PortGroup,
} from '@visograph/core/model';
import { addDevice, freePositions, nextDeviceName, rackUse } from '@visograph/core/racks';
import { useEffect, useMemo, useState, type FormEvent, type ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useWorkspace, type Dock } from '../data/workspace.tsx';
import { Choice, Picker } from '../kit/choice.tsx';
import { Button, Field, Keycap } from '../kit/controls.tsx';
import { ClosingHead, DockColumn, DockFrame, Trouble } from '../kit/panel/dock.tsx';
import { Hint } from '../kit/panel/panels.tsx';

type AddWish = Extract<Dock, { form: 'addDevice' }>;

/** How many ports the groups bring in front: "52 ports". */
function portSummary(groups: readonly PortGroup[]): string {
  const count = groups.reduce((sum, group) => {
    const names = expandPortPattern(group.pattern);
    return sum + (names.ok ? names.names.length : 0);
  }, 0);
  return count === 0 ? 'no ports' : `${count} ${count === 1 ? 'port' : 'ports'}`;
}

/** A device from the catalogue: model, rack and a free unit; the next name by the site's own pattern is proposed. */
export function AddDeviceDock({ dock, onClose }: { dock: AddWish; onClose: () => void }): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const { scopeId, select } = useWhereabouts();
  const { setGhost } = useWorkspace();
  const [modelId, setModel] = useState<string | null>(dock.modelId ?? null);
  const [rackId, setRack] = useState(dock.rackId);
  const [chosenUnit, setUnit] = useState<number | null>(dock.unit);
  const [typedName, setName] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);

  const models = useMemo(
    () =>
      [...network.all('model')]
        .filter((model) => model.form === 'device' && !model.retired)
        .sort((a, b) => byName({ name: modelTitle(a) }, { name: modelTitle(b) }))
        .map((model) => ({
          id: model.id,
          text: modelTitle(model),
          detail: `${model.role === null ? '' : roles[model.role].label} · ${portSummary(model.portGroups)} · ${model.units} U`,
        })),
    [network],
  );
  const racks = useMemo(() => {
    const here = racksIn(network, placesWithin(network, scopeId));
    const all = here.length > 0 ? here : racksIn(network, placesWithin(network, null));
    return all.map((rack) => ({
      id: rack.id,
      text: rack.name,
      detail: `${placePath(network, rack.placeId).split('/').at(-1) ?? ''} · ${rackUse(network, rack).free} U free`,
    }));
  }, [network, scopeId]);
  const model = network.get('model', modelId);
  const rack = network.get('rack', rackId);
  const body = useMemo(
    () =>
      model === null
        ? null
        : {
            units: model.units,
            face: 'front' as const,
            fillsBothFaces: model.fillsBothFaces,
            side: model.halfWidth ? ('left' as const) : ('full' as const),
          },
    [model],
  );
  // Half-width gear may stand at the right where something stands at the left.
  const places = useMemo(() => {
    if (rack === null || body === null) return new Map<number, Body['side']>();
    const sides: Body['side'][] = body.side === 'full' ? ['full'] : ['right', 'left'];
    return new Map(
      sides.flatMap((side) =>
        freePositions(network, rack, { ...body, side }).map((one) => [one, side] as const),
      ),
    );
  }, [network, rack, body]);
  const free = useMemo(() => [...places.keys()].sort((a, b) => b - a), [places]);
  const unit = chosenUnit !== null && free.includes(chosenUnit) ? chosenUnit : (free[0] ?? null);
  const placeId = rack?.placeId ?? scopeId;
  const name =
    typedName ?? (model?.role == null ? '' : nextDeviceName(network, placeId, model.role, model.id));

  useEffect(() => {
    if (rack !== null && unit !== null && model !== null)
      setGhost({ rackId: rack.id, unit, units: model.units, side: places.get(unit) ?? 'full', name });
    else setGhost(null);
    return () => setGhost(null);
  }, [rack, unit, model, name, places, setGhost]);

  const submit = (event: FormEvent): void => {
    event.preventDefault();
    if (model === null) return setTrouble('Choose a model of the catalogue.');
    if (rack !== null && model.units > 0 && unit === null)
      return setTrouble(`${rack.name} has no ${model.units} free units together. Choose another rack.`);
    const set = addDevice(network, {
      name,
      modelId: model.id,
      rackId,
      placeId,
      unit: model.units === 0 ? null : unit,
      ...(unit === null ? {} : { side: places.get(unit) ?? 'full' }),
    });
    if (set === null) return setTrouble('This model cannot be placed: it has no role.');
    const tried = applyChanges(network, set.changes);
    if (!tried.ok) return setTrouble(tried.problems[0]?.message ?? 'It cannot be added.');
    if (!commit(set).ok) return;
    setTrouble(null);
    setName(null);
    setUnit(null);
    select({ kind: 'device', id: set.deviceId });
    onClose();
  };
  return (
    <DockFrame
      as="form"
      aria-label="Add device"
      onSubmit={submit}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && !event.defaultPrevented) onClose();
      }}
    >
      <DockColumn $grow={1.3}>
        <h2>Model</h2>
        <Picker
          label="Model"
          options={models}
          value={modelId}
          onChange={setModel}
          autoFocus
          placeholder="Type a part: norvane 48"
        />
        <Hint>
          {model === null
            ? 'Maker, name, role or “48 port”: every word narrows the list.'
            : `${roles[model.role ?? 'XX'].label} · ${model.units} U · ${portSummary(model.portGroups)}${model.maxPowerW === null ? '' : ` · ${model.maxPowerW} W`}`}
        </Hint>
      </DockColumn>
      <DockColumn $shaded>
        <h2>Where</h2>
        <div style={{ display: 'flex', gap: 8 }}>
          <Picker label="Rack" options={racks} value={rackId} onChange={setRack} width={150} />
          <Choice
            label="Free unit"
            width={96}
            value={unit === null ? null : String(unit)}
            options={free.map((one) => ({ id: String(one), text: spanText({ unit: one, units: 1 }) }))}
            onChange={(next) => setUnit(Number(next))}
          />
        </div>
        <Hint>
          {rack === null
            ? 'Without a rack it stands in the place of the scope.'
            : model === null
              ? ''
              : `${free.length} positions of ${rack.name} are free for ${model.units} U`}
        </Hint>
      </DockColumn>
      <DockColumn>
        <ClosingHead onClose={onClose}>Name</ClosingHead>
        <Field label="Name" value={name} onChange={setName} mono required />
        {trouble !== null && <Trouble role="alert">{trouble}</Trouble>}
        <Button type="submit" $tone="primary" isDisabled={model === null}>
          {model === null ? 'Add device' : `Add ${name}`}
          <Keycap>Enter</Keycap>
        </Button>
      </DockColumn>
    </DockFrame>
  );
}
