import { editRow } from '@visograph/core/commands';
import {
  macOf,
  noted,
  spanningTreeModes,
  type Device,
  type Port,
  type PortSpanningTree,
  type SpanningTreeMode,
  type SpanningTreeSettings,
} from '@visograph/core/model';
import { readTreeParts, treePartsText } from '@visograph/core/switching';
import { useMemo, type ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useFormActs } from '../../data/useFormActs.ts';
import { Choice } from '../../kit/choice.tsx';
import { NumberIn, TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Tick } from '../../kit/Tick.tsx';
import { Card, EditableFact, Facts } from '../../record/parts.tsx';

const modeTexts: Record<SpanningTreeMode, string> = {
  off: 'off',
  one: 'one tree for all',
  'per VLAN': 'a tree per VLAN',
  instances: 'instances',
};

/** What is told of the parts: such as 1: 10,20 at 4096. */
const partsIn = (mode: SpanningTreeMode) => {
  const label = mode === 'instances' ? 'Instances' : 'VLANs with a priority of their own';
  return z.object({
    region: noted(z.string(), { label: 'Region' }),
    parts: noted(
      z.string().superRefine((text, context) => {
        const read = readTreeParts(mode, text);
        if (!read.ok) context.addIssue({ code: 'custom', message: `${read.why}.` });
      }),
      {
        label,
        help: mode === 'instances' ? 'Such as 1: 10,20 at 4096; 2: 30' : 'Such as 10,20 at 4096; 30 at 8192',
      },
    ),
  });
};

/** The trees that a switch keeps: their VLANs and priorities, and the region that they hold in. */
function PartsForm({ device, settings }: { device: Device; settings: SpanningTreeSettings }): ReactNode {
  const { view, canEdit } = useProject();
  const { mode } = settings;
  const schema = useMemo(() => partsIn(mode), [mode]);
  const now = { region: settings.region ?? '', parts: treePartsText(settings) };
  const form = useSchemaForm(schema, now, now);
  const { make } = useFormActs(form);
  return (
    <Form
      label="Trees"
      form={form}
      action="Keep"
      changes
      readOnly={!canEdit}
      onSend={({ region, parts }) => {
        const read = readTreeParts(mode, parts);
        const next = { ...settings, region: region.trim() || null, parts: read.ok ? read.parts : [] };
        make(editRow(view.network, 'device', device, { spanningTree: next }));
      }}
    >
      {mode === 'instances' && <TextIn name="region" width={250} />}
      <TextIn name="parts" mono width={250} />
    </Form>
  );
}

/** How a switch takes part in keeping its links free of loops: priority, address, which trees it keeps. */
export function SpanningTreeCard({ device }: { device: Device }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const settings = device.spanningTree;
  const take = (id: SpanningTreeMode | 'none'): void => {
    const spanningTree = id === 'none' ? null : { mode: id, region: null, parts: [] };
    commit(editRow(view.network, 'device', device, { spanningTree }));
  };
  return (
    <Card title="Spanning tree">
      <Facts>
        <EditableFact kind="device" row={device} field="bridgePriority" numeric />
        <EditableFact
          kind="device"
          row={device}
          field="bridgeAddress"
          canonical={(text) => macOf(text) ?? text}
        />
        <dt>Trees</dt>
        <dd>
          <Choice
            label="Trees"
            hideLabel
            width={150}
            value={settings?.mode ?? 'none'}
            options={[
              { id: 'none' as const, text: 'not recorded', disabled: !canEdit },
              ...spanningTreeModes.map((mode) => ({ id: mode, text: modeTexts[mode], disabled: !canEdit })),
            ]}
            onChange={take}
          />
        </dd>
      </Facts>
      {(settings?.mode === 'instances' || settings?.mode === 'per VLAN') && (
        <PartsForm key={`${device.id} ${settings.mode}`} device={device} settings={settings} />
      )}
    </Card>
  );
}

const unset: PortSpanningTree = { cost: null, priority: null, edge: false };
const portTree = z.object({
  cost: noted(z.number().nullable(), { label: 'Path cost', help: 'by speed if empty' }),
  priority: noted(z.number().nullable(), { label: 'Port priority', help: '128 if empty' }),
});

/** Cost and priority of a switched port in its trees, and whether an end device alone is expected behind it. */
export function PortSpanningTreeCard({ port }: { port: Port }): ReactNode {
  const { view, canEdit } = useProject();
  const now = port.spanningTree ?? unset;
  const typed = { cost: now.cost, priority: now.priority };
  const form = useSchemaForm(portTree, typed, typed);
  const { make } = useFormActs(form);
  const set = (next: PortSpanningTree): void => {
    const said = next.cost !== null || next.priority !== null || next.edge;
    make(editRow(view.network, 'port', port, { spanningTree: said ? next : null }));
  };
  return (
    <Card title="Spanning tree">
      <Form
        label="Cost and priority"
        form={form}
        row
        action="Keep"
        changes
        readOnly={!canEdit}
        onSend={(fields) => set({ ...now, ...fields })}
      >
        <NumberIn name="cost" width={110} />
        <NumberIn name="priority" width={110} />
      </Form>
      <Tick isSelected={now.edge} isDisabled={!canEdit} onChange={(edge) => set({ ...now, edge })}>
        Edge port: an end device is behind it, it forwards at once
      </Tick>
    </Card>
  );
}
