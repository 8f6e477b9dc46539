import { applyChanges } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import {
  readBridgeAddress,
  spanningTreeModes,
  type Device,
  type Port,
  type PortSpanningTree,
  type SpanningTreeMode,
  type SpanningTreeSettings,
} from '@visograph/core/model';
import { readTreeParts, treePartsText } from '@visograph/core/switching';
import { useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { Choice } from '../../kit/choice.tsx';
import { Button, Field } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Tick } from '../../kit/Tick.tsx';
import { FactForm } from '../../record/factList.tsx';
import { Card, EditableFact, Facts } from '../../record/parts.tsx';

const modeTexts: Record<SpanningTreeMode, string> = {
  off: 'off',
  one: 'one tree for all',
  'per VLAN': 'a tree per VLAN',
  instances: 'instances',
};

/** How a switch takes part in keeping its links free of loops: priority, address, which trees it keeps. */
export function SpanningTreeCard({ device }: { device: Device }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const settings = device.spanningTree;
  const texts = { region: settings?.region ?? '', parts: treePartsText(settings) };
  const shown = `${device.id} ${JSON.stringify(settings)}`;
  const [from, setFrom] = useState(shown);
  const [typed, setTyped] = useState(texts);
  const [why, setWhy] = useState<string | null>(null);
  if (from !== shown) {
    setFrom(shown);
    setTyped(texts);
    setWhy(null);
  }
  const set = (spanningTree: SpanningTreeSettings | null): void => {
    const made = editRow(view.network, 'device', device, { spanningTree });
    const tried = applyChanges(view.network, made.changes);
    setWhy(tried.ok ? null : (tried.problems[0]?.message ?? 'It cannot be kept.'));
    if (tried.ok) commit(made);
  };
  const keep = (): void => {
    if (settings === null) return;
    const read = readTreeParts(settings.mode, typed.parts);
    if (!read.ok) return setWhy(`${read.why}.`);
    set({ ...settings, region: typed.region.trim() || null, parts: read.parts });
  };
  const hasParts = settings?.mode === 'instances' || settings?.mode === 'per VLAN';
  return (
    <Card title="Spanning tree">
      <Facts>
        <EditableFact kind="device" row={device} field="bridgePriority" numeric />
        <EditableFact
          kind="device"
          row={device}
          field="bridgeAddress"
          canonical={(text) => readBridgeAddress(text) ?? text}
        />
        <dt>Trees</dt>
        <dd>
          <Choice
            label="Trees"
            hideLabel
            width={150}
            value={settings?.mode ?? 'none'}
            options={[
              { id: 'none', text: 'not recorded', disabled: !canEdit },
              ...spanningTreeModes.map((mode) => ({ id: mode, text: modeTexts[mode], disabled: !canEdit })),
            ]}
            onChange={(id) => {
              const mode = spanningTreeModes.find((one) => one === id);
              set(mode === undefined ? null : { mode, region: null, parts: [] });
            }}
          />
        </dd>
      </Facts>
      {hasParts && (
        <FactForm
          onSubmit={(event) => {
            event.preventDefault();
            keep();
          }}
        >
          {settings.mode === 'instances' && (
            <Field
              readOnly={!canEdit}
              label="Region"
              width={250}
              value={typed.region}
              onChange={(region) => setTyped({ ...typed, region })}
            />
          )}
          <Field
            readOnly={!canEdit}
            label={settings.mode === 'instances' ? 'Instances' : 'VLANs with a priority of their own'}
            mono
            width={250}
            value={typed.parts}
            onChange={(parts) => setTyped({ ...typed, parts })}
            help={
              settings.mode === 'instances'
                ? 'Such as 1: 10,20 at 4096; 2: 30'
                : 'Such as 10,20 at 4096; 30 at 8192'
            }
          />
          {canEdit && JSON.stringify(typed) !== JSON.stringify(texts) && (
            <Button type="submit" $tone="primary">
              Keep
            </Button>
          )}
        </FactForm>
      )}
      {why !== null && <Hint role="alert">{why}</Hint>}
    </Card>
  );
}

const unset: PortSpanningTree = { cost: null, priority: null, edge: false };

/** Cost and priority of a switched port in its trees, and whether an end device alone is expected behind it. */
export function PortSpanningTreeCard({ port }: { port: Port }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const now = port.spanningTree ?? unset;
  const texts = { cost: String(now.cost ?? ''), priority: String(now.priority ?? '') };
  const shown = `${port.id} ${JSON.stringify(now)}`;
  const [from, setFrom] = useState(shown);
  const [typed, setTyped] = useState(texts);
  const [why, setWhy] = useState<string | null>(null);
  if (from !== shown) {
    setFrom(shown);
    setTyped(texts);
    setWhy(null);
  }
  const set = (next: PortSpanningTree): void => {
    const said = next.cost !== null || next.priority !== null || next.edge;
    const made = editRow(view.network, 'port', port, { spanningTree: said ? next : null });
    const tried = applyChanges(view.network, made.changes);
    setWhy(tried.ok ? null : (tried.problems[0]?.message ?? 'It cannot be kept.'));
    if (tried.ok) commit(made);
  };
  const keep = (): void => {
    const numbers = [typed.cost, typed.priority].map((text) => (text.trim() === '' ? null : Number(text)));
    const wrong = [typed.cost, typed.priority].find((_, at) => Number.isNaN(numbers[at]));
    if (wrong !== undefined) return setWhy(`“${wrong.trim()}” is not a number.`);
    set({ ...now, cost: numbers[0] ?? null, priority: numbers[1] ?? null });
  };
  return (
    <Card title="Spanning tree">
      <FactForm
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <Field
          readOnly={!canEdit}
          label="Path cost"
          mono
          width={110}
          value={typed.cost}
          onChange={(cost) => setTyped({ ...typed, cost })}
          help="by speed if empty"
        />
        <Field
          readOnly={!canEdit}
          label="Port priority"
          mono
          width={110}
          value={typed.priority}
          onChange={(priority) => setTyped({ ...typed, priority })}
          help="128 if empty"
        />
        {canEdit && JSON.stringify(typed) !== JSON.stringify(texts) && (
          <Button type="submit" $tone="primary">
            Keep
          </Button>
        )}
      </FactForm>
      <Tick isSelected={now.edge} isDisabled={!canEdit} onChange={(edge) => set({ ...now, edge })}>
        Edge port: an end device is behind it, it forwards at once
      </Tick>
      {why !== null && <Hint role="alert">{why}</Hint>}
    </Card>
  );
}
