import {
  boxAround,
  overlap,
  type Box,
  type Point,
  type Scene,
  type SceneLink,
  type SceneStub,
} from '@visograph/core/sheets';
import { LinkShape, roundedPath, StubShape, TieShapes } from '@visograph/drawing';
import { useReactFlow, useStore, ViewportPortal } from '@xyflow/react';
import { memo, useMemo, useState, type PointerEvent as ReactPointerEvent, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useTheme } from '../../theme/theme.tsx';
import { useGradually } from './acts/useGradually.ts';
import type { LinkPart } from '../facts/LinkFacts.tsx';
import { LineLayer } from './lineLayer.ts';

const Handles = styled.svg`
  position: absolute;
  top: 0;
  left: 0;
  overflow: visible;
  pointer-events: none;
  z-index: 5;
  rect,
  circle {
    pointer-events: all;
    cursor: move;
  }
`;

export type SlidLabel = 'aLabel' | 'bLabel' | 'middleLabel';
export interface LinkActs {
  choose: (link: SceneLink | SceneStub) => void;
  /** Opens what is written at a part of a link, to be edited there. */
  facts: (link: SceneLink, part: LinkPart) => void;
  slide: (link: SceneLink, label: SlidLabel, by: Point) => void;
  bend: (link: SceneLink, bends: Point[]) => void;
}

const LinkView = memo(function LinkView({
  link,
  selected,
  labels,
  choose,
  facts,
}: {
  link: SceneLink;
  selected: boolean;
  labels: boolean;
  choose: LinkActs['choose'];
  facts: LinkActs['facts'];
}): ReactNode {
  const { tokens } = useTheme();
  return (
    <g data-link={link.id}>
      <LinkShape link={link} tokens={tokens} selected={selected} labels={selected || labels} />
      <path
        className="hit"
        d={roundedPath(link.drawn)}
        fill="none"
        stroke="transparent"
        strokeWidth={10}
        onClick={() => choose(link)}
        onDoubleClick={() => facts(link, 'middle')}
      >
        <title>{link.spoken}</title>
      </path>
    </g>
  );
});

const StubView = memo(function StubView({
  stub,
  labels,
  choose,
}: {
  stub: SceneStub;
  labels: boolean;
  choose: LinkActs['choose'];
}): ReactNode {
  const { tokens } = useTheme();
  const { at } = stub.a;
  return (
    <g data-link={stub.id}>
      <StubShape stub={stub} tokens={tokens} labels={labels} />
      <path
        className="hit"
        d={`M${at.x} ${at.y}L${stub.to.x} ${stub.to.y}`}
        stroke="transparent"
        strokeWidth={12}
        onClick={() => choose(stub)}
      >
        <title>{stub.spoken}</title>
      </path>
    </g>
  );
});

/** Pieces of a link between its first and its last corner: what can be pushed aside by hand. */
function pushable(points: readonly Point[]): { index: number; at: Point; upright: boolean }[] {
  return points.slice(1, -2).map((from, step) => {
    const to = points[step + 2] ?? from;
    return {
      index: step + 1,
      at: { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 },
      upright: from.x === to.x,
    };
  });
}

const step = 8;
const pointBox = (point: Point): Box => ({ ...point, width: 0, height: 0 });
const boxes = new WeakMap<SceneLink, Box>();
/** The box around a link, worked out once. */
function boxOf(link: SceneLink): Box {
  const known = boxes.get(link) ?? boxAround(link.points.map(pointBox));
  boxes.set(link, known);
  return known;
}
const snapped = (value: number): number => Math.round(value / step) * step;

/** Grips on the chosen link: on its labels to slide them, on its pieces to push them. */
function LinkHandles({ link, acts }: { link: SceneLink; acts: LinkActs }): ReactNode {
  const { tokens } = useTheme();
  const flow = useReactFlow();
  const zoom = useStore((state) => state.transform[2]);
  const [held, setHeld] = useState<{ what: string; by: Point } | null>(null);
  const hold = (event: ReactPointerEvent, what: string, letGo: (by: Point) => void): void => {
    event.stopPropagation();
    const start = flow.screenToFlowPosition({ x: event.clientX, y: event.clientY });
    let by: Point = { x: 0, y: 0 };
    const move = (next: PointerEvent): void => {
      const now = flow.screenToFlowPosition({ x: next.clientX, y: next.clientY }, { snapToGrid: false });
      by = { x: now.x - start.x, y: now.y - start.y };
      setHeld({ what, by });
    };
    const up = (): void => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', up);
      setHeld(null);
      if (Math.abs(by.x) + Math.abs(by.y) > 2) letGo(by);
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', up);
  };
  const labels: [SlidLabel, LinkPart, typeof link.label][] = [
    ['aLabel', 'a', link.a.label],
    ['bLabel', 'b', link.b.label],
    ['middleLabel', 'middle', link.label],
  ];
  const size = 8 / Math.min(1, zoom);
  return (
    <>
      {labels.map(
        ([name, part, label]) =>
          label !== null && (
            <rect
              key={name}
              className="nopan nodrag"
              data-grip={name}
              x={label.box.x + (held?.what === name ? held.by.x : 0)}
              y={label.box.y + (held?.what === name ? held.by.y : 0)}
              width={label.box.width}
              height={label.box.height}
              fill={held?.what === name ? tokens.accentWash : 'transparent'}
              stroke={tokens.accent}
              strokeWidth={held?.what === name ? 1 : 0.5}
              strokeDasharray="2 2"
              onPointerDown={(event) => hold(event, name, (by) => acts.slide(link, name, by))}
              onDoubleClick={() => acts.facts(link, part)}
            >
              <title>Drag to slide this label; double-click to edit what it says</title>
            </rect>
          ),
      )}
      {pushable(link.points).map(({ index, at, upright }) => {
        const by = held?.what === `p${index}` ? held.by : { x: 0, y: 0 };
        const centre = upright ? { x: at.x + by.x, y: at.y } : { x: at.x, y: at.y + by.y };
        return (
          <rect
            key={index}
            className="nopan nodrag"
            data-grip={`piece-${index}`}
            x={centre.x - size / 2}
            y={centre.y - size / 2}
            width={size}
            height={size}
            rx={2}
            fill={tokens.surface}
            stroke={tokens.accent}
            style={{ cursor: upright ? 'ew-resize' : 'ns-resize' }}
            onPointerDown={(event) =>
              hold(event, `p${index}`, (pushed) => {
                const bends = link.points.slice(1, -1).map((point) => ({ ...point }));
                for (const corner of [bends[index - 1], bends[index]]) {
                  if (corner === undefined) continue;
                  if (upright) corner.x = snapped(corner.x + pushed.x);
                  else corner.y = snapped(corner.y + pushed.y);
                }
                acts.bend(link, bends);
              })
            }
            onDoubleClick={() => acts.bend(link, [])}
          >
            <title>Drag to push this piece; double-click to let the link find its own way</title>
          </rect>
        );
      })}
    </>
  );
}

interface Props {
  scene: Scene;
  /** Links outside of it are not drawn; null: all are. */
  region: Box | null;
  /** How many more are mounted at each frame; null: all at once. */
  each: number | null;
  lit: (link: SceneLink) => boolean;
  /** Labels are read at this zoom. */
  labels: boolean;
  /** The one link whose grips are shown. */
  held: SceneLink | null;
  acts: LinkActs;
}

/** All links and stubs in one drawing over the plates. */
export function LinkLayer({ scene, region, each, lit, labels, held, acts }: Props): ReactNode {
  const { tokens } = useTheme();
  const near = useMemo(
    () => (region === null ? scene.links : scene.links.filter((link) => overlap(boxOf(link), region))),
    [scene, region],
  );
  const links = useGradually(near, each);
  return (
    <ViewportPortal>
      <LineLayer width={1} height={1} aria-hidden="true">
        {links.map((link) => (
          <LinkView
            key={link.id}
            link={link}
            selected={lit(link)}
            labels={labels}
            choose={acts.choose}
            facts={acts.facts}
          />
        ))}
        <TieShapes links={links} tokens={tokens} />
        {scene.stubs.map((stub) => (
          <StubView key={stub.id} stub={stub} labels={labels} choose={acts.choose} />
        ))}
      </LineLayer>
      {held !== null && (
        <Handles width={1} height={1}>
          <LinkHandles link={held} acts={acts} />
        </Handles>
      )}
    </ViewportPortal>
  );
}
