import { grouped } from '@visograph/core/model';
import type { Cell } from '@visograph/core/report';
import type { ReactNode } from 'react';
import { styled, useTheme } from 'styled-components';
import { StateMark } from '../panel/panels.tsx';

const Line = styled.span`
  display: flex;
  align-items: center;
  gap: 6px;
  height: 100%;
  min-width: 0;
  > i {
    flex: none;
    width: 10px;
    height: 10px;
    border-radius: 2px;
  }
  > span {
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;
const Track = styled.span`
  position: relative;
  flex: 1;
  min-width: 16px;
  height: 6px;
  background: ${({ theme }) => theme.band};
  border: 1px solid ${({ theme }) => theme.rule};
  > b {
    position: absolute;
    inset: 0 auto 0 0;
  }
`;

/** A figure as it is written everywhere, with as many decimals as it has. */
export const figureText = (value: number): string => grouped(value, String(value).split('.')[1]?.length ?? 0);

/** A text with the colour that stands for it on every drawing. */
export function Coloured({ colour, children }: { colour: number; children: ReactNode }): ReactNode {
  const { set } = useTheme();
  return (
    <Line>
      <i aria-hidden style={{ background: set[colour % set.length] }} />
      <span>{children}</span>
    </Line>
  );
}

const nearlyFull = 0.8;

const Figure = styled.span<{ $width: number }>`
  flex: none;
  min-width: ${({ $width }) => $width}ch;
  text-align: right;
`;

/** A share as a bar with its figure. Where full is a trouble, nearly full and full are told by colour too. */
export function Share({
  part,
  of,
  runsOut = false,
  figureWidth,
  children,
}: {
  part: number;
  of: number;
  runsOut?: boolean;
  /** In letters, so that the bars of a column are of one length. */
  figureWidth: number;
  children: ReactNode;
}): ReactNode {
  const tokens = useTheme();
  const share = of <= 0 ? 0 : Math.min(1, part / of);
  const near = share >= 1 ? tokens.bad : share >= nearlyFull ? tokens.warn : tokens.accent;
  const colour = runsOut ? near : tokens.accent;
  return (
    <Line>
      <Track aria-hidden>
        <b style={{ width: `${share * 100}%`, background: colour }} />
      </Track>
      <Figure $width={figureWidth}>{children}</Figure>
    </Line>
  );
}

/** So many squares stand in a row, and so many rows in a cell; more are a bar. */
const stripRows = (count: number): number => (count <= 14 ? 1 : count <= 30 ? 2 : 3);
const mostInStrip = 99;
const pitch = 3;

/** Ports as small squares in their order, the used ones filled, with the figure; of very many a bar. */
export function Strip({
  used,
  figureWidth,
  children,
}: {
  /** One letter for each: 1 is used, 0 free. */
  used: string;
  figureWidth: number;
  children: ReactNode;
}): ReactNode {
  const tokens = useTheme();
  const count = used.length;
  const taken = used.replaceAll('0', '').length;
  if (count > mostInStrip)
    return (
      <Share part={taken} of={count} figureWidth={figureWidth}>
        {children}
      </Share>
    );
  const rows = stripRows(count);
  const across = Math.ceil(count / rows);
  const path = (which: string): string =>
    [...used]
      .map((one, at) =>
        one === which
          ? `M${Math.floor(at / rows) * pitch} ${(at % rows) * pitch}h${pitch - 0.8}v${pitch - 0.8}h${0.8 - pitch}Z`
          : '',
      )
      .join('');
  return (
    <Line>
      <svg
        aria-hidden
        data-strip={used}
        width={across * pitch}
        height={rows * pitch}
        style={{ flex: 'none', marginRight: 'auto', visibility: count === 0 ? 'hidden' : undefined }}
      >
        <path d={path('0')} fill={tokens.rule} />
        <path d={path('1')} fill={tokens.ink} />
      </svg>
      <Figure $width={figureWidth}>{children}</Figure>
    </Line>
  );
}

const marks = { active: 'ok', planned: 'warn', retired: 'bad' } as const;

/** The state of a thing as shape and word. */
export function Status({ value }: { value: Cell }): ReactNode {
  const state = value === 'active' || value === 'planned' || value === 'retired' ? marks[value] : null;
  return (
    <Line>
      {state !== null && <StateMark state={state} />}
      <span>{value}</span>
    </Line>
  );
}
