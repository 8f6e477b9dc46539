import { roles } from '../../model/values/roles.ts';
import type { GraphNode } from '../graph/sheetGraph.ts';
import type { DrawingPlan } from './drawingPlan.ts';
import type { Box, Plate } from './scene.ts';

/** A plate as it is drawn, with what a screen reader says of it. */
export function plateOf(plan: DrawingPlan, node: GraphNode, box: Box, links: number): Plate {
  const many = node.form === 'fold' ? `${node.deviceIds.length} ` : '';
  const what =
    node.form === 'place' || node.form === 'provider' || node.form === 'subnet'
      ? node.form
      : roles[node.role].label;
  const manner = node.base === true ? plan.manners.containers : plan.manners.devices;
  return {
    id: node.id,
    form: node.form,
    deviceIds: node.deviceIds,
    subjects: node.subjects,
    role: node.role,
    code: node.code,
    shade: node.shade,
    symbol: node.symbol,
    name: node.name,
    lines: node.lines,
    ...(node.chips === undefined ? {} : { chips: node.chips }),
    box,
    planned: node.planned,
    retired: node.retired,
    ...(node.picks === undefined ? {} : { picks: node.picks }),
    faded: manner === 'faded' || node.dim === true || plan.faded.has(node.id),
    locked: manner === 'locked' || node.subjects.length === 0 || plan.plates.get(node.id)?.locked === true,
    sheetId: node.sheetId,
    spoken: [`${many}${node.name}`, what, `${links} ${links === 1 ? 'link' : 'links'}`]
      .filter((part) => part !== '')
      .join(', '),
  };
}
