import type { Sheet } from '@visograph/core/model';
import type { Box, Container, Plate, Point, Scene, SceneMark } from '@visograph/core/sheets';
import { ContainerShape, MarkShape, PlateShape, type Detail } from '@visograph/drawing';
import { NodeResizer, useStore, type Node, type NodeProps } from '@xyflow/react';
import { createContext, memo, useContext, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useTheme } from '../../theme/theme.tsx';
import { CornerGrips } from './CornerGrips.tsx';

/** Below these zooms text cannot be read: first lines and labels go, then names. */
const namesOnlyBelow = 0.55;
const tabsOnlyBelow = 0.16;
export const detailAt = (zoom: number): Detail =>
  zoom < tabsOnlyBelow ? 'tab' : zoom < namesOnlyBelow ? 'name' : 'full';

/** Below this zoom ports and the numbers of cables cannot be read: they are left out but of what is chosen. */
const labelsFrom = 0.8;
/** What switching and routing sheets are about is written along their links: it is told for as long as it can be. */
const factsFrom = 0.55;
export const labelsAt = (zoom: number, projection: Sheet['projection']): boolean =>
  zoom >= (projection === 'cabling' ? labelsFrom : factsFrom);

/** A zoom at most as large, of few different ones, so that not everything is drawn anew with every turn of a wheel. */
export const steppedZoom = (zoom: number): number => 2 ** (Math.floor(Math.log2(zoom) * 6) / 6);

/** The plate whose name is being edited; text that was typed before its field was there. */
export interface Renaming {
  id: string;
  typed?: string;
}

/** What nodes can do to the sheet they stand on. */
export interface NodeActs {
  canEdit: boolean;
  rename: (plate: Plate, name: string) => void;
  renaming: Renaming | null;
  setRenaming: (renaming: Renaming | null) => void;
  resize: (markId: string, box: Box) => void;
  corners: (markId: string, points: Point[]) => void;
}
export const Acts = createContext<NodeActs | null>(null);

type PlateNode = Node<{ plate: Plate; lit: boolean }, 'plate'>;
type ContainerNode = Node<{ container: Container }, 'container'>;
type MarkNode = Node<{ mark: SceneMark }, 'mark'>;
export type SheetNode = PlateNode | ContainerNode | MarkNode;

export const containerNodeId = (id: string): string => `in:${id}`;
export const markNodeId = (id: string): string => `mark:${id}`;
export const markIdOf = (nodeId: string): string | null =>
  nodeId.startsWith('mark:') ? nodeId.slice('mark:'.length) : null;

const Rename = styled.input`
  position: absolute;
  left: 27px;
  top: 50%;
  transform: translateY(-50%);
  width: calc(100% - 31px);
  height: 22px;
  padding: 0 4px;
  font: inherit;
  font-weight: 600;
  border: 1px solid ${({ theme }) => theme.accent};
  border-radius: 2px;
  background: ${({ theme }) => theme.surface};
  color: ${({ theme }) => theme.ink};
`;
function RenameField({ plate, typed, acts }: { plate: Plate; typed?: string; acts: NodeActs }): ReactNode {
  const [name, setName] = useState(typed ?? plate.name);
  const keep = (): void => {
    acts.setRenaming(null);
    if (name.trim() !== '' && name.trim() !== plate.name) acts.rename(plate, name.trim());
  };
  return (
    <Rename
      className="nodrag nopan"
      aria-label={`Name of ${plate.name}`}
      autoFocus
      value={name}
      onFocus={(event) => typed === undefined && event.currentTarget.select()}
      onChange={(event) => setName(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter') keep();
        if (event.key === 'Escape') acts.setRenaming(null);
      }}
    />
  );
}

const PlateView = memo(function PlateView({ data, selected }: NodeProps<PlateNode>): ReactNode {
  const { tokens } = useTheme();
  const acts = useContext(Acts);
  const detail = useStore((state) => detailAt(state.transform[2]));
  const { plate, lit } = data;
  return (
    <>
      <svg width={plate.box.width} height={plate.box.height} aria-hidden="true">
        <PlateShape plate={plate} tokens={tokens} selected={lit || selected} detail={detail} />
      </svg>
      {acts?.renaming?.id === plate.id && (
        <RenameField plate={plate} typed={acts.renaming.typed} acts={acts} />
      )}
    </>
  );
});

const ContainerView = memo(function ContainerView({ data }: NodeProps<ContainerNode>): ReactNode {
  const { tokens } = useTheme();
  const zoom = useStore((state) => steppedZoom(state.transform[2]));
  return (
    <>
      <svg width={data.container.box.width} height={data.container.box.height} aria-hidden="true">
        <ContainerShape container={data.container} tokens={tokens} zoom={zoom} />
      </svg>
      <div
        className="container-title"
        title={data.container.sheetId === null ? '' : 'Double-click: its own sheet'}
      />
    </>
  );
});

const resizable: readonly SceneMark['form'][] = [
  'note',
  'callout',
  'rectangle',
  'ellipse',
  'enclosure',
  'picture',
  'dimension',
  'schedule',
];

const MarkView = memo(function MarkView({ data, selected }: NodeProps<MarkNode>): ReactNode {
  const { tokens } = useTheme();
  const acts = useContext(Acts);
  const { mark } = data;
  const { width, height } = mark.box;
  const enclosure = mark.form === 'enclosure';
  return (
    <>
      {selected && acts?.canEdit === true && !mark.locked && resizable.includes(mark.form) && (
        <NodeResizer
          minWidth={24}
          minHeight={16}
          color={tokens.accent}
          onResizeEnd={(_event, { x, y, width: wide, height: high }) =>
            acts.resize(mark.id, { x, y, width: wide, height: high })
          }
        />
      )}
      <svg
        width={Math.max(1, width)}
        height={Math.max(1, height)}
        viewBox={`${mark.box.x} ${mark.box.y} ${Math.max(1, width)} ${Math.max(1, height)}`}
        aria-hidden="true"
        className={selected ? 'chosen' : undefined}
      >
        <MarkShape mark={mark} tokens={tokens} />
        {selected && acts?.canEdit === true && !mark.locked && mark.points.length > 0 && (
          <CornerGrips mark={mark} onCorners={(points) => acts.corners(mark.id, points)} />
        )}
      </svg>
      {enclosure && <div className="container-title" />}
    </>
  );
});

export const nodeTypes = { plate: PlateView, container: ContainerView, mark: MarkView };

/** A scene as nodes of the surface: sizes are given, so that nothing has to be measured. */
export function nodesOf(scene: Scene, canEdit: boolean, lit: ReadonlySet<string>): SheetNode[] {
  const sized = (box: Box) => ({
    position: { x: box.x, y: box.y },
    width: box.width,
    height: box.height,
    measured: { width: box.width, height: box.height },
  });
  return [
    ...scene.containers.map((container): ContainerNode => ({
      id: containerNodeId(container.id),
      type: 'container',
      data: { container },
      ...sized(container.box),
      zIndex: container.parentId === null ? -3 : -2,
      selectable: false,
      focusable: false,
      draggable: canEdit && !container.locked,
      dragHandle: '.container-title',
      ariaLabel: container.title,
      ariaRole: 'group',
    })),
    ...scene.marks.map((mark): MarkNode => ({
      id: markNodeId(mark.id),
      type: 'mark',
      data: { mark },
      ...sized(mark.box),
      zIndex: mark.level < 0 ? -1 : 3,
      draggable: canEdit && !mark.locked,
      dragHandle: mark.form === 'enclosure' ? '.container-title' : undefined,
      className: mark.form === 'enclosure' ? 'enclosure' : undefined,
      ariaLabel: mark.spoken,
      ariaRole: 'button',
    })),
    ...scene.plates.map((plate): PlateNode => ({
      id: plate.id,
      type: 'plate',
      data: { plate, lit: lit.has(plate.id) },
      ...sized(plate.box),
      zIndex: 2,
      draggable: canEdit && !plate.locked,
      ariaLabel: plate.spoken,
      ariaRole: 'button',
    })),
  ];
}
