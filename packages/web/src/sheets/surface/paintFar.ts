import type { Point, Scene } from '@visograph/core/sheets';
import { shadeColour, type Tokens } from '@visograph/drawing';

/** Of the coloured tab of a plate, in sheet units. */
export const tabWidth = 28;
/** Below this zoom links are paler than what they join. */
const paleBelow = 0.18;

/** A scene as paths, to be painted at any zoom: plates as coloured tabs, links as hairlines, without texts. */
export interface FarPaths {
  scene: Scene;
  links: Path2D;
  /** The shared parts of bundles. */
  trunks: Path2D;
  bodies: Path2D;
  /** Tabs by their colour. */
  tabs: ReadonlyMap<string, Path2D>;
}

export function farPaths(scene: Scene, tokens: Tokens): FarPaths {
  const links = new Path2D();
  const trunks = new Path2D();
  const trace = (path: Path2D, points: readonly Point[]): void =>
    points.forEach(({ x, y }, at) => (at === 0 ? path.moveTo(x, y) : path.lineTo(x, y)));
  for (const { drawn } of scene.links) trace(links, drawn);
  for (const { trunk } of scene.bundles) for (const piece of trunk) trace(trunks, piece);
  const bodies = new Path2D();
  const tabs = new Map<string, Path2D>();
  for (const { box, shade } of scene.plates) {
    bodies.rect(box.x, box.y, box.width, box.height);
    const colour = shadeColour(tokens, shade);
    const path = tabs.get(colour) ?? new Path2D();
    path.rect(box.x, box.y, Math.min(tabWidth, box.width), box.height);
    tabs.set(colour, path);
  }
  return { scene, links, trunks, bodies, tabs };
}

/** Paints them on a canvas whose transform is that of the sheet already. */
export function paintPaths(
  context: CanvasRenderingContext2D,
  { scene, links, trunks, bodies, tabs }: FarPaths,
  tokens: Tokens,
  zoom: number,
): void {
  for (const { box } of scene.containers) {
    context.fillStyle = tokens.container;
    context.strokeStyle = tokens.rule;
    context.lineWidth = 1 / zoom;
    context.fillRect(box.x, box.y, box.width, box.height);
    context.strokeRect(box.x, box.y, box.width, box.height);
  }
  context.lineWidth = 0.7 / zoom;
  context.strokeStyle = tokens.inkSoft;
  context.globalAlpha = zoom < paleBelow ? 0.6 : 1;
  context.stroke(links);
  context.globalAlpha = 1;
  context.lineWidth = 1.6 / zoom;
  context.strokeStyle = tokens.ink;
  context.stroke(trunks);
  context.fillStyle = tokens.surface;
  context.fill(bodies);
  context.strokeStyle = tokens.rule;
  context.stroke(bodies);
  for (const [colour, path] of tabs) {
    context.fillStyle = colour;
    context.fill(path);
  }
}
