import type { MarkTone } from '@visograph/core/model';
import type { SceneMark, TextBlock } from '@visograph/core/sheets';
import type { ReactElement } from 'react';
import { fonts, type Tokens } from './tokens.ts';

const toneColour = (tone: MarkTone, tokens: Tokens): string =>
  ({
    plain: tokens.ink,
    accent: tokens.accent,
    ok: tokens.ok,
    warn: tokens.warn,
    bad: tokens.bad,
    soft: tokens.inkSoft,
  })[tone];

const faceOf = {
  text: { fontFamily: fonts.text, fontWeight: 400 },
  textStrong: { fontFamily: fonts.text, fontWeight: 600 },
  mono: { fontFamily: fonts.mono, fontWeight: 400 },
  monoStrong: { fontFamily: fonts.mono, fontWeight: 600 },
};

/** Set text from its own corner. */
export function SetText({
  text,
  tokens,
  colour,
}: {
  text: TextBlock;
  tokens: Tokens;
  colour?: string;
}): ReactElement {
  return (
    <>
      {text.runs.map((run, at) => (
        <text
          key={at}
          x={run.x}
          y={run.y}
          {...faceOf[run.face]}
          fontSize={run.face === 'mono' ? run.size - 1 : run.size}
          fill={run.href === null ? (colour ?? tokens.ink) : tokens.accent}
          textDecoration={run.href === null ? undefined : 'underline'}
          xmlSpace="preserve"
        >
          {run.text}
        </text>
      ))}
    </>
  );
}

const pathOf = (points: readonly { x: number; y: number }[], closed: boolean): string =>
  `M${points.map((point) => `${point.x} ${point.y}`).join('L')}${closed ? 'Z' : ''}`;

/** The head of an arrow that ends in the last of the points. */
function ArrowHead({
  points,
  colour,
}: {
  points: readonly { x: number; y: number }[];
  colour: string;
}): ReactElement | null {
  const tip = points.at(-1);
  const before = points.at(-2);
  if (tip === undefined || before === undefined) return null;
  const turn = (Math.atan2(tip.y - before.y, tip.x - before.x) * 180) / Math.PI;
  return (
    <path
      d="M0 0L-11 -4.5L-8 0L-11 4.5Z"
      fill={colour}
      transform={`translate(${tip.x} ${tip.y}) rotate(${turn})`}
    />
  );
}

/** What stands in the box of a mark, from the box's own corner. */
function Body({ mark, tokens }: { mark: SceneMark; tokens: Tokens }): ReactElement | null {
  const { width, height } = mark.box;
  const colour = toneColour(mark.tone, tokens);
  const plain = mark.tone === 'plain';
  const fill = mark.filled ? (plain ? tokens.band : colour) : 'none';
  const leaf = { width, height, rx: 2, stroke: plain ? tokens.rule : colour };
  switch (mark.form) {
    case 'note':
    case 'callout':
      return (
        <>
          <rect {...leaf} fill={mark.filled ? tokens.accentWash : tokens.surface} />
          <rect width={3} height={height} fill={plain ? tokens.inkSoft : colour} />
        </>
      );
    case 'schedule':
      return (
        <>
          <rect {...leaf} fill={mark.filled ? tokens.band : tokens.surface} />
          {mark.rules.map((rule, at) => (
            <line
              key={at}
              x1={rule.x}
              x2={rule.x + rule.width}
              y1={rule.y}
              y2={rule.y}
              stroke={rule.strong ? colour : tokens.rule}
              strokeWidth={rule.strong ? 1 : 0.5}
            />
          ))}
        </>
      );
    case 'rectangle':
    case 'dimension':
      return (
        <rect
          width={width}
          height={height}
          rx={3}
          fill={mark.form === 'dimension' ? tokens.surface : fill}
          fillOpacity={mark.filled && !plain ? 0.16 : 1}
          stroke={colour}
          strokeWidth={1.25}
        />
      );
    case 'ellipse':
      return (
        <ellipse
          cx={width / 2}
          cy={height / 2}
          rx={width / 2}
          ry={height / 2}
          fill={fill}
          fillOpacity={mark.filled && !plain ? 0.16 : 1}
          stroke={colour}
          strokeWidth={1.25}
        />
      );
    case 'enclosure':
      return (
        <rect
          width={width}
          height={height}
          rx={8}
          fill={mark.filled ? colour : 'none'}
          fillOpacity={0.07}
          stroke={colour}
          strokeWidth={1.5}
          strokeDasharray="2 5"
          strokeLinecap="round"
        />
      );
    case 'picture':
      return mark.picture === null ? null : (
        <image href={mark.picture} width={width} height={height} preserveAspectRatio="xMidYMid meet" />
      );
    default:
      return null;
  }
}

/** A note, shape, line or picture that somebody put on the sheet, in sheet units. */
export function MarkShape({ mark, tokens }: { mark: SceneMark; tokens: Tokens }): ReactElement {
  const colour = toneColour(mark.tone, tokens);
  const lines = mark.form === 'line' || mark.form === 'arrow' || mark.form === 'polygon';
  return (
    <g opacity={mark.opacity * (mark.faded ? 0.35 : 1)}>
      {lines && (
        <path
          d={pathOf(mark.points, mark.form === 'polygon')}
          fill={mark.form === 'polygon' && mark.filled ? colour : 'none'}
          fillOpacity={0.14}
          stroke={colour}
          strokeWidth={1.75}
          strokeLinejoin="round"
        />
      )}
      {mark.form === 'arrow' && <ArrowHead points={mark.points} colour={colour} />}
      {mark.leader.length === 2 && (
        <>
          <path d={pathOf(mark.leader, false)} fill="none" stroke={colour} strokeWidth={1} />
          <circle cx={mark.leader[1]?.x} cy={mark.leader[1]?.y} r={3} fill={colour} />
        </>
      )}
      <g transform={`translate(${mark.box.x} ${mark.box.y})`}>
        <Body mark={mark} tokens={tokens} />
        <SetText text={mark.text} tokens={tokens} colour={mark.form === 'enclosure' ? colour : undefined} />
      </g>
    </g>
  );
}
