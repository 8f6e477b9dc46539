import { inScope } from '@visograph/core/check';
import { Fragment, useEffect, useMemo, useRef, type ReactNode } from 'react';
import { Link } from 'react-router';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useFindings } from '../data/findings.ts';
import { useShownPath } from '../data/shown.ts';
import { useWhereabouts } from '../data/location.ts';
import { useWorkspace } from '../data/workspace.tsx';
import { narrowQuery } from '../kit/useNarrow.ts';
import { mono } from '../theme/mono.ts';
import { sectionKeys, sections } from './sections.ts';

const Bar = styled.nav<{ $open: boolean }>`
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
  a small {
    float: right;
    margin-right: 8px;
    ${mono}
    font-size: 11px;
    line-height: 20px;
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
  @media ${narrowQuery} {
    position: fixed;
    inset: 44px auto 24px 0;
    width: 168px;
    z-index: 21;
    display: ${({ $open }) => ($open ? 'block' : 'none')};
    box-shadow: 6px 0 20px rgb(0 0 0 / 16%);
    a {
      padding-block: 11px;
    }
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
  const judged = useFindings();
  const toMend = useMemo(
    () => (judged === null ? 0 : inScope(judged.network, judged.review.open, scopeId).length),
    [judged, scopeId],
  );
  const query = scopeId === null ? '' : `?scope=${scopeId}`;
  const { railOpen, setRailOpen } = useWorkspace();
  const bar = useRef<HTMLElement>(null);
  useEffect(() => {
    if (!railOpen) return undefined;
    bar.current?.querySelector('a')?.focus();
    const away = (event: PointerEvent): void => {
      const { target } = event;
      if (target instanceof Element && target.closest('[data-rail]') === null) setRailOpen(false);
    };
    const key = (event: KeyboardEvent): void => {
      if (event.key === 'Escape') setRailOpen(false);
    };
    window.addEventListener('pointerdown', away);
    window.addEventListener('keydown', key);
    return () => {
      window.removeEventListener('pointerdown', away);
      window.removeEventListener('keydown', key);
    };
  }, [railOpen, setRailOpen]);
  return (
    <Bar ref={bar} aria-label="Sections" $open={railOpen} data-rail onClick={() => setRailOpen(false)}>
      {sections.map((entry, at) => (
        <Fragment key={entry.key}>
          {at > 0 && sections[at - 1]?.group !== entry.group && <hr />}
          <Link
            to={shownPath(`/p/${project.id}/${entry.key}${query}`)}
            aria-current={section === entry.key ? 'page' : undefined}
            title={`Alt+${(sectionKeys[at] ?? '').toUpperCase()}`}
          >
            {entry.label}
            {entry.key === 'review' && toMend > 0 && <small aria-label={`${toMend} to mend`}>{toMend}</small>}
          </Link>
        </Fragment>
      ))}
    </Bar>
  );
}
