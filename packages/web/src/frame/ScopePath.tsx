import { childPlaces, placeChain, racksIn } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { Button as AriaButton, Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import { useNetwork } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Chevron } from '../kit/choice.tsx';
import { Floating } from '../kit/controls.tsx';

const Path = styled.nav`
  display: flex;
  align-items: center;
  min-width: 0;
  color: ${({ theme }) => theme.inkSoft};
  white-space: nowrap;
`;
const Step = styled(AriaButton)<{ $last: boolean }>`
  font: inherit;
  border: 0;
  background: none;
  border-radius: 3px;
  padding: 3px 4px;
  display: flex;
  align-items: center;
  gap: 5px;
  min-width: 24px;
  > span {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  > svg {
    flex: none;
  }
  color: ${({ theme, $last }) => ($last ? theme.ink : theme.inkSoft)};
  font-weight: ${({ $last }) => ($last ? 600 : 400)};
  &[data-hovered] {
    background: ${({ theme }) => theme.accentWash};
  }
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.accent};
  }
`;
const Items = styled(Menu<Choice>)`
  padding: 3px;
  outline: none;
  max-height: 420px;
  overflow: auto;
`;
const Item = styled(MenuItem)`
  padding: 5px 10px;
  border-radius: 2px;
  outline: none;
  &[data-focused] {
    background: ${({ theme }) => theme.accentWash};
  }
`;
const Mark = styled.span`
  padding: 0 1px;
`;

interface Choice {
  id: string;
  text: string;
  kind: 'place' | 'rack' | 'all';
}

/** Where everything shown is: each step opens its siblings, the last one also what is inside. */
export function ScopePath({ projectName }: { projectName: string }): ReactNode {
  const network = useNetwork();
  const { section, scopeId, rackId, go } = useWhereabouts();
  const chain = placeChain(network, scopeId);
  const rack = network.get('rack', rackId);
  const choices = (parentId: string | null): Choice[] =>
    childPlaces(network, parentId).map((place) => ({ id: place.id, text: place.name, kind: 'place' }));
  const inside: Choice[] = [
    ...choices(scopeId),
    ...(scopeId === null
      ? []
      : racksIn(network, [scopeId]).map((one): Choice => ({ id: one.id, text: one.name, kind: 'rack' }))),
  ];
  const open = (choice: Choice): void => {
    if (choice.kind === 'rack')
      go({ section: 'places', rackId: choice.id, selection: { kind: 'rack', id: choice.id } });
    else
      go({
        scopeId: choice.kind === 'all' ? null : choice.id,
        rackId: null,
        // Another place than that of the open sheet: its sheets are listed.
        ...(section === 'sheets' ? { sheetId: null } : {}),
        selection: choice.kind === 'all' ? null : { kind: 'place', id: choice.id },
      });
  };
  const all: Choice = { id: 'all', text: 'All sites', kind: 'all' };
  const steps: { key: string; text: string; choices: Choice[] }[] = [
    { key: 'all', text: chain.length === 0 ? 'All sites' : projectName, choices: [all, ...choices(null)] },
    ...chain.map((place) => ({ key: place.id, text: place.name, choices: choices(place.parentId) })),
    ...(rack === null
      ? []
      : [
          {
            key: rack.id,
            text: rack.name,
            choices: racksIn(network, [rack.placeId]).map((one): Choice => ({
              id: one.id,
              text: one.name,
              kind: 'rack',
            })),
          },
        ]),
  ];
  const shown = steps.length > 5 ? [...steps.slice(0, 2), ...steps.slice(-3)] : steps;
  return (
    <Path aria-label="Scope">
      {shown.map((step, at) => {
        const last = at === shown.length - 1;
        const own = last && rack === null && step.key !== 'all' && inside.length > 0 ? inside : [];
        const listed = [
          ...step.choices,
          ...own.filter((choice) => !step.choices.some((other) => other.id === choice.id)),
        ];
        return (
          <MenuTrigger key={step.key}>
            {at > 0 && <Mark aria-hidden="true">›</Mark>}
            <Step $last={last} aria-label={`${step.text}: open`}>
              <span>{step.text}</span>
              {last && <Chevron />}
            </Step>
            <Floating>
              <Items
                items={listed}
                onAction={(key) => listed.filter((choice) => choice.id === key).forEach(open)}
                aria-label={step.text}
              >
                {(choice: Choice) => (
                  <Item id={choice.id}>{own.includes(choice) ? `› ${choice.text}` : choice.text}</Item>
                )}
              </Items>
            </Floating>
          </MenuTrigger>
        );
      })}
    </Path>
  );
}
