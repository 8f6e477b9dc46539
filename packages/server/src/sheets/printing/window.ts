import { boxAround, overlap, type Box, type Point, type Scene } from '@visograph/core/sheets';

const around = (points: readonly Point[]): Box =>
  boxAround(
    points.map((point) => ({ ...point, width: 0, height: 0 })),
    2,
  );

/** What of a scene is seen in a part of it: a page of several need not hold what lies on the others. */
export function withinWindow(scene: Scene, window: Box): Scene {
  const seen = (box: Box): boolean => overlap(box, window, 40);
  return {
    ...scene,
    containers: scene.containers.filter((container) => seen(container.box)),
    plates: scene.plates.filter((plate) => seen(plate.box)),
    links: scene.links.filter(
      (link) => seen(around(link.points)) || (link.label !== null && seen(link.label.box)),
    ),
    bundles: scene.bundles.filter(({ trunk }) => trunk.some((piece) => seen(around(piece)))),
    stubs: scene.stubs.filter(
      (stub) => seen(around([stub.a.at, stub.to])) || (stub.label !== null && seen(stub.label.box)),
    ),
    marks: scene.marks.filter((mark) => seen(mark.box) || seen(around([...mark.points, ...mark.leader]))),
  };
}
