import { endWaivers, ruleOf, subjectText, waiversOf, type InOrder } from '@visograph/core/check';
import type { Network } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useWhereabouts } from '../data/location.ts';
import { useProject } from '../data/project.tsx';
import { Button } from '../kit/controls.tsx';
import { Tick } from '../kit/Tick.tsx';
import { Hint, StateMark } from '../kit/panel/panels.tsx';
import { Evidence } from './Evidence.tsx';
import { Mends } from './Mends.tsx';
import { Origin } from './Origin.tsx';
import { Waive } from './Waive.tsx';

const Page = styled.article`
  flex: 1;
  min-width: 0;
  overflow: auto;
  padding: 14px 18px 24px;
  display: flex;
  flex-direction: column;
  gap: 16px;
  > header h2 {
    display: flex;
    gap: 8px;
    align-items: baseline;
    font-size: 16px;
    line-height: 22px;
  }
  > header > p {
    margin: 8px 0 0;
    max-width: 66ch;
    font-size: 14px;
    line-height: 20px;
    overflow-wrap: anywhere;
  }
  section h3 {
    margin-bottom: 6px;
    color: ${({ theme }) => theme.inkSoft};
    font-size: 12.5px;
  }
  section p {
    max-width: 66ch;
    overflow-wrap: anywhere;
  }
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 4px;
    margin-top: 10px;
    button {
      height: 24px;
      padding: 0 8px;
      font-size: 12.5px;
    }
  }
`;
/** More things than this are counted, not named. */
const mostNamed = 12;

/** One finding: what is wrong, with what, since when, why it matters, what would set it right, or why it is meant. */
export function FindingView({
  one,
  judgedIn,
  day,
  alike,
  onDone,
}: {
  one: InOrder;
  judgedIn: Network;
  day: string;
  /** All findings of its rule that are listed, it among them. */
  alike: readonly InOrder[];
  onDone: () => void;
}): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { selection, select } = useWhereabouts();
  const [all, setAll] = useState(false);
  const [waiving, setWaiving] = useState(false);
  const { finding, told, waiver } = one;
  const rule = ruleOf(finding);
  const things = finding.subjects.slice(0, mostNamed);
  return (
    <Page aria-label={`${rule.title}: ${told.about[0] ?? ''}`}>
      <header>
        <h2>
          <StateMark state={one.severity} />
          {rule.title}
        </h2>
        <p>{told.message}</p>
        <nav aria-label="What it is about">
          {things.map(({ kind, id }) => (
            <Button
              key={`${kind}:${id}`}
              aria-pressed={selection?.id === id}
              onPress={() => select({ kind, id })}
            >
              {subjectText(judgedIn, { kind, id })}
            </Button>
          ))}
          {finding.subjects.length > mostNamed && (
            <Hint>{`and ${finding.subjects.length - mostNamed} more`}</Hint>
          )}
        </nav>
      </header>
      <Evidence network={judgedIn} finding={finding} />
      {waiver !== null && (
        <section aria-label="Meant">
          <h3>Meant to be so</h3>
          <p>{`${waiver.reason} (${waiver.by}, ${waiver.madeOn}${waiver.until === null ? '' : `, until ${waiver.until}`})`}</p>
          {canEdit && (
            <Button
              onPress={() => {
                const attempt = endWaivers(view.network, waiversOf(view.network, finding));
                if (attempt.ok && commit(attempt.set).ok) onDone();
              }}
            >
              End the waiver
            </Button>
          )}
        </section>
      )}
      {canEdit && waiver === null && (
        <section aria-label="Mend">
          <h3>Mend</h3>
          <Mends
            key={told.rule + told.message}
            finding={finding}
            alike={alike.map((other) => other.finding)}
            onDone={onDone}
          />
        </section>
      )}
      {canEdit && waiver === null && !waiving && (
        <Button style={{ alignSelf: 'flex-start', flex: 'none' }} onPress={() => setWaiving(true)}>
          It is meant to be so …
        </Button>
      )}
      {canEdit && waiver === null && waiving && (
        <section aria-label="It is meant">
          <h3>Why it is meant to be so</h3>
          {alike.length > 1 && (
            <Tick isSelected={all} onChange={setAll}>
              {`All ${alike.length} of this rule that are listed`}
            </Tick>
          )}
          <Waive
            key={told.rule + told.message}
            findings={(all ? alike : [one]).map((other) => other.finding)}
            day={day}
            onDone={onDone}
          />
        </section>
      )}
      <section aria-label="Since when">
        <h3>Since</h3>
        <Origin finding={finding} />
      </section>
      <section aria-label="Why">
        <h3>Why it matters</h3>
        <p>{rule.why}</p>
        {rule.standard !== null && <Hint>{rule.standard}</Hint>}
      </section>
    </Page>
  );
}
