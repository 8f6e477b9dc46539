import { roles } from '@visograph/core/model';
import { type Container, type KeyEntry, type Scene, type TitleBlock } from '@visograph/core/sheets';
import type { ReactElement } from 'react';
import { BundleShape, LinkShape, MediumStroke, StubShape, trunkWidth } from './Link.tsx';
import { TieShapes } from './Ties.tsx';
import { MarkShape } from './Marks.tsx';
import { shadeColour } from './shade.ts';
import { PlateShape } from './Plate.tsx';
import { fonts, type Tokens } from './tokens.ts';
import { fitText, measureText } from './metrics/measure.ts';

/** A title is set so large, and larger where it is looked at from afar, in pixels of the screen. */
const titleSize = 12;
const leastTitlePx = 11;
const largestTitle = 40;

/** A name is set a little smaller before it is cut. */
const leastShrunk = 0.88;

/** All of a title, or only its last names: the place itself is what one looks for. */
function titleThatFits(title: string, size: number, room: number): { text: string; size: number } {
  const parts = title.split(' › ');
  const fits = (text: string, at: number): boolean => measureText(text, 'textStrong', at) <= room;
  const fitting = parts.map((_, from) => parts.slice(from).join(' › ')).find((text) => fits(text, size));
  if (fitting !== undefined) return { text: fitting, size };
  const last = parts.at(-1) ?? title;
  const shrunk = size * Math.max(leastShrunk, room / measureText(last, 'textStrong', size));
  return fits(last, shrunk)
    ? { text: last, size: shrunk }
    : { text: fitText(last, 'textStrong', size, room), size };
}

/** What a subnet of a cloud is to the internet, by the line around it: as on the picture of its network. */
const natureLines: Record<
  NonNullable<Container['nature']>,
  { dash?: string; width: number; twice?: true }
> = {
  open: { dash: '2 3', width: 2 },
  'outward only': { dash: '8 4', width: 1.5 },
  closed: { width: 1.2, twice: true },
  unknown: { width: 1 },
};
/** Parts of a cloud are told apart by how heavy their outline is: an account most. */
const outlineWidths: Partial<Record<Container['form'], number>> = { account: 2, region: 1.5, network: 1.75 };

/** The line around a container. */
function Outline({ container, tokens }: { container: Container; tokens: Tokens }): ReactElement {
  const { form, nature, box } = container;
  const line = nature === undefined ? null : natureLines[nature];
  const cloud = form === 'account' || form === 'region' || form === 'network';
  const colour =
    nature === 'unknown'
      ? tokens.bad
      : nature !== undefined || cloud || form === 'zone'
        ? tokens.inkSoft
        : tokens.rule;
  return (
    <>
      <rect
        width={box.width}
        height={box.height}
        rx={4}
        fill={form === 'rack' ? tokens.hatch : nature === undefined ? tokens.container : tokens.ground}
        fillOpacity={form === 'rack' ? 0.6 : form === 'zone' ? 0 : 1}
        stroke={colour}
        strokeWidth={line?.width ?? outlineWidths[form] ?? 1}
        strokeDasharray={line?.dash ?? (form === 'zone' ? '1 3' : undefined)}
      />
      {line?.twice === true && (
        <rect
          x={3}
          y={3}
          width={box.width - 6}
          height={box.height - 6}
          rx={2.5}
          fill="none"
          stroke={colour}
          strokeWidth={line.width}
        />
      )}
    </>
  );
}

/** The outline of a place or rack with its title, which can be read at any zoom as far as it fits. */
export function ContainerShape({
  container,
  tokens,
  zoom = 1,
}: {
  container: Container;
  tokens: Tokens;
  zoom?: number;
}): ReactElement {
  const { width } = container.box;
  const wanted = Math.min(largestTitle, Math.max(titleSize, leastTitlePx / zoom));
  const { text, size } = titleThatFits(container.title, wanted, width - 14);
  return (
    <g opacity={container.faded ? 0.4 : undefined}>
      <Outline container={container} tokens={tokens} />
      <text
        x={10}
        y={3 + 0.95 * wanted}
        fontFamily={fonts.text}
        fontWeight={600}
        fontSize={size}
        fill={tokens.inkSoft}
      >
        {text}
      </text>
    </g>
  );
}

const keyRowHeight = 20;
const keyColumnWidth = 168;
const keyHead = 30;
/** How large the key is with its entries in so many columns. */
export const keySize = (entries: readonly KeyEntry[], columns = 1): { width: number; height: number } => ({
  width: columns * keyColumnWidth,
  height: keyHead + Math.ceil(entries.length / columns) * keyRowHeight,
});

/** What the strokes and codes on this sheet mean: only those that are on it. */
export function KeyShape({
  entries,
  tokens,
  columns = 1,
}: {
  entries: readonly KeyEntry[];
  tokens: Tokens;
  columns?: number;
}): ReactElement {
  const rows = Math.ceil(entries.length / columns);
  return (
    <g>
      <rect {...keySize(entries, columns)} rx={3} fill={tokens.surface} stroke={tokens.rule} />
      <text x={12} y={19} fontFamily={fonts.text} fontWeight={600} fontSize={12} fill={tokens.ink}>
        Key
      </text>
      {entries.map((entry, at) => {
        const y = keyHead + (at % rows) * keyRowHeight + 8;
        const x = Math.floor(at / rows) * keyColumnWidth;
        return (
          <g key={`${entry.form}${entry.text}`} transform={x === 0 ? undefined : `translate(${x} 0)`}>
            {entry.shade !== undefined && (
              <rect x={18} y={y - 7} width={20} height={14} rx={2} fill={shadeColour(tokens, entry.shade)} />
            )}
            {entry.medium !== undefined && (
              <MediumStroke
                path={`M12 ${y}H44`}
                medium={entry.medium}
                many={false}
                colour={tokens.ink}
                paper={tokens.surface}
              />
            )}
            {entry.form === 'bundle' && (
              <path d={`M12 ${y}H44`} stroke={tokens.ink} strokeWidth={trunkWidth} />
            )}
            {entry.role !== undefined && (
              <>
                <rect
                  x={18}
                  y={y - 7}
                  width={20}
                  height={14}
                  rx={2}
                  fill={tokens.family[roles[entry.role].family]}
                />
                <text
                  x={28}
                  y={y + 3.6}
                  textAnchor="middle"
                  fontFamily={fonts.mono}
                  fontWeight={600}
                  fontSize={10}
                  fill={tokens.tabInk}
                >
                  {entry.role}
                </text>
              </>
            )}
            <text x={54} y={y + 4} fontFamily={fonts.text} fontSize={12} fill={tokens.inkSoft}>
              {fitText(entry.text, 'text', 12, keyColumnWidth - 60)}
            </text>
          </g>
        );
      })}
    </g>
  );
}

export const titleBlockHeight = 64;

/** Who, what and when, at the lower right of a printed sheet. */
export function TitleBlockShape({ block, tokens }: { block: TitleBlock; tokens: Tokens }): ReactElement {
  const width = titleBlockWidth(block);
  const facts = [block.scope, `${block.revision} · ${block.date}`].join('   ');
  return (
    <g>
      <rect width={width} height={titleBlockHeight} fill={tokens.surface} stroke={tokens.ink} />
      <rect width={6} height={titleBlockHeight} fill={tokens.accent} />
      <text x={18} y={20} fontFamily={fonts.text} fontSize={11} fill={tokens.inkSoft}>
        {block.project}
      </text>
      <text x={18} y={38} fontFamily={fonts.text} fontWeight={600} fontSize={15} fill={tokens.ink}>
        {block.title}
      </text>
      <text x={18} y={54} fontFamily={fonts.mono} fontSize={10.5} fill={tokens.inkSoft} xmlSpace="preserve">
        {facts}
      </text>
    </g>
  );
}
export const titleBlockWidth = (block: TitleBlock): number =>
  Math.max(
    240,
    measureText(block.title, 'textStrong', 15) + 36,
    measureText(`${block.scope}   ${block.revision} · ${block.date}`, 'mono', 10.5) + 36,
  );

/** The whole scene: what an export holds, and what the screen shows piece by piece. */
export function Diagram({ scene, tokens }: { scene: Scene; tokens: Tokens }): ReactElement {
  const marks = (behind: boolean): ReactElement[] =>
    scene.marks
      .filter((mark) => mark.level < 0 === behind)
      .map((mark) => (
        <g key={mark.id}>
          <title>{mark.spoken}</title>
          <MarkShape mark={mark} tokens={tokens} />
        </g>
      ));
  return (
    <g>
      {scene.containers.map((container) => (
        <g key={container.id} transform={`translate(${container.box.x} ${container.box.y})`}>
          <ContainerShape container={container} tokens={tokens} />
        </g>
      ))}
      {marks(true)}
      {scene.plates.map((plate) => (
        <g key={plate.id} transform={`translate(${plate.box.x} ${plate.box.y})`}>
          <title>{plate.spoken}</title>
          <PlateShape plate={plate} tokens={tokens} />
        </g>
      ))}
      {scene.bundles.map((bundle) => (
        <g key={bundle.id}>
          <title>{bundle.spoken}</title>
          <BundleShape bundle={bundle} tokens={tokens} />
        </g>
      ))}
      {scene.links.map((link) => (
        <g key={link.id}>
          <title>{link.spoken}</title>
          <LinkShape link={link} tokens={tokens} />
        </g>
      ))}
      <TieShapes links={scene.links} tokens={tokens} />
      {scene.stubs.map((stub) => (
        <g key={stub.id}>
          <title>{stub.spoken}</title>
          <StubShape stub={stub} tokens={tokens} />
        </g>
      ))}
      {marks(false)}
    </g>
  );
}
