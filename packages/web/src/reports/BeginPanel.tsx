import type { Question } from '@visograph/core/model';
import { builtInQuestion, findReport, reports } from '@visograph/core/report';
import { useState, type ReactNode } from 'react';
import { useWhereabouts } from '../data/location.ts';
import { useShown } from '../data/shown.ts';
import { Picker } from '../kit/choice.tsx';
import { ActPanel } from '../kit/panel/ActPanel.tsx';

/** Begins a schedule from nothing: what its rows are, with one column; the rest is picked while it answers. */
export function BeginPanel({
  onBegin,
  onClose,
}: {
  onBegin: (report: string, changes: Partial<Question>) => void;
  onClose: () => void;
}): ReactNode {
  const network = useShown();
  const { scopeId } = useWhereabouts();
  const [of, setOf] = useState<string | null>(null);
  const report = of === null ? null : findReport(of);
  return (
    <ActPanel
      title="Begin a schedule"
      open
      onOpenChange={(stays) => !stays && onClose()}
      fields={
        <Picker
          label="A row is one of"
          width={360}
          autoFocus
          options={reports.map(({ key, title, what }) => ({
            id: key,
            text: title,
            detail: what.slice(0, 60),
          }))}
          value={of}
          onChange={setOf}
        />
      }
      note="It begins with one column. Pick the others beside the rows, and keep it under a name when it is right."
      action="Begin"
      onAct={
        report === null
          ? null
          : () => {
              const [first] = builtInQuestion(network, report, scopeId).columns;
              if (first === undefined) return false;
              onBegin(report.key, { columns: [first] });
              return true;
            }
      }
    />
  );
}
