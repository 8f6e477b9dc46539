import type { LinkEnd, Point, Scene, SceneLink } from '../scene/scene.ts';

const move = (end: LinkEnd, by: Point): LinkEnd => ({
  ...end,
  at: { x: end.at.x + by.x, y: end.at.y + by.y },
  label:
    end.label === null
      ? null
      : { ...end.label, box: { ...end.label.box, x: end.label.box.x + by.x, y: end.label.box.y + by.y } },
});

const reach = 24;
const away = (end: LinkEnd): Point => {
  const out = { top: { x: 0, y: -1 }, bottom: { x: 0, y: 1 }, left: { x: -1, y: 0 }, right: { x: 1, y: 0 } }[
    end.side
  ];
  return { x: end.at.x + out.x * reach, y: end.at.y + out.y * reach };
};

function elbow(link: SceneLink, a: LinkEnd, b: LinkEnd): SceneLink {
  const from = away(a);
  const to = away(b);
  const upright = a.side === 'top' || a.side === 'bottom';
  const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
  const turns = upright
    ? [
        { x: from.x, y: middle.y },
        { x: to.x, y: middle.y },
      ]
    : [
        { x: middle.x, y: from.y },
        { x: middle.x, y: to.y },
      ];
  const points = [a.at, from, ...turns, to, b.at];
  return { ...link, a, b, points, drawn: points, bundleId: null, label: null };
}

/**
 * The scene while plates are being dragged: they and the ends of their links are where the hand is, their links
 * as plain elbows, everything else as it was. Cheap enough for every frame; the drop is routed properly.
 */
export function dragScene(scene: Scene, moved: ReadonlyMap<string, Point>): Scene {
  const shift = new Map<string, Point>();
  const plates = scene.plates.map((plate) => {
    const to = moved.get(plate.id);
    if (to === undefined) return plate;
    shift.set(plate.id, { x: to.x - plate.box.x, y: to.y - plate.box.y });
    return { ...plate, box: { ...plate.box, ...to } };
  });
  const links = scene.links.map((link) => {
    const a = shift.get(link.a.plateId);
    const b = shift.get(link.b.plateId);
    if (a === undefined && b === undefined) return link;
    return elbow(
      link,
      a === undefined ? link.a : move(link.a, a),
      b === undefined ? link.b : move(link.b, b),
    );
  });
  // A bundle is drawn from where its hub was until that is let go.
  const bundles = scene.bundles.filter(({ hubId }) => !shift.has(hubId));
  return { ...scene, plates, links, bundles };
}
