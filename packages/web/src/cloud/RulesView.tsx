import {
  addRule,
  addRuleSet,
  anyRule,
  dropRule,
  moveRule,
  otherwise,
  peerText,
  readPeer,
  readTraffic,
  rulesOf,
  servicesLike,
  shadowedRules,
  trafficText,
} from '@visograph/core/cloud';
import {
  byName,
  nameField,
  noted,
  profileAround,
  ruleDirections,
  verdicts,
  type Place,
  type RuleSet,
  type TrafficRule,
} from '@visograph/core/model';
import { useMemo, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useDo } from '../data/useDo.ts';
import { useFormActs } from '../data/useFormActs.ts';
import { Button } from '../kit/controls.tsx';
import { ChoiceIn, TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { Empty, Hint } from '../kit/panel/panels.tsx';
import { mono } from '../theme/mono.ts';

const Page = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 12px 16px 24px;
  display: flex;
  flex-direction: column;
  gap: 16px;
`;
const SetFrame = styled.section`
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  background: ${({ theme }) => theme.surface};
  > header {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 12px;
    align-items: baseline;
    padding: 8px 12px;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
    button {
      border: 0;
      padding: 0;
      font: inherit;
      font-weight: 600;
      color: inherit;
      background: none;
      text-align: left;
    }
    p {
      color: ${({ theme }) => theme.inkSoft};
      font-size: 12px;
    }
  }
  h3 {
    padding: 8px 12px 2px;
    font-size: 12px;
    font-weight: 600;
    color: ${({ theme }) => theme.inkSoft};
  }
  ol {
    list-style: none;
    margin: 0;
    padding: 0 12px 4px;
  }
  > div:last-child {
    padding: 6px 12px 10px;
    border-top: 1px solid ${({ theme }) => theme.rule};
  }
`;
/** A rule reads like a sentence: its words, then what it is about. */
const Line = styled.li<{ $chosen: boolean; $idle: boolean }>`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 7px;
  min-height: 28px;
  background: ${({ theme, $chosen }) => ($chosen ? theme.accentWash : 'none')};
  > button:first-child {
    flex: 1 1 280px;
    border: 0;
    padding: 3px 0;
    font: inherit;
    color: inherit;
    background: none;
    text-align: left;
    overflow-wrap: anywhere;
    opacity: ${({ $idle }) => ($idle ? 0.6 : 1)};
  }
  code {
    ${mono}
    font-size: 12.5px;
  }
  em {
    font-style: normal;
    color: ${({ theme }) => theme.inkSoft};
  }
  small {
    flex-basis: 100%;
    color: ${({ theme }) => theme.warn};
    font-size: 12px;
  }
  > span button {
    height: 22px;
    padding: 0 7px;
  }
`;

const ruleForm = z.object({
  direction: noted(z.enum(ruleDirections), { label: 'Direction' }),
  verdict: noted(z.enum(verdicts), { label: 'Verdict' }),
  traffic: noted(z.string(), { label: 'What', help: 'https, TCP 8000-8100, ICMP, any' }),
  peer: noted(z.string(), { label: 'With', help: '10.40.0.0/14, everybody, the name of a list or rule set' }),
});

function AddRule({ set, place }: { set: RuleSet; place: Place }): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(ruleForm, { direction: 'in', verdict: 'allow', traffic: '', peer: '' });
  const { act } = useFormActs(form);
  const { direction, traffic } = form.control.watch();
  const like = traffic.trim().length < 2 ? [] : servicesLike(traffic).slice(0, 3);
  return (
    <Form
      label={`Add a rule to ${set.name}`}
      form={form}
      row
      quiet
      action="Add rule"
      onSend={(wish) => {
        const what = readTraffic(wish.traffic);
        if ('why' in what) return form.refuse([{ field: 'traffic', message: what.why }]);
        const peer = readPeer(network, place.id, wish.peer);
        if ('why' in peer) return form.refuse([{ field: 'peer', message: peer.why }]);
        act(
          addRule(network, set, {
            ...{ ...anyRule, ...what, ...peer },
            ...{ direction: wish.direction, verdict: wish.verdict },
          }),
          () => form.control.reset({ ...wish, traffic: '', peer: '' }),
        );
        return undefined;
      }}
    >
      <ChoiceIn
        name="direction"
        width={96}
        options={[
          { id: 'in', text: 'inward' },
          { id: 'out', text: 'outward' },
        ]}
      />
      <ChoiceIn name="verdict" width={84} options={verdicts.map((id) => ({ id, text: id }))} />
      <TextIn name="traffic" width={150} />
      <TextIn name="peer" width={190} label={direction === 'in' ? 'From' : 'To'} />
      {like.length > 0 && (
        <Hint>
          {like
            .map(({ name, protocol, port, title }) => `${name}: ${protocol} ${port}, ${title}`)
            .join(' · ')}
        </Hint>
      )}
    </Form>
  );
}

function Rules({ set, direction }: { set: RuleSet; direction: TrafficRule['direction'] }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { selection, select } = useWhereabouts();
  const act = useDo();
  const rules = rulesOf(network, set.id, direction);
  const idle = useMemo(
    () => new Map(shadowedRules(network, set, direction).map((one) => [one.rule.id, one])),
    [network, set, direction],
  );
  const words = {
    'decided before': 'decided before by',
    denied: 'denied by',
    'said already': 'said already by',
  };
  return (
    <>
      <h3>{direction === 'in' ? 'Inward' : 'Outward'}</h3>
      <ol aria-label={`${set.name}, ${direction === 'in' ? 'inward' : 'outward'}`}>
        {rules.map((rule, at) => {
          const told = idle.get(rule.id);
          return (
            <Line
              key={rule.id}
              $idle={told !== undefined}
              $chosen={selection?.kind === 'trafficRule' && selection.id === rule.id}
            >
              <button type="button" onClick={() => select({ kind: 'trafficRule', id: rule.id })}>
                {`${rule.verdict} `}
                <code>{trafficText(rule)}</code>
                {` ${direction === 'in' ? 'from' : 'to'} `}
                <code>{peerText(network, rule)}</code>
                {rule.notes !== null && <em>{`  ${rule.notes}`}</em>}
              </button>
              {canEdit && (
                <span>
                  {set.ordered && (
                    <>
                      <Button
                        $tone="quiet"
                        aria-label={`Move rule ${at + 1} up`}
                        isDisabled={at === 0}
                        onPress={() => void act(moveRule(network, rule, -1))}
                      >
                        ↑
                      </Button>
                      <Button
                        $tone="quiet"
                        aria-label={`Move rule ${at + 1} down`}
                        isDisabled={at === rules.length - 1}
                        onPress={() => void act(moveRule(network, rule, 1))}
                      >
                        ↓
                      </Button>
                    </>
                  )}
                  <Button
                    $tone="quiet"
                    aria-label={`Take out: ${rule.verdict} ${trafficText(rule)} ${peerText(network, rule)}`}
                    onPress={() => void act(dropRule(network, rule))}
                  >
                    Take out
                  </Button>
                </span>
              )}
              {told !== undefined && (
                <small>
                  {`Changes nothing: ${words[told.how]} ${told.by.map((one) => `${trafficText(one)} ${direction === 'in' ? 'from' : 'to'} ${peerText(network, one)}`).join(' and ')}.`}
                </small>
              )}
            </Line>
          );
        })}
      </ol>
      <h3>{`${rules.length === 0 ? 'Everything' : 'Everything else'}: ${otherwise(set, direction)}`}</h3>
    </>
  );
}

const setForm = z.object({
  name: trimmed(nameField('New rule set', 60)),
  sort: noted(z.string().nullable(), { label: 'Sort' }),
});

/** The rule sets of a network, each rule as a sentence; what changes nothing is told beside it. */
export function RulesView({ place }: { place: Place }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { select } = useWhereabouts();
  const sorts = profileAround(network, place.id)?.ruleSets ?? [];
  const form = useSchemaForm(setForm, { name: '', sort: sorts[0]?.sort ?? null });
  const { act } = useFormActs(form);
  const sets = network.find('ruleSetsByNetwork', place.id).sort(byName);
  const tied = (set: RuleSet): string => {
    const interfaces = network.countOf('ruleSetUsesBySet', set.id);
    const subnets = network.countOf('cloudSubnetsByRuleSet', set.id);
    const count = set.ties === 'subnets' ? subnets : interfaces;
    const what = set.ties === 'subnets' ? 'subnet' : 'interface';
    return `${set.remembers ? 'remembers connections' : 'does not remember connections'}, ${set.ordered ? 'read in order' : 'in any order'}, tied to ${count} ${what}${count === 1 ? '' : 's'}`;
  };
  return (
    <Page>
      {sets.length === 0 && (
        <Empty title="No rule sets yet">
          Without one nothing is looked at on its way. Add a rule set, write its rules, and tie it to
          interfaces or subnets.
        </Empty>
      )}
      {sets.map((set) => (
        <SetFrame key={set.id} aria-label={`Rule set ${set.name}`}>
          <header>
            <button type="button" onClick={() => select({ kind: 'ruleSet', id: set.id })}>
              {set.name}
            </button>
            <p>{`${set.sort === null ? '' : `${set.sort}, `}${tied(set)}`}</p>
          </header>
          <Rules set={set} direction="in" />
          <Rules set={set} direction="out" />
          {canEdit && (
            <div>
              <AddRule set={set} place={place} />
            </div>
          )}
        </SetFrame>
      ))}
      {canEdit && (
        <Form
          label="Add a rule set"
          form={form}
          row
          action="Add rule set"
          onSend={(wish) => act(addRuleSet(network, place, wish))}
        >
          <TextIn name="name" width={180} />
          {sorts.length > 0 && (
            <ChoiceIn name="sort" width={150} options={sorts.map(({ sort }) => ({ id: sort, text: sort }))} />
          )}
        </Form>
      )}
    </Page>
  );
}
