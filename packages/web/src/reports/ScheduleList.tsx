import { reports, schedulesOf } from '@visograph/core/report';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useShown } from '../data/shown.ts';
import { Filter } from '../kit/Filter.tsx';

const Side = styled.nav`
  flex: none;
  width: 216px;
  min-height: 0;
  display: flex;
  flex-direction: column;
  border-right: 1px solid ${({ theme }) => theme.rule};
  > :first-child {
    padding: 8px 10px;
  }
  > div:last-child {
    overflow: auto;
    padding-bottom: 10px;
  }
  h2 {
    padding: 8px 12px 3px;
    font-size: 12px;
    font-weight: 600;
    color: ${({ theme }) => theme.inkSoft};
  }
  button {
    display: block;
    width: 100%;
    padding: 4px 12px;
    border: 0;
    font: inherit;
    text-align: left;
    color: inherit;
    background: none;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  button[aria-current='true'] {
    background: ${({ theme }) => theme.accentWash};
    box-shadow: inset 3px 0 0 ${({ theme }) => theme.accent};
  }
  button:hover {
    background: ${({ theme }) => theme.accentWash};
  }
  button:focus-visible {
    outline: 2px solid ${({ theme }) => theme.accent};
    outline-offset: -2px;
  }
  p {
    padding: 2px 12px;
    color: ${({ theme }) => theme.inkSoft};
    font-size: 12px;
  }
`;

/** Schedules to go to: those of the project by name, then those that are always there. */
export function ScheduleList({
  chosen,
  onOpen,
}: {
  chosen: string;
  onOpen: (schedule: string) => void;
}): ReactNode {
  const network = useShown();
  const [text, setText] = useState('');
  const own = useMemo(() => schedulesOf(network), [network]);
  const fits = (title: string): boolean => title.toLowerCase().includes(text.trim().toLowerCase());
  const line = (id: string, title: string, what: string): ReactNode => (
    <button key={id} type="button" title={what} aria-current={id === chosen} onClick={() => onOpen(id)}>
      {title}
    </button>
  );
  const ofProject = own.filter(({ name }) => fits(name));
  const builtIn = reports.filter(({ title }) => fits(title));
  return (
    <Side aria-label="Schedules">
      <div>
        <Filter label="Find a schedule" value={text} onChange={setText} />
      </div>
      <div>
        <h2>Of this project</h2>
        {ofProject.map(({ id, name }) => line(id, name, name))}
        {own.length === 0 && <p>None is kept yet. Ask one otherwise, and keep it.</p>}
        <h2>Always there</h2>
        {builtIn.map(({ key, title, what }) => line(key, title, what))}
        {ofProject.length + builtIn.length === 0 && <p>No schedule is called so.</p>}
      </div>
    </Side>
  );
}
