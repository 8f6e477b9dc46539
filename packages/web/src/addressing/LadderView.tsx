import { ladderOf, offersIn, type Rung } from '@visograph/core/addressing';
import {
  formatIp,
  formatPrefix,
  lastOf,
  prefixAround,
  type IpPrefix,
  type Network,
  grouped,
} from '@visograph/core/model';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { Dialog, Popover } from 'react-aria-components';
import { styled, useTheme } from 'styled-components';
import { Button } from '../kit/controls.tsx';
import { Hint } from '../kit/panel/panels.tsx';
import { mono } from '../theme/mono.ts';
import { AddPrefix } from './AddPrefix.tsx';
import { roomForPrefix, rowHeight, RungShape } from './RungShape.tsx';
import { useLadderWindow } from './useLadderWindow.ts';
import { useRungCarry } from './useRungCarry.ts';

const Frame = styled.section`
  position: relative;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.ground};
  padding: 6px 12px 10px;
  svg {
    display: block;
    width: 100%;
  }
  [role='button'] {
    cursor: pointer;
    outline: none;
  }
  [role='button']:focus-visible > rect:first-child {
    stroke: ${({ theme }) => theme.accent};
    stroke-width: 2.5;
  }
`;
const Way = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  min-height: 28px;
  ${mono}
  font-size: 12px;
  button {
    height: 24px;
    padding: 0 8px;
    font-size: 12px;
  }
  > span:last-child {
    margin-left: auto;
    white-space: nowrap;
  }
`;
const Offers = styled(Dialog)`
  padding: 10px 12px;
  outline: none;
  border: 1px solid ${({ theme }) => theme.accent};
  border-radius: 3px;
  background: ${({ theme }) => theme.surface};
  h3 {
    ${mono}
    font-size: 12.5px;
    margin-bottom: 6px;
  }
  li {
    display: flex;
    gap: 8px;
    align-items: center;
    justify-content: space-between;
    min-height: 28px;
  }
  button {
    height: 22px;
    padding: 0 8px;
    font-size: 12px;
  }
`;

const gutter = 46;
const head = 20;

const hostsText = (count: bigint): string => `${grouped(count)} hosts`;

interface Props {
  network: Network;
  vrfId: string | null;
  outer: IpPrefix;
  top: readonly IpPrefix[];
  selectedId: string | null;
  canEdit: boolean;
  onOpen: (prefix: IpPrefix | null) => void;
  onSelect: (id: string) => void;
}

/**
 * Address space as a picture: width is space, rows are prefix lengths, what is free is hatched. A pool opens by a
 * double click or Enter; free space offers what can be made of it.
 */
export function LadderView(props: Props): ReactNode {
  const { network, vrfId, outer, top, selectedId, canEdit } = props;
  const tokens = useTheme();
  const frame = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(800);
  const [offered, setOffered] = useState<{ block: IpPrefix; least: number; anchor: SVGGElement } | null>(
    null,
  );
  const offer = (rung: Rung, anchor: SVGGElement): void =>
    setOffered({ block: rung.prefix, least: rung.length, anchor });
  const [adding, setAdding] = useState<IpPrefix | null>(null);
  useEffect(() => {
    const element = frame.current;
    if (element === null) return;
    const watch = new ResizeObserver(([entry]) => setWidth(Math.max(320, entry?.contentRect.width ?? 800)));
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  const room = width - gutter - 2;
  const drawing = useRef<SVGSVGElement>(null);
  const { seen, drawn, zoomed, whole } = useLadderWindow(drawing, formatPrefix(outer), room, gutter);
  const ladder = useMemo(() => ladderOf(network, vrfId, outer, drawn), [network, vrfId, outer, drawn]);
  const left = (from: number): number => gutter + ((from - seen.from) / seen.width) * room;
  const across = (share: number): number => (share / seen.width) * room;
  const { carried, why, hold } = useRungCarry(network, outer, room / seen.width, canEdit);
  const rowAt = new Map(ladder.lengths.map((length, at) => [length, head + at * rowHeight]));
  const height = head + ladder.lengths.length * rowHeight + 4;
  const wider = outer.length === 0 ? null : prefixAround(outer, outer.length - 1);
  const isTop = top.some((prefix) => formatPrefix(prefix) === formatPrefix(outer));
  return (
    <Frame aria-label="Ladder" ref={frame}>
      <Way>
        {top.length > 1 || !isTop
          ? top.map((prefix) => (
              <Button
                key={formatPrefix(prefix)}
                aria-pressed={formatPrefix(prefix) === formatPrefix(outer)}
                onPress={() => props.onOpen(prefix)}
              >
                {formatPrefix(prefix)}
              </Button>
            ))
          : null}
        {!isTop && wider !== null && (
          <>
            <span>{formatPrefix(outer)}</span>
            <Button onPress={() => props.onOpen(wider)}>{`Wider: /${wider.length}`}</Button>
          </>
        )}
        {zoomed && <Button onPress={whole}>All of it</Button>}
        {why !== null && <Hint role="alert">{why}</Hint>}
        <span>{`${formatIp(outer)} – ${formatIp(lastOf(outer))}`}</span>
      </Way>
      <svg ref={drawing} height={height} role="group" aria-label={`${formatPrefix(outer)} by prefix length`}>
        <defs>
          <pattern
            id="free-space"
            width={7}
            height={7}
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <path d="M0 0V7" stroke={tokens.rule} strokeWidth={2} />
          </pattern>
        </defs>
        {ladder.marks.map((mark) => (
          <g key={mark.text} transform={`translate(${left(mark.at)} 0)`}>
            <path d={`M0 4V${height}`} stroke={tokens.rule} />
            <text x={4} y={13} fontSize={10.5} fill={tokens.inkSoft} className="mono">
              {mark.text}
            </text>
          </g>
        ))}
        {ladder.free.map((rung) => {
          const wide = across(rung.width);
          const text = formatPrefix(rung.prefix);
          if (wide < 3) return null;
          return (
            <g
              key={text}
              role="button"
              tabIndex={0}
              aria-label={`${text} is free`}
              transform={`translate(${left(rung.from)} ${rowAt.get(rung.length) ?? 0})`}
              onClick={(event) => offer(rung, event.currentTarget)}
              onKeyDown={(event) => {
                if (event.key !== 'Enter' && event.key !== ' ') return;
                event.preventDefault();
                offer(rung, event.currentTarget);
              }}
            >
              <rect
                width={wide}
                height={rowHeight - 8}
                fill={tokens.ground}
                stroke={tokens.rule}
                strokeDasharray="4 3"
              />
              <rect width={wide} height={rowHeight - 8} fill="url(#free-space)" opacity={0.8} />
              {wide >= roomForPrefix + 30 && (
                <text
                  x={6}
                  y={14}
                  fontSize={11}
                  fill={tokens.inkSoft}
                  stroke={tokens.ground}
                  strokeWidth={3}
                  paintOrder="stroke"
                  className="mono"
                >
                  {`${text} free`}
                </text>
              )}
            </g>
          );
        })}
        {ladder.rungs.map((rung) => (
          <RungShape
            key={rung.row?.id}
            rung={rung}
            x={left(rung.from) + (carried?.id === rung.row?.id ? (carried?.dx ?? 0) : 0)}
            y={(rowAt.get(rung.prefix.length) ?? 0) + (carried?.id === rung.row?.id ? (carried?.dy ?? 0) : 0)}
            width={across(rung.width)}
            from={gutter}
            selected={rung.row?.id === selectedId}
            onPress={() => rung.row !== null && props.onSelect(rung.row.id)}
            onOpen={rung.row?.role === 'pool' ? () => props.onOpen(rung.prefix) : null}
            onHold={
              rung.row === null || !canEdit ? null : (event) => rung.row !== null && hold(event, rung.row)
            }
          />
        ))}
        {carried?.text != null && (
          <text
            x={Math.min(width - 220, Math.max(gutter, carried.x))}
            y={head + 12}
            fontSize={12}
            fontWeight={600}
            fill={tokens.accent}
            stroke={tokens.ground}
            strokeWidth={4}
            paintOrder="stroke"
            className="mono"
          >
            {carried.text}
          </text>
        )}
        {/* What is left of the space is not drawn over the lengths. */}
        <rect x={0} y={0} width={gutter - 4} height={height} fill={tokens.ground} />
        {ladder.lengths.map((length) => (
          <text
            key={length}
            x={2}
            y={(rowAt.get(length) ?? 0) + 22}
            fontSize={12}
            fill={tokens.inkSoft}
            className="mono"
          >
            {`/${length}`}
          </text>
        ))}
      </svg>
      <Popover
        triggerRef={{ current: offered?.anchor ?? null }}
        isOpen={offered !== null}
        onOpenChange={(open) => {
          if (open) return;
          setOffered(null);
          setAdding(null);
        }}
        placement="bottom start"
      >
        {offered !== null && adding === null && (
          <Offers aria-label="Free space">
            <h3>{`Free: ${formatPrefix(offered.block)}`}</h3>
            <ul>
              {offersIn(offered.block)
                .filter(({ length }) => length >= offered.least)
                .map((offer) => (
                  <li key={offer.length}>
                    <span>
                      {`${offer.count} × /${offer.length} `}
                      <Hint>{`${hostsText(offer.hosts)}${offer.count === 1 ? '' : ' each'}`}</Hint>
                    </span>
                    {canEdit && (
                      <Button
                        aria-label={`Take ${formatPrefix(offer.first)}`}
                        onPress={() => setAdding(offer.first)}
                      >
                        Take
                      </Button>
                    )}
                  </li>
                ))}
            </ul>
          </Offers>
        )}
        {offered !== null && adding !== null && (
          <AddPrefix
            vrfId={vrfId}
            pool={null}
            start={adding}
            onDone={(id) => {
              setOffered(null);
              setAdding(null);
              props.onSelect(id);
            }}
          />
        )}
      </Popover>
    </Frame>
  );
}
