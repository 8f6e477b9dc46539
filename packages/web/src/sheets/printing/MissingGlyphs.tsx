import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { callJob } from '../../data/jobs.ts';
import { useProject } from '../../data/project.tsx';
import { useMeantQuery } from '../../data/shown.ts';
import { Hint } from '../../kit/panel/panels.tsx';

const Box = styled.div`
  display: flex;
  flex-direction: column;
  gap: 4px;
  padding-left: 8px;
  border-left: 3px solid ${({ theme }) => theme.warn};
  ul {
    max-height: 96px;
    overflow: auto;
  }
  li {
    overflow-wrap: anywhere;
  }
  b {
    color: ${({ theme }) => theme.warn};
  }
`;

const mostShown = 20;

/** With its code points, as this screen may have no font for it either. */
const spelled = (cluster: string): string =>
  `${cluster} ${[...cluster].map((one) => `U+${(one.codePointAt(0) ?? 0).toString(16).toUpperCase().padStart(4, '0')}`).join(' ')}`;

/** Names what of these sheets no font here can draw, before it is printed as boxes; nothing where all can be. */
export function MissingGlyphs({ sheetIds }: { sheetIds: readonly string[] }): ReactNode {
  const { project, view } = useProject();
  const meant = useMeantQuery();
  const { data } = useQuery({
    queryKey: ['missing-glyphs', project.id, view.revision, meant, ...sheetIds],
    queryFn: () =>
      callJob('POST /projects/:project/missing-glyphs', {
        params: { project: project.id },
        query: meant,
        body: { sheetIds: [...sheetIds] },
      }),
    enabled: sheetIds.length > 0,
    retry: false,
  });
  if (data === undefined || data.texts.length === 0) return null;
  const { texts, eastAsian, others } = data;
  const several = sheetIds.length > 1;
  return (
    <Box role="status" aria-label="Would print as boxes">
      <b>{`${texts.length === 1 ? 'One text' : `${texts.length} texts`} would print with boxes`}</b>
      <ul>
        {texts.slice(0, mostShown).map(({ text, characters, sheets }) => (
          <li key={text}>
            {`“${text}”: ${characters.map(spelled).join(', ')}${several ? ` (${sheets.join(', ')})` : ''}`}
          </li>
        ))}
        {texts.length > mostShown && <li>{`and ${texts.length - mostShown} more`}</li>}
      </ul>
      {eastAsian && (
        <Hint>
          Fonts for Chinese, Japanese and Korean are added by “npm run fonts:east-asian” where Visograph runs;
          start it again after that.
        </Hint>
      )}
      {others && (
        <Hint>
          {`${eastAsian ? 'For the others no' : 'No'} font ships with Visograph. Write them otherwise, or save as SVG and open it where a font has them.`}
        </Hint>
      )}
    </Box>
  );
}
