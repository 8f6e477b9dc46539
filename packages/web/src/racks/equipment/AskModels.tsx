import { readPorts } from '@visograph/core/catalogue';
import { roleCodes, roles, type Role } from '@visograph/core/model';
import type { ModelAnswer, UnknownModel } from '@visograph/core/racks';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { Choice } from '../../kit/choice.tsx';
import { Button, Field } from '../../kit/controls.tsx';

const Asked = styled.ul`
  max-height: 176px;
  overflow: auto;
  border: 1px solid ${({ theme }) => theme.rule};
  li {
    display: grid;
    grid-template-columns: minmax(140px, 1fr) 190px 130px 56px minmax(220px, 1.3fr);
    gap: 8px;
    align-items: end;
    padding: 4px 10px 6px;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
  }
  p {
    align-self: center;
    overflow-wrap: anywhere;
  }
  small {
    color: ${({ theme }) => theme.inkSoft};
  }
`;
const roleOptions = roleCodes.map((id) => ({ id, text: roles[id].label }));

interface Props {
  unknown: readonly UnknownModel[];
  answers: Readonly<Record<string, ModelAnswer>>;
  onAnswer: (answers: Record<string, ModelAnswer>) => void;
}

/** What is said of one model until it is sent: heights and ports are typed, and sent when they are left. */
function AskModel({
  asked,
  answer,
  onAnswer,
}: {
  asked: UnknownModel;
  answer: ModelAnswer | undefined;
  onAnswer: (answer: ModelAnswer | null) => void;
}): ReactNode {
  const own = answer !== undefined && 'role' in answer ? answer : null;
  const [units, setUnits] = useState(String(own?.units ?? asked.units ?? 1));
  const [ports, setPorts] = useState(own?.ports ?? '');
  const height = Number(units.replace(',', '.'));
  const wrongUnits = !Number.isInteger(height * 2) || height < 0 || height > 60;
  const read = readPorts(ports);
  const send = (role: Role): void => {
    if (!wrongUnits && read.ok) onAnswer({ role, units: height, ports });
  };
  return (
    <li aria-label={asked.title}>
      <p>
        {asked.title} <small>{`· ${asked.rows} ${asked.rows === 1 ? 'row' : 'rows'}`}</small>
      </p>
      <Choice
        label="It is"
        value={own !== null ? 'own' : answer !== undefined && 'as' in answer ? answer.as : 'asked'}
        options={[
          { id: 'asked', text: 'not said yet' },
          { id: 'own', text: 'a model of our own' },
          ...asked.likely.map((title) => ({ id: title, text: title, detail: 'spelled nearly so' })),
        ]}
        onChange={(id) => {
          if (id === 'own') send(asked.role);
          else onAnswer(id === null || id === 'asked' ? null : { as: id });
        }}
      />
      {own !== null && (
        <>
          <Choice
            label="Role"
            value={own.role}
            options={roleOptions}
            onChange={(role) => send(roleCodes.find((code) => code === role) ?? 'XX')}
          />
          <Field
            label="Units"
            value={units}
            onChange={setUnits}
            onBlur={() => send(own.role)}
            error={wrongUnits ? 'Whole or half units' : null}
          />
          <Field
            label="Ports"
            placeholder="24 RJ45 1G, 4 SFP+ 10G, 2 C14"
            value={ports}
            onChange={setPorts}
            onBlur={() => send(own.role)}
            error={read.ok ? null : `${read.why}.`}
          />
        </>
      )}
    </li>
  );
}

/** Models that the catalogue does not know, each asked once for all its rows. */
export function AskModels({ unknown, answers, onAnswer }: Props): ReactNode {
  if (unknown.length === 0) return null;
  const left = unknown.filter(({ key }) => answers[key] === undefined);
  return (
    <section aria-label="Models that the catalogue does not know">
      <p>
        {`${unknown.length} ${unknown.length === 1 ? 'model is' : 'models are'} not in the catalogue${left.length === 0 ? '' : unknown.length === 1 ? ': say what it is' : ': say what they are'}. `}
        {left.length > 1 && (
          <Button
            $tone="quiet"
            onPress={() =>
              onAnswer({
                ...answers,
                ...Object.fromEntries(
                  left.map(({ key, role, units }) => [key, { role, units: units ?? 1, ports: '' }]),
                ),
              })
            }
          >
            {`All ${left.length} are our own`}
          </Button>
        )}
      </p>
      <Asked>
        {unknown.map((asked) => (
          <AskModel
            key={`${asked.key} ${answers[asked.key] === undefined ? 'asked' : 'said'}`}
            asked={asked}
            answer={answers[asked.key]}
            onAnswer={(answer) => {
              const { [asked.key]: _before, ...others } = answers;
              onAnswer(answer === null ? others : { ...others, [asked.key]: answer });
            }}
          />
        ))}
      </Asked>
    </section>
  );
}
