import { spanText, type Body } from '@visograph/core/change';
import {
  grouped,
  byName,
  deviceSchema,
  expandPortPattern,
  modelTitle,
  noted,
  placePath,
  racksIn,
  placesWithin,
  roles,
  type PortGroup,
} from '@visograph/core/model';
import { addDevice, freePositions, nextDeviceName, rackUse } from '@visograph/core/racks';
import { useEffect, useMemo, type ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useWorkspace, type Dock } from '../data/workspace.tsx';
import { useFormActs } from '../data/useFormActs.ts';
import { Choice } from '../kit/choice.tsx';
import { Keycap } from '../kit/controls.tsx';
import { ChoiceIn, TextIn } from '../kit/form/fields.tsx';
import { FormArea, Send, Trouble } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { ClosingHead, DockColumn, DockFrame } from '../kit/panel/dock.tsx';
import { Hint } from '../kit/panel/panels.tsx';

type AddWish = Extract<Dock, { form: 'addDevice' }>;

const newDevice = z.object({
  modelId: noted(z.string('is not chosen'), { label: 'Model' }),
  rackId: noted(z.string().nullable(), { label: 'Rack' }),
  unit: noted(z.number().nullable(), { label: 'Free unit' }),
  /** Null: as it is proposed. */
  name: noted(trimmed(deviceSchema.shape.name).nullable(), { label: 'Name' }),
});

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
  const { view } = useProject();
  const { network } = view;
  const { scopeId, select } = useWhereabouts();
  const { setGhost } = useWorkspace();
  const form = useSchemaForm(newDevice, {
    ...(dock.modelId == null ? {} : { modelId: dock.modelId }),
    rackId: dock.rackId,
    unit: dock.unit,
    name: null,
  });
  const { control, refuse } = form;
  const [modelId, rackId, chosenUnit, typedName] = control.watch(['modelId', 'rackId', 'unit', 'name']);
  const { make } = useFormActs(form);

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
  const model = network.get('model', modelId ?? null);
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

  const send = (): void => {
    if (model === null) return;
    if (rack !== null && model.units > 0 && unit === null)
      return refuse([
        {
          field: 'rackId',
          message: `${rack.name} has no ${model.units} free units together. Choose another rack.`,
        },
      ]);
    const set = addDevice(network, {
      name,
      modelId: model.id,
      rackId,
      placeId,
      unit: model.units === 0 ? null : unit,
      ...(unit === null ? {} : { side: places.get(unit) ?? 'full' }),
    });
    if (set === null)
      return refuse([{ field: 'modelId', message: 'This model cannot be placed: it has no role.' }]);
    make(set, () => {
      select({ kind: 'device', id: set.deviceId });
      onClose();
    });
  };
  return (
    <DockFrame>
      <FormArea
        label="Add device"
        form={form}
        onSend={send}
        onKeyDown={(event) => {
          if (event.key === 'Escape' && !event.defaultPrevented) onClose();
        }}
      >
        <DockColumn $grow={1.3}>
          <h2>Model</h2>
          <ChoiceIn name="modelId" search autoFocus options={models} placeholder="Type a part: norvane 48" />
          <Hint>
            {model === null
              ? 'Maker, name, role or “48 port”: every word narrows the list.'
              : `${roles[model.role ?? 'XX'].label} · ${model.units} U · ${portSummary(model.portGroups)}${model.maxPowerW === null ? '' : ` · ${grouped(model.maxPowerW)} W`}`}
          </Hint>
        </DockColumn>
        <DockColumn $shaded>
          <h2>Where</h2>
          <div style={{ display: 'flex', gap: 8 }}>
            <ChoiceIn name="rackId" search options={racks} width={150} />
            <Choice
              label="Free unit"
              width={96}
              value={unit === null ? null : String(unit)}
              options={free.map((one) => ({ id: String(one), text: spanText({ unit: one, units: 1 }) }))}
              onChange={(next) => control.setValue('unit', Number(next))}
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
          <TextIn name="name" mono proposed={name} />
          <Trouble />
          <Send disabled={model === null}>
            {model === null ? 'Add device' : `Add ${name}`}
            <Keycap>Enter</Keycap>
          </Send>
        </DockColumn>
      </FormArea>
    </DockFrame>
  );
}
