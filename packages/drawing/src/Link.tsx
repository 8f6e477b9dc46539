import {
  labelSize,
  type Medium,
  type Point,
  type SceneBundle,
  type SceneLabel,
  type SceneLink,
  type SceneStub,
} from '@visograph/core/sheets';
import type { ReactElement } from 'react';
import { ChipGrounds } from './Chips.tsx';
import { measureText } from './metrics/measure.ts';
import { shadeColour } from './shade.ts';
import { fonts, type Tokens } from './tokens.ts';

const cornerRadius = 5;

/** An SVG path through the points with rounded corners. */
export function roundedPath(points: readonly Point[]): string {
  const [first] = points;
  if (first === undefined) return '';
  let path = `M${first.x} ${first.y}`;
  for (let at = 1; at < points.length; at++) {
    const here = points[at] ?? first;
    const before = points[at - 1] ?? first;
    const after = points[at + 1];
    if (after === undefined) {
      path += `L${here.x} ${here.y}`;
      continue;
    }
    const inward = Math.hypot(here.x - before.x, here.y - before.y);
    const onward = Math.hypot(after.x - here.x, after.y - here.y);
    const radius = Math.min(cornerRadius, inward / 2, onward / 2);
    const enter = {
      x: here.x - ((here.x - before.x) / (inward || 1)) * radius,
      y: here.y - ((here.y - before.y) / (inward || 1)) * radius,
    };
    const leave = {
      x: here.x + ((after.x - here.x) / (onward || 1)) * radius,
      y: here.y + ((after.y - here.y) / (onward || 1)) * radius,
    };
    path += `L${enter.x} ${enter.y}Q${here.x} ${here.y} ${leave.x} ${leave.y}`;
  }
  return path;
}

interface StrokeProps {
  path: string;
  medium: Medium;
  many: boolean;
  colour: string;
  paper: string;
}

const dashes: Partial<Record<Medium, string>> = { power: '6 3', radio: '1.5 4', route: '9 3 2 3' };

/**
 * Copper a thin line, fibre two lines with room between them, twinax a heavy line with a broken core, power dashed, radio
 * dotted, a circuit solid, a tunnel a broken tube, a peering a heavy line, a route dashes and points; several are wider. They differ in black on white and at half their size.
 */
export function MediumStroke({ path, medium, many, colour, paper }: StrokeProps): ReactElement {
  const plain = { d: path, fill: 'none', strokeLinecap: 'butt' as const };
  if (medium === 'fibre') {
    return (
      <>
        <path {...plain} stroke={colour} strokeWidth={many ? 6 : 4.4} />
        <path {...plain} stroke={paper} strokeWidth={many ? 3.2 : 2.2} />
      </>
    );
  }
  if (medium === 'twinax') {
    return (
      <>
        <path {...plain} stroke={colour} strokeWidth={many ? 5 : 3.6} />
        <path {...plain} stroke={paper} strokeWidth={many ? 1.6 : 1.2} strokeDasharray="5 7" />
      </>
    );
  }
  if (medium === 'tunnel') {
    return (
      <>
        <path {...plain} stroke={colour} strokeWidth={5} strokeDasharray="14 3" />
        <path {...plain} stroke={paper} strokeWidth={2.6} />
      </>
    );
  }
  const width = medium === 'peering' ? 2.6 : medium === 'route' ? 1.1 : 1.5;
  return (
    <path
      {...plain}
      stroke={colour}
      strokeWidth={many ? width + 2 : width}
      strokeDasharray={dashes[medium]}
    />
  );
}

/** An arrow head at the end of a link, along its last piece. */
function ArrowHead({ points, colour }: { points: readonly Point[]; colour: string }): ReactElement | null {
  const [before, tip] = points.slice(-2);
  if (before === undefined || tip === undefined) return null;
  const length = Math.hypot(tip.x - before.x, tip.y - before.y) || 1;
  const [x, y] = [(tip.x - before.x) / length, (tip.y - before.y) / length];
  const side = (by: number): string => `${tip.x - 9 * x - by * y} ${tip.y - 9 * y + by * x}`;
  return <path d={`M${tip.x} ${tip.y}L${side(4)}L${side(-4)}Z`} fill={colour} />;
}

/** A small tag in mono with a paper halo; turned tags read from bottom to top. */
export function LabelTag({
  label,
  tokens,
  strong = false,
  bare = false,
  colour,
}: {
  label: SceneLabel;
  tokens: Tokens;
  strong?: boolean;
  /** Without the paper halo: it stands on a ground of its own. */
  bare?: boolean;
  colour?: string;
}): ReactElement {
  const { box } = label;
  const x = box.x + box.width / 2;
  const y = box.y + box.height / 2;
  const turn = label.turned ? `rotate(-90 ${x} ${y})` : undefined;
  return (
    <g>
      {!bare && (
        <rect x={box.x} y={box.y} width={box.width} height={box.height} rx={2} fill={tokens.ground} />
      )}
      {label.chips !== undefined && (
        <g transform={turn}>
          <ChipGrounds
            chips={label.chips}
            x={x - measureText(label.text, 'mono', labelSize) / 2}
            y={y + 3.4}
            size={labelSize}
            tokens={tokens}
          />
        </g>
      )}
      <text
        x={x}
        y={y + 3.4}
        textAnchor="middle"
        transform={turn}
        fontFamily={fonts.mono}
        fontWeight={strong ? 600 : 400}
        fontSize={labelSize}
        fill={colour ?? tokens.ink}
      >
        {label.text}
      </text>
    </g>
  );
}

/** The ground of a circuit's name: pointed at both ends. */
function Lozenge({
  box,
  turned,
  tokens,
  colour,
}: {
  box: SceneLabel['box'];
  turned: boolean;
  tokens: Tokens;
  colour: string;
}): ReactElement {
  const { x, y, width, height } = box;
  const point = 7;
  const d = turned
    ? `M${x} ${y}L${x + width / 2} ${y - point}L${x + width} ${y}V${y + height}L${x + width / 2} ${y + height + point}L${x} ${y + height}Z`
    : `M${x} ${y}H${x + width}L${x + width + point} ${y + height / 2}L${x + width} ${y + height}H${x}L${x - point} ${y + height / 2}Z`;
  return <path d={d} fill={tokens.surface} stroke={colour} strokeWidth={1} />;
}

/** A port at which the spanning tree forwards nothing: a ring with a bar. */
function BlockedMark({ at, tokens }: { at: Point; tokens: Tokens }): ReactElement {
  return (
    <g stroke={tokens.bad} strokeWidth={1.8}>
      <circle cx={at.x} cy={at.y} r={5.5} fill={tokens.surface} />
      <path d={`M${at.x - 3.6} ${at.y - 3.6}L${at.x + 3.6} ${at.y + 3.6}`} />
    </g>
  );
}

/** A link with its port squares, end labels and middle label, in sheet units. */
export function LinkShape({
  link,
  tokens,
  selected = false,
  labels = true,
}: {
  link: SceneLink;
  tokens: Tokens;
  selected?: boolean;
  /** Left out where the zoom makes them unreadable. */
  labels?: boolean;
}): ReactElement {
  const colour = selected
    ? tokens.accent
    : link.shade === null
      ? tokens.ink
      : shadeColour(tokens, link.shade);
  // The hub of a bundle has one square for all of it.
  const [first, last] = [link.drawn[0], link.drawn.at(-1)];
  const ends = [link.a, link.b].filter(({ at }) =>
    [first, last].some((point) => point?.x === at.x && point.y === at.y),
  );
  return (
    <g opacity={link.faded && !selected ? 0.3 : undefined}>
      <MediumStroke
        path={roundedPath(selected ? link.points : link.drawn)}
        medium={link.medium}
        many={link.cableIds.length > 1}
        colour={colour}
        paper={tokens.ground}
      />
      {[link.a, link.b].map((end, at) => (
        <g key={at === 0 ? 'a' : 'b'}>
          {end.blocked ? (
            <BlockedMark at={end.at} tokens={tokens} />
          ) : link.arrow === true && end === link.b ? (
            <ArrowHead points={link.points} colour={colour} />
          ) : ends.includes(end) || selected ? (
            <rect x={end.at.x - 3} y={end.at.y - 3} width={6} height={6} fill={colour} />
          ) : null}
          {labels && end.label !== null && (
            <LabelTag
              label={end.label}
              tokens={tokens}
              strong={selected}
              colour={selected ? tokens.accent : tokens.ink}
            />
          )}
        </g>
      ))}
      {labels && link.label !== null && link.medium === 'circuit' && (
        <Lozenge box={link.label.box} turned={link.label.turned} tokens={tokens} colour={colour} />
      )}
      {labels && link.label !== null && (
        <LabelTag
          label={link.label}
          tokens={tokens}
          strong={selected}
          bare={link.medium === 'circuit'}
          colour={selected ? tokens.accent : tokens.inkSoft}
        />
      )}
    </g>
  );
}

export const trunkWidth = 4;
/** The number of a bundle is told from this zoom on, so large in pixels of the screen; and what it tells in sum. */
const farthestCount = 0.25;
const countPx = 10;
const toldPx = 9.5;
const largestTold = 1.8;

const scaledAbout = ({ box }: SceneLabel, by: number): string => {
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  return `translate(${x} ${y}) scale(${Math.max(1, by)}) translate(${-x} ${-y})`;
};

/** How many links a bundle holds, just beyond its end at the hub. */
function CountTag({
  bundle,
  size,
  tokens,
  colour,
}: {
  bundle: SceneBundle;
  size: number;
  tokens: Tokens;
  colour: string;
}): ReactElement {
  const text = bundle.label?.text ?? `×${bundle.linkIds.length}`;
  const width = measureText(text, 'monoStrong', size) + 4;
  const height = size * 1.25;
  const { x, y } = bundle.at;
  const left = bundle.side === 'left' ? x - width - 5 : bundle.side === 'right' ? x + 5 : x - width / 2;
  const top = bundle.side === 'top' ? y - height - 5 : bundle.side === 'bottom' ? y + 5 : y - height / 2;
  return (
    <g>
      <rect x={left} y={top} width={width} height={height} rx={2} fill={tokens.ground} />
      <text
        x={left + width / 2}
        y={top + height / 2 + size * 0.35}
        textAnchor="middle"
        fontFamily={fonts.mono}
        fontWeight={600}
        fontSize={size}
        fill={colour}
      >
        {text}
      </text>
    </g>
  );
}

/** The shared part of a bundle, heavier than a link, with a square and the number of its links at the hub. */
export function BundleShape({
  bundle,
  tokens,
  selected = false,
  labels = true,
  zoom = 1,
}: {
  bundle: SceneBundle;
  tokens: Tokens;
  selected?: boolean;
  /** Where they are left out, its number is told as large as it can be read from afar. */
  labels?: boolean;
  zoom?: number;
}): ReactElement {
  const colour = selected
    ? tokens.accent
    : bundle.shade === null
      ? tokens.ink
      : shadeColour(tokens, bundle.shade);
  const { at, label, toldLabel } = bundle;
  return (
    <g opacity={bundle.faded && !selected ? 0.3 : undefined}>
      <path
        d={bundle.trunk.map(roundedPath).join('')}
        fill="none"
        stroke={colour}
        strokeWidth={trunkWidth}
        strokeLinejoin="round"
      />
      {bundle.medium === 'fibre' && (
        <path d={bundle.trunk.map(roundedPath).join('')} fill="none" stroke={tokens.ground} strokeWidth={1} />
      )}
      <rect x={at.x - 4} y={at.y - 4} width={8} height={8} fill={colour} />
      {labels && label !== null && <LabelTag label={label} tokens={tokens} strong colour={colour} />}
      {!labels && zoom >= farthestCount && (
        <CountTag
          bundle={bundle}
          size={Math.max(labelSize, countPx / zoom)}
          tokens={tokens}
          colour={colour}
        />
      )}
      {toldLabel !== null && zoom >= farthestCount && (
        <g
          transform={scaledAbout(toldLabel, labels ? 1 : Math.min(largestTold, toldPx / (labelSize * zoom)))}
        >
          <LabelTag label={toldLabel} tokens={tokens} colour={selected ? tokens.accent : tokens.inkSoft} />
        </g>
      )}
    </g>
  );
}

/** A link that leads off the sheet: a short piece, a chevron and where it leads. */
export function StubShape({
  stub,
  tokens,
  labels = true,
}: {
  stub: SceneStub;
  tokens: Tokens;
  labels?: boolean;
}): ReactElement {
  const { at } = stub.a;
  return (
    <g opacity={stub.faded ? 0.3 : undefined}>
      <MediumStroke
        path={`M${at.x} ${at.y}L${stub.to.x} ${stub.to.y}`}
        medium={stub.medium}
        many={false}
        colour={tokens.inkSoft}
        paper={tokens.ground}
      />
      <rect x={at.x - 3} y={at.y - 3} width={6} height={6} fill={tokens.ink} />
      <path
        d={`M${stub.to.x - 4} ${stub.to.y - 4}L${stub.to.x} ${stub.to.y}L${stub.to.x + 4} ${stub.to.y - 4}`}
        fill="none"
        stroke={tokens.inkSoft}
        strokeWidth={1.5}
      />
      {labels && stub.a.label !== null && <LabelTag label={stub.a.label} tokens={tokens} />}
      {labels && stub.label !== null && (
        <LabelTag label={stub.label} tokens={tokens} colour={tokens.inkSoft} />
      )}
    </g>
  );
}
