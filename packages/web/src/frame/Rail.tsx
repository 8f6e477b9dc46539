import { Fragment, type ReactNode } from 'react';
import { Link } from 'react-router';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useShownPath } from '../data/shown.ts';
import { useWhereabouts } from '../data/location.ts';
import { sections } from './sections.ts';

const Bar = styled.nav`
  grid-area: rail;
  background: ${({ theme }) => theme.band};
  border-right: 1px solid ${({ theme }) => theme.rule};
  padding-top: 6px;
  a {
    display: block;
    padding: 7px 0 7px 13px;
    border-left: 3px solid transparent;
    text-decoration: none;
    color: ${({ theme }) => theme.inkSoft};
  }
  a:hover {
    color: ${({ theme }) => theme.ink};
  }
  a[aria-current='page'] {
    border-left-color: ${({ theme }) => theme.accent};
    background: ${({ theme }) => theme.ground};
    color: ${({ theme }) => theme.ink};
    font-weight: 600;
  }
  hr {
    border: 0;
    border-top: 1px solid ${({ theme }) => theme.rule};
    margin: 8px 10px;
  }
`;

/** The sections, in words. The scope, the moment and what is built today go along from one to the next. */
export function Rail(): ReactNode {
  const { project } = useProject();
  const { section, scopeId } = useWhereabouts();
  const shownPath = useShownPath();
  const query = scopeId === null ? '' : `?scope=${scopeId}`;
  return (
    <Bar aria-label="Sections">
      {sections.map((entry, at) => (
        <Fragment key={entry.key}>
          {at > 0 && sections[at - 1]?.group !== entry.group && <hr />}
          <Link
            to={shownPath(`/p/${project.id}/${entry.key}${query}`)}
            aria-current={section === entry.key ? 'page' : undefined}
            title={`Alt+${at}`}
          >
            {entry.label}
          </Link>
        </Fragment>
      ))}
    </Bar>
  );
}
