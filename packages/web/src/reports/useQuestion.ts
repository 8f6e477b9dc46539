import { questionSchema, type Question, type Schedule } from '@visograph/core/model';
import { builtInQuestion, findReport, questionOf, reports, type Report } from '@visograph/core/report';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useWhereabouts } from '../data/location.ts';
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
interface Address {
  schedule: string | null;
  view: string | null;
}
const keyOf = ({ schedule, view }: Address): string => `${schedule ?? ''} ${view ?? ''}`;

/**
 * What is looked at, as the address says it. A change counts at once, also while the address has not followed yet:
 * what is typed letter by letter is not taken back by an address that is a letter behind.
 */
function useAddress(): [Address, (to: Address) => void] {
  const [search, setSearch] = useSearchParams();
  const inAddress = useMemo(() => ({ schedule: search.get('schedule'), view: search.get('view') }), [search]);
  const [at, setAt] = useState(inAddress);
  const underWay = useRef<string[]>([]);
  const key = keyOf(inAddress);
  useEffect(() => {
    const own = underWay.current.indexOf(key);
    if (own >= 0) underWay.current.splice(0, own + 1);
    else setAt(inAddress);
    // Only where the address says something else.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  const put = useCallback(
    (to: Address) => {
      setAt(to);
      if (keyOf(to) !== key) underWay.current.push(keyOf(to));
      setSearch(
        (before) => {
          const next = new URLSearchParams(before);
          if (to.schedule !== before.get('schedule')) next.delete('sel');
          for (const name of ['schedule', 'view'] as const) {
            const value = to[name];
            if (value === null) next.delete(name);
            else next.set(name, value);
          }
          return next;
        },
        { replace: true },
      );
    },
    [setSearch, key],
  );
  return [at, put];
}

/** The question that is looked at, with all that one changes of it in the address. */
export function useQuestion(): Asked | null {
  const network = useShown();
  const { scopeId } = useWhereabouts();
  const [{ schedule: named, view }, put] = useAddress();
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
