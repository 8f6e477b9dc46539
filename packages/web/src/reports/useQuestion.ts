import { questionSchema, type Question, type Schedule } from '@visograph/core/model';
import { builtInQuestion, findReport, questionOf, reports, type Report } from '@visograph/core/report';
import { useMemo } from 'react';
import { useWhereabouts } from '../data/location.ts';
import { useInAddress } from '../data/useInAddress.ts';
import { useShown } from '../data/shown.ts';

const partSchema = questionSchema.partial();
/** What of a question is looked at otherwise than it is kept. */
type Changes = Partial<Question>;

function readChanges(text: string | null): { changes: Changes; trouble: string | null } {
  if (text === null) return { changes: {}, trouble: null };
  const trouble = 'What the address says of this schedule cannot be read: it is shown as it is kept.';
  try {
    const read = partSchema.safeParse(JSON.parse(text));
    return read.success ? { changes: read.data, trouble: null } : { changes: {}, trouble };
  } catch {
    return { changes: {}, trouble };
  }
}

const same = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other);

/** What differs from the question that is kept. */
function changesFrom(base: Question, next: Question): Changes {
  const kept = new Map<string, unknown>(Object.entries(base));
  return Object.fromEntries(Object.entries(next).filter(([field, value]) => !same(value, kept.get(field))));
}

export interface Asked {
  report: Report;
  /** The schedule of the project; null for a built-in one. */
  schedule: Schedule | null;
  title: string;
  question: Question;
  /** It is asked otherwise than it is kept. */
  changed: boolean;
  trouble: string | null;
  change: (fields: Changes) => void;
  /** As it is kept. */
  reset: () => void;
  /** Goes to a schedule: by its id, or a built-in one by its key; with changes where it begins otherwise. */
  open: (schedule: string, changes?: Changes) => void;
}

/** Which schedule is looked at, and what of its question is otherwise than it is kept. */
const addressed = ['schedule', 'view'] as const;

/** The question that is looked at, with all that one changes of it in the address. */
export function useQuestion(): Asked | null {
  const network = useShown();
  const { scopeId } = useWhereabouts();
  const [{ schedule: named, view }, put] = useInAddress(addressed, (next, to, before) => {
    if (to.schedule !== before.get('schedule')) next.delete('sel');
  });
  const schedule = network.get('schedule', named);
  const report = findReport(schedule?.of ?? named ?? '') ?? (schedule === null ? reports[0] : undefined);
  const base = useMemo(
    () =>
      schedule !== null
        ? questionOf(schedule)
        : report === undefined
          ? null
          : builtInQuestion(network, report, scopeId),
    [schedule, network, report, scopeId],
  );
  return useMemo(() => {
    if (base === null || report === undefined) return null;
    const { changes, trouble } = readChanges(view);
    const question = { ...base, ...changes };
    const textOf = (next: Question): string | null => {
      const differs = changesFrom(base, next);
      return Object.keys(differs).length === 0 ? null : JSON.stringify(differs);
    };
    return {
      report,
      schedule,
      title: schedule?.name ?? report.title,
      question,
      changed: textOf(question) !== null,
      trouble,
      change: (fields) => put({ schedule: named, view: textOf({ ...question, ...fields }) }),
      reset: () => put({ schedule: named, view: null }),
      open: (id, begun) => put({ schedule: id, view: begun === undefined ? null : JSON.stringify(begun) }),
    };
  }, [base, report, schedule, named, view, put]);
}
