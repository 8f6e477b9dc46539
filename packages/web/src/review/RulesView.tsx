import { gradeRule, rules } from '@visograph/core/check';
import { grades, type Grade } from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import type { Judged } from '../data/findings.ts';
import { useProject } from '../data/project.tsx';
import { Choice } from '../kit/choice.tsx';
import { Filter } from '../kit/Filter.tsx';
import { Hint } from '../kit/panel/panels.tsx';
import { mono } from '../theme/mono.ts';

const Page = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 10px 16px 24px;
  > header {
    display: flex;
    gap: 12px;
    align-items: center;
    margin-bottom: 8px;
  }
  ul {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 70px 150px;
    gap: 2px 16px;
    align-items: start;
    padding: 9px 0;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
  }
  strong {
    display: block;
  }
  p {
    max-width: 76ch;
    color: ${({ theme }) => theme.inkSoft};
  }
  output {
    ${mono}
    font-size: 12.5px;
    text-align: right;
    padding-top: 5px;
  }
`;

const asItIs = 'own';
const gradeTexts: Readonly<Record<Grade, string>> = { bad: 'Fault', warn: 'Warning', off: 'Off' };

/** Every rule: what it looks for, why, on what it stands, how much it finds, and how this project takes that. */
export function RulesView({ judged }: { judged: Judged }): ReactNode {
  const { view, canEdit, project, commit } = useProject();
  const [filter, setFilter] = useState('');
  const { network } = view;
  const graded = useMemo(
    () => new Map([...network.all('ruleGrade')].map((row) => [row.rule, row.grade])),
    [network],
  );
  const counts = useMemo(() => {
    const found = new Map<string, number>();
    for (const { finding } of [...(judged?.review.open ?? []), ...(judged?.review.meant ?? [])])
      found.set(finding.rule, (found.get(finding.rule) ?? 0) + 1);
    return found;
  }, [judged]);
  const owner = canEdit && project.role === 'owner';
  const text = filter.trim().toLowerCase();
  const shown = rules.filter(
    ({ key, title, why }) => text === '' || `${key} ${title} ${why}`.toLowerCase().includes(text),
  );
  return (
    <Page>
      <header>
        <Filter value={filter} onChange={setFilter} />
        <Hint>
          {owner
            ? 'What a rule finds is a fault or a warning as it says, unless this project takes it otherwise.'
            : 'An owner of the project decides how bad it takes what a rule finds.'}
        </Hint>
      </header>
      <ul aria-label="Rules">
        {shown.map(({ key, title, why, standard }) => {
          const grade = graded.get(key) ?? asItIs;
          return (
            <li key={key} aria-label={title}>
              <div>
                <strong>{title}</strong>
                <p>{standard === null ? why : `${why} ${standard}.`}</p>
              </div>
              <output aria-label={`Findings of ${title}`}>
                {grade === 'off' ? '' : (counts.get(key) ?? 0)}
              </output>
              {owner ? (
                <Choice
                  label={`How bad: ${title}`}
                  hideLabel
                  value={grade}
                  options={[
                    { id: asItIs, text: 'As it says' },
                    ...grades.map((id) => ({ id, text: gradeTexts[id] })),
                  ]}
                  onChange={(next) => {
                    const attempt = gradeRule(network, key, next === asItIs ? null : next);
                    if (attempt.ok) commit(attempt.set);
                  }}
                />
              ) : (
                <Hint>{grade === asItIs ? 'As it says' : gradeTexts[grade]}</Hint>
              )}
            </li>
          );
        })}
      </ul>
      {shown.length === 0 && <Hint>{`No rule says “${filter.trim()}”.`}</Hint>}
    </Page>
  );
}
