import type { StockLine } from '@visograph/core/model';
import { issueStock, receiveStock, stockLineOf } from '@visograph/core/purchase';
import { useMemo, useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { Picker } from '../../kit/choice.tsx';
import { Field } from '../../kit/controls.tsx';
import { ActPanel } from '../../kit/panel/ActPanel.tsx';
import { useKeep } from '../../data/useDo.ts';
import { PartPicker, placeOptions } from '../partPicker.tsx';

/** Takes parts into a store, or out of it; what stands in the way is told before the panel closes. */
export function MovePanel({
  way,
  line,
  onDone,
  onClose,
}: {
  way: 'receive' | 'issue';
  /** The line that is chosen: what a receipt begins with, and what is taken out. */
  line: StockLine | null;
  onDone: (id: string | null) => void;
  onClose: () => void;
}): ReactNode {
  const { view } = useProject();
  const keep = useKeep();
  const { network } = view;
  const [modelId, setModelId] = useState(line?.modelId ?? null);
  const [lengthM, setLengthM] = useState(line?.lengthM ?? null);
  const [placeId, setPlaceId] = useState(line?.placeId ?? null);
  const [count, setCount] = useState('1');
  const [why, setWhy] = useState<string | null>(null);
  const places = useMemo(() => placeOptions(network), [network]);
  const many = /^\d+$/.test(count.trim()) ? Number(count) : Number.NaN;
  const receive = way === 'receive';
  const act = (): boolean => {
    if (modelId === null || placeId === null) return false;
    const key = { modelId, placeId, lengthM };
    if (Number.isNaN(many)) {
      setWhy(`“${count}” is no whole number of pieces.`);
      return false;
    }
    const attempt = receive
      ? receiveStock(network, key, many)
      : line === null
        ? { ok: false as const, why: 'The line is gone.' }
        : issueStock(network, line, many);
    const problem = keep(attempt);
    setWhy(problem);
    const made = attempt.ok ? attempt.set.changes[0]?.id : undefined;
    if (problem === null) onDone(stockLineOf(network, key)?.id ?? made ?? null);
    return problem === null;
  };
  return (
    <ActPanel
      title={receive ? 'Receive parts' : 'Take parts out'}
      open
      onOpenChange={(stays) => !stays && onClose()}
      fields={
        <>
          {receive && (
            <>
              <PartPicker
                network={network}
                modelId={modelId}
                lengthM={lengthM}
                onChange={(id, length) => {
                  setModelId(id);
                  setLengthM(length);
                  setWhy(null);
                }}
              />
              <Picker label="Store" width={280} options={places} value={placeId} onChange={setPlaceId} />
            </>
          )}
          <Field
            label="Count"
            width={80}
            value={count}
            autoFocus={!receive}
            error={why}
            onChange={(text) => {
              setCount(text);
              setWhy(null);
            }}
          />
        </>
      }
      note={
        places.length === 0
          ? 'The project has no place yet. Make one in Places: any place can be a store.'
          : null
      }
      action={receive ? 'Receive' : 'Take out'}
      onAct={modelId === null || placeId === null ? null : act}
    />
  );
}
