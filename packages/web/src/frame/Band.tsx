import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState, type ReactNode } from 'react';
import { Button as AriaButton, Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import { Menu as MenuIcon, Redo2, Undo2 } from 'lucide-react';
import { useNavigate } from 'react-router';
import { styled } from 'styled-components';
import { addressOf, call } from '../data/api.ts';
import { useProject } from '../data/project.tsx';
import { useRevision, type Moment } from '../data/moment.ts';
import { usePlan, usePlanFacts } from '../data/plan.ts';
import { useBuiltToday, useMeantQuery } from '../data/shown.ts';
import { useSession, useSignOut } from '../data/session.ts';
import { useWorkspace } from '../data/workspace.tsx';
import { Button, Floating } from '../kit/controls.tsx';
import { Tick } from '../kit/Tick.tsx';
import { AccountPanel } from '../people/AccountPanel.tsx';
import { PeoplePanel } from '../people/PeoplePanel.tsx';
import { narrowQuery } from '../kit/useNarrow.ts';
import { mono } from '../theme/mono.ts';
import { useTheme } from '../theme/theme.tsx';
import { CommandLine } from './CommandLine.tsx';
import { ImportFile } from './ImportFile.tsx';
import { ScopePath } from './ScopePath.tsx';

const Bar = styled.header`
  grid-area: band;
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0 12px;
  background: ${({ theme }) => theme.band};
  border-bottom: 1px solid ${({ theme }) => theme.rule};
`;
const Brand = styled.span`
  display: flex;
  align-items: center;
  gap: 7px;
  font-weight: 600;
  flex: none;
  @media (max-width: 900px) {
    b {
      display: none;
    }
  }
`;
const Drawer = styled(AriaButton)`
  display: none;
  flex: none;
  width: 34px;
  height: 34px;
  padding: 0;
  margin-left: -6px;
  border: 0;
  border-radius: 3px;
  background: none;
  color: ${({ theme }) => theme.ink};
  place-items: center;
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.accent};
  }
  @media ${narrowQuery} {
    display: grid;
  }
`;
const Spread = styled.div`
  flex: 1;
  min-width: 0;
`;
const Saved = styled(AriaButton)`
  ${mono}
  font-size: 12px;
  border: 0;
  background: none;
  color: ${({ theme }) => theme.inkSoft};
  padding: 4px 2px;
  white-space: nowrap;
  min-width: 88px;
  text-align: right;
  &[data-hovered] {
    color: ${({ theme }) => theme.ink};
    text-decoration: underline;
  }
`;
const Initials = styled(AriaButton)`
  font: 600 12px/26px inherit;
  ${mono}
  flex: none;
  width: 26px;
  height: 26px;
  border: 0;
  border-radius: 3px;
  padding: 0;
  background: ${({ theme }) => theme.family.compute};
  color: ${({ theme }) => theme.tabInk};
`;
const Items = styled(Menu)`
  padding: 3px;
  outline: none;
`;
const Item = styled(MenuItem)`
  padding: 5px 10px;
  border-radius: 2px;
  outline: none;
  &[data-focused] {
    background: ${({ theme }) => theme.accentWash};
  }
`;
const Past = styled.div<{ $failed: boolean }>`
  display: flex;
  align-items: center;
  gap: 10px;
  min-width: 0;
  padding: 2px 3px 2px 10px;
  border-left: 4px solid ${({ theme, $failed }) => ($failed ? theme.bad : theme.accent)};
  background: ${({ theme }) => theme.accentWash};
  border-radius: 2px;
  span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;
/** Takes the room there is: never less than what it counts and its button need. */
const PlanBox = styled(Past)`
  flex: 4 1 0;
  min-width: min-content;
  max-width: 520px;
  span {
    flex: 1 1 0;
    min-width: 56px;
    width: 0;
  }
  b,
  button {
    flex: none;
    white-space: nowrap;
  }
`;
const WholeTick = styled(Tick)`
  flex: none;
  white-space: nowrap;
`;
const Steps = styled.div`
  display: flex;
  button {
    display: flex;
    align-items: center;
    padding: 0 7px;
  }
  svg {
    display: none;
  }
  @media ${narrowQuery} {
    svg {
      display: block;
    }
    span {
      display: none;
    }
  }
`;

const saveText = (save: string, revision: number, waiting: number): string => {
  if (save === 'offline')
    return waiting > 0 ? `Offline: ${waiting} ${waiting === 1 ? 'edit' : 'edits'} waiting` : 'Offline';
  if (save === 'saving') return 'Saving …';
  if (save === 'loading') return 'Loading …';
  return `Saved r${revision}`;
};

function PersonMenu(): ReactNode {
  const session = useSession();
  const signOut = useSignOut();
  const theme = useTheme();
  const navigate = useNavigate();
  const { project, canEdit } = useProject();
  const meant = useMeantQuery();
  const { setKeysOpen } = useWorkspace();
  const file = useRef<HTMLInputElement>(null);
  const [peopleOpen, setPeopleOpen] = useState(false);
  const [accountOpen, setAccountOpen] = useState(false);
  const name = session.data?.account?.name ?? '';
  const initials = name
    .split(/\s+/)
    .map((word) => word[0] ?? '')
    .join('')
    .slice(0, 2)
    .toUpperCase();
  const act: Record<string, () => void> = {
    theme: () => theme.choose(theme.name === 'night' ? 'paper' : 'night'),
    keys: () => setKeysOpen(true),
    people: () => setPeopleOpen(true),
    account: () => setAccountOpen(true),
    projects: () => void navigate('/projects'),
    export: () =>
      window.location.assign(
        addressOf('GET /projects/:project/exchange', { params: { project: project.id }, query: meant }),
      ),
    import: () => file.current?.click(),
    out: () => signOut.mutate(),
  };
  return (
    <>
      <MenuTrigger>
        <Initials aria-label={`${name}: menu`}>{initials}</Initials>
        <Floating placement="bottom end">
          <Items onAction={(key) => act[String(key)]?.()} aria-label={name}>
            <Item id="theme">{theme.name === 'night' ? 'Paper theme' : 'Night theme'}</Item>
            <Item id="keys">All keys</Item>
            <Item id="people">People</Item>
            <Item id="account">Your account</Item>
            <Item id="projects">Projects</Item>
            <Item id="export">Export project file</Item>
            {canEdit && <Item id="import">Import project file …</Item>}
            <Item id="out">{`Sign out ${name}`}</Item>
          </Items>
        </Floating>
      </MenuTrigger>
      <ImportFile input={file} />
      <PeoplePanel open={peopleOpen} onOpenChange={setPeopleOpen} />
      <AccountPanel open={accountOpen} onOpenChange={setAccountOpen} />
    </>
  );
}

/** Leaves out what is only planned: everything is drawn, counted and worked out as it stands today. */
function BuiltToday(): ReactNode {
  const [builtToday, setBuiltToday] = useBuiltToday();
  return (
    <WholeTick
      isSelected={builtToday}
      onChange={setBuiltToday}
      aria-label="Built today: leave out what is only planned"
    >
      Built today
    </WholeTick>
  );
}

/** Says that an earlier moment is looked at, and leads back. */
function Earlier({ moment }: { moment: Moment }): ReactNode {
  const [, setRevision] = useRevision();
  const { revision, network, failed } = moment;
  const text = failed ?? (network === null ? `Going back to r${revision} …` : `At r${revision}, read only`);
  return (
    <Past role="status" $failed={failed !== null}>
      <span>{text}</span>
      <Button onPress={() => setRevision(null)}>Back to now</Button>
    </Past>
  );
}

/** Says why nothing can be changed, and lets an owner bring the project back. */
function Archived(): ReactNode {
  const { project, sync } = useProject();
  const client = useQueryClient();
  const bringBack = useMutation({
    mutationFn: () =>
      call('PUT /projects/:project/standing', {
        params: { project: project.id },
        body: { standing: 'active' },
      }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['projects'] }),
    onError: (error) => sync.announce({ tone: 'bad', text: error.message }),
  });
  return (
    <Past role="status" aria-label="Archived" $failed={false}>
      <span>Archived, read only</span>
      {project.role === 'owner' && <Button onPress={() => bringBack.mutate()}>Bring back</Button>}
    </Past>
  );
}

/** Says that a plan is worked in and whether as built contradicts it, and leads back. */
function InPlan({ plan }: { plan: string }): ReactNode {
  const [, setPlan] = usePlan();
  const { data, error } = usePlanFacts(plan);
  const count = data?.conflicts.length ?? 0;
  const text = error?.message ?? (data === undefined ? 'Opening the plan …' : `Plan: ${data.name}`);
  return (
    <PlanBox role="status" aria-label="Plan" $failed={error !== null || count > 0}>
      <span title={text}>{text}</span>
      {count > 0 && (
        <b title="Changes of the plan that as built contradicts: it has moved on since">{`${count} contradicted`}</b>
      )}
      <Button onPress={() => setPlan(null)}>Back to as built</Button>
    </PlanBox>
  );
}

export function Band(): ReactNode {
  const { project, plan, sync, view, canEdit, moment } = useProject();
  const { historyOpen, setHistoryOpen, railOpen, setRailOpen } = useWorkspace();
  return (
    <Bar>
      <Drawer data-rail aria-label="Sections" aria-expanded={railOpen} onPress={() => setRailOpen(!railOpen)}>
        <MenuIcon size={18} aria-hidden="true" />
      </Drawer>
      <Brand>
        <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
          <rect width="16" height="16" rx="2" fill="#6B2D82" />
          <rect x="4" y="4" width="4" height="8" fill="#FBFAF6" />
          <rect x="10" y="4" width="2" height="3" fill="#FBFAF6" />
        </svg>
        <b>Visograph</b>
      </Brand>
      <ScopePath projectName={[...view.network.all('project')][0]?.name ?? project.name} />
      {project.standing === 'archived' && <Archived />}
      {plan !== null && <InPlan plan={plan} />}
      {moment !== null && <Earlier moment={moment} />}
      <Spread />
      <BuiltToday />
      <CommandLine />
      {canEdit && (
        <Steps>
          <Button $tone="quiet" aria-label="Undo" onPress={() => sync.step('undo')}>
            <Undo2 size={16} aria-hidden="true" />
            <span>Undo</span>
          </Button>
          <Button $tone="quiet" aria-label="Redo" onPress={() => sync.step('redo')}>
            <Redo2 size={16} aria-hidden="true" />
            <span>Redo</span>
          </Button>
        </Steps>
      )}
      <Saved
        onPress={() => setHistoryOpen(!historyOpen)}
        aria-expanded={historyOpen}
        aria-label={`${saveText(view.save, view.revision, view.waiting)}: history`}
      >
        {saveText(view.save, view.revision, view.waiting)}
      </Saved>
      <PersonMenu />
    </Bar>
  );
}
