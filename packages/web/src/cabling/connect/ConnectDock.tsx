import {
  connect,
  connectPairs,
  estimateLength,
  nextCableLabel,
  nextFreePort,
  waysToJoin,
  type Pair,
  type Ways,
} from '@visograph/core/cabling';
import { applyChanges } from '@visograph/core/change';
import {
  byName,
  cableSchema,
  noted,
  speedText,
  whereIs,
  type Network,
  type Port,
  metresText,
} from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { Picker, type Option } from '../../kit/choice.tsx';
import { Button, Keycap } from '../../kit/controls.tsx';
import { TextIn } from '../../kit/form/fields.tsx';
import { FormArea, Send, Trouble, troubleOf } from '../../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { ClosingHead, DockColumn, DockFrame } from '../../kit/panel/dock.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { PasteBlock } from './PasteBlock.tsx';
import { PortPicker } from './PortPicker.tsx';
import { useEnds, useFirstFocus, type ConnectWish } from './useEnds.ts';
import { WaysList } from './WaysList.tsx';

const Row = styled.div`
  display: flex;
  gap: 8px;
  flex: none;
`;
const Say = styled(Hint)`
  line-height: 16px;
  max-height: 34px;
  overflow: hidden;
`;
/** Metres as they are typed; null where nothing is, or no length. */
const metresIn = (text: string | null): number | null => {
  const value = text === null || text.trim() === '' ? NaN : Number(text.replace(',', '.'));
  return Number.isFinite(value) && value >= 0 ? value : null;
};
const newCable = z.object({
  /** Null: as it is proposed. */
  label: noted(trimmed(cableSchema.shape.label).nullable(), { label: 'Label' }),
  length: noted(
    z
      .string()
      .refine((text) => text.trim() === '' || metresIn(text) !== null, 'is not a length in metres')
      .nullable(),
    { label: 'Length', unit: 'm' },
  ),
  parallel: noted(
    z
      .string()
      .trim()
      .regex(/^[1-9]\d{0,3}$/, 'is not a number of cables: write 1 or more'),
    { label: 'In parallel' },
  ),
});
const figures = ['label', 'length', 'parallel'] as const;
const none: Ways = { fits: [], doesNotFit: [] };

const deviceOptions = (network: Network): Option[] =>
  [...network.all('device')]
    .filter((device) => network.countOf('portsByDevice', device.id) > 0)
    .sort(byName)
    .map((device) => ({ id: device.id, text: device.name, detail: whereIs(network, device) }));

/** The pairs of ports from the chosen ones onwards, both sides stepping to their next free port. */
function pairsFrom(network: Network, a: Port, b: Port, count: number): Pair[] {
  const step = (from: Port, taken: Set<string>): Port | null => {
    let port: Port | null = from;
    for (let tries = 0; port !== null && taken.has(port.id) && tries < 1000; tries++)
      port = nextFreePort(network, port);
    return port !== null && !taken.has(port.id) ? port : null;
  };
  const pairs: Pair[] = [];
  const taken = new Set<string>();
  let [left, right]: [Port | null, Port | null] = [a, b];
  while (pairs.length < count && left !== null && right !== null) {
    pairs.push({ a: left, b: right });
    taken.add(left.id).add(right.id);
    left = step(left, taken);
    if (left !== null) taken.add(left.id);
    right = step(right, taken);
    if (left !== null) taken.delete(left.id);
  }
  return pairs;
}

/**
 * Connecting: A end, what fits, B end. The A end is what was selected; Enter anywhere connects, takes the next
 * label and steps both ends on to their next free ports. Choices stay when the other end changes.
 */
export function ConnectDock({ dock, onClose }: { dock: ConnectWish; onClose: () => void }): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const { a, b } = useEnds(network, dock);
  const [typeId, setType] = useState<string | null>(null);
  const form = useSchemaForm(newCable, { label: null, length: null, parallel: '1' });
  const { control, refuse } = form;
  const [label, length, parallel] = control.watch(['label', 'length', 'parallel']);
  const [done, setDone] = useState<string | null>(null);
  const [pasting, setPasting] = useState(false);
  const area = useFirstFocus(dock);

  const needed = useMemo(
    () => (a.device === null || b.device === null ? null : estimateLength(network, a.device, b.device)),
    [network, a.device, b.device],
  );
  const overruled = metresIn(length);
  const metres = overruled ?? needed?.metres ?? null;
  const ways = useMemo(
    () => (a.port === null || b.port === null ? none : waysToJoin(network, a.port, b.port, metres)),
    [network, a.port, b.port, metres],
  );
  const way = ways.fits.find((one) => one.type.id === typeId) ?? ways.fits[0] ?? null;
  const shownLabel = label ?? (a.port === null ? '' : nextCableLabel(network, a.port, b.port));
  const options = useMemo(() => deviceOptions(network), [network]);
  const count = Number(parallel);
  const many = Number.isInteger(count) && count > 1;

  const finish = (sentence: string, after: Network, from: Port, to: Port): void => {
    setDone(sentence);
    control.reset();
    a.setPort(nextFreePort(after, from)?.id ?? null);
    b.setPort(nextFreePort(after, to)?.id ?? null);
  };
  const connectMany = (from: Port, to: Port): void => {
    const pairs = pairsFrom(network, from, to, Math.min(count, 500));
    const { results, set } = connectPairs(network, pairs, {
      typeId: way?.type.id ?? null,
      lengthM: overruled,
    });
    const wrong = results.find((result) => result.problem !== null);
    if (wrong !== undefined || pairs.length < count)
      return refuse([
        {
          field: 'parallel',
          message:
            wrong?.problem ??
            `There are only ${pairs.length} pairs of free ports like these; ${count} were asked for.`,
        },
      ]);
    const tried = applyChanges(network, set.changes);
    if (!tried.ok) return refuse(tried.problems.slice(0, 1));
    if (!commit(set).ok) return;
    const last = pairs.at(-1);
    if (last !== undefined) finish(set.sentence, tried.network, last.a, last.b);
  };
  const send = (): void => {
    if (a.port === null || b.port === null)
      return refuse([
        {
          field: null,
          message:
            a.port === null
              ? 'Choose a free port for the A end.'
              : 'Choose a free, matching port for the B end.',
        },
      ]);
    if (many) return connectMany(a.port, b.port);
    const set = connect(network, {
      aPortId: a.port.id,
      bPortId: b.port.id,
      label: shownLabel,
      typeId: way?.type.id ?? null,
      lengthM: overruled ?? way?.lengthM ?? null,
      optics: way?.optics ?? [],
      aLegs: way?.aLegs ?? [],
      bLegs: way?.bLegs ?? [],
    });
    const tried = applyChanges(network, set.changes);
    if (!tried.ok) return refuse(tried.problems);
    if (!commit(set).ok) return;
    finish(set.sentence, tried.network, a.port, b.port);
  };
  if (pasting) return <PasteBlock onBack={() => setPasting(false)} onClose={onClose} />;
  const action = many ? `Connect ${count} pairs` : `Connect as ${shownLabel}`;
  const trouble = troubleOf(form, figures);
  const noEnd = b.device !== null && a.port !== null && b.port === null;
  return (
    <DockFrame>
      <FormArea
        areaRef={area}
        label="Connect"
        form={form}
        onSend={send}
        onKeyDown={(event) => {
          if (event.key === 'Escape' && !event.defaultPrevented) onClose();
          const list =
            event.target instanceof HTMLElement && event.target.closest('[role="listbox"]') !== null;
          if (event.key === 'Enter' && list && !event.defaultPrevented) area.current?.requestSubmit();
        }}
      >
        <DockColumn>
          <h2>{a.port === null ? 'A end' : `A end · ${a.port.name}`}</h2>
          <Picker label="A device" options={options} value={a.deviceId} onChange={a.setDevice} />
          {a.device !== null && (
            <PortPicker label="A port" ends={a.ends} value={a.port?.id ?? null} onChange={a.setPort} />
          )}
        </DockColumn>
        <DockColumn $shaded $grow={1.5}>
          <h2>
            <span>
              {needed === null
                ? 'What fits'
                : `What fits at ${metresText(Math.round(needed.metres * 10) / 10)}`}
            </span>
            <Button $tone="quiet" onPress={() => setPasting(true)} style={{ height: 20, padding: '0 4px' }}>
              From a list
            </Button>
          </h2>
          {a.port === null || b.port === null ? (
            <Hint>
              {noEnd
                ? `${b.device?.name ?? ''} has no free port that matches ${a.port?.name ?? ''}.`
                : 'Choose both ends: what fits between them is listed here.'}
            </Hint>
          ) : (
            <>
              <WaysList ways={ways} value={way?.type.id ?? null} onChange={setType} />
              <Row>
                <TextIn name="label" mono brief proposed={shownLabel} />
                <TextIn
                  name="length"
                  brief
                  mono
                  width={76}
                  proposed={way?.lengthM == null ? '' : String(way.lengthM)}
                />
                <TextIn name="parallel" mono brief width={66} />
              </Row>
            </>
          )}
          <Trouble of={figures} />
          {trouble === null && done !== null && <Say role="status">{done}</Say>}
          {trouble === null && done === null && needed !== null && (
            <Say title={needed.arithmetic}>{`Length: ${needed.arithmetic}`}</Say>
          )}
        </DockColumn>
        <DockColumn>
          <ClosingHead onClose={onClose}>{b.port === null ? 'B end' : `B end · ${b.port.name}`}</ClosingHead>
          <Picker label="B device" options={options} value={b.deviceId} onChange={b.setDevice} />
          {b.device !== null && (
            <PortPicker label="B port" ends={b.ends} value={b.port?.id ?? null} onChange={b.setPort} />
          )}
          <Send disabled={a.port === null || b.port === null}>
            {a.port !== null && b.port !== null
              ? action
              : b.device === null
                ? 'Not chosen yet'
                : `${b.device.name}: no free port`}
            <Keycap>Enter</Keycap>
          </Send>
          {way?.speedBps != null && !many && (
            <Say>{`Runs at ${speedText(way.speedBps)}${way.bLegs.length > 0 ? `, legs to ${way.bLegs.map((leg) => leg.name).join(', ')}` : ''}`}</Say>
          )}
        </DockColumn>
      </FormArea>
    </DockFrame>
  );
}
