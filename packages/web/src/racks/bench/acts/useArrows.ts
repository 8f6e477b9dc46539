import { type Attempt } from '@visograph/core/commands';
import { freePositions, moveBlock, tryMove } from '@visograph/core/racks';
import type { KeyboardEvent } from 'react';
import { useProject } from '../../../data/project.tsx';
import { useBench } from '../bench.tsx';
import type { RackSpot } from '../benchLayout.ts';

/**
 * Arrow keys on a chosen device: up and down to the next place where it fits, left and right into the next rack.
 * Several chosen devices move together by one unit.
 */
export function useArrows(spots: readonly RackSpot[]): (event: KeyboardEvent, deviceId: string) => void {
  const { view, commit, canEdit, sync } = useProject();
  const { chosen } = useBench();
  const { network } = view;
  return (event, deviceId) => {
    const device = network.get('device', deviceId);
    const rack = network.get('rack', device?.rackId ?? null);
    if (!event.key.startsWith('Arrow') || !chosen.has(deviceId) || device === null || rack === null) return;
    event.preventDefault();
    event.stopPropagation();
    if (!canEdit) return;
    const keep = (attempt: Attempt): void => {
      if (!attempt.ok) sync.announce({ tone: 'bad', text: `${attempt.why}.` });
      else if (attempt.set.changes.length > 0) commit(attempt.set);
    };
    const together = [...chosen].flatMap((id) => network.get('device', id) ?? []);
    const sideways = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
    if (sideways !== 0) {
      const at = spots.findIndex((spot) => spot.rack.id === rack.id);
      const next = spots[at + sideways]?.rack;
      if (next === undefined)
        return sync.announce({
          tone: 'bad',
          text: 'There is no rack on that side. Show the whole room first.',
        });
      if (together.length > 1) return keep(moveBlock(network, together, { units: 0, rackId: next.id }));
      const free = freePositions(network, next, device);
      const nearest = [...free].sort(
        (a, b) => Math.abs(a - (device.unit ?? 1)) - Math.abs(b - (device.unit ?? 1)),
      )[0];
      if (nearest === undefined && device.units > 0)
        return sync.announce({ tone: 'bad', text: `${next.name} has no free place for ${device.name}.` });
      return keep(
        tryMove(network, device, { rackId: next.id, unit: device.units === 0 ? null : (nearest ?? null) }),
      );
    }
    if (device.unit === null) return;
    const step = (event.key === 'ArrowUp') === (rack.numbering === 'up') ? 1 : -1;
    if (together.length > 1) return keep(moveBlock(network, together, { units: step }));
    const free = freePositions(network, rack, device, device.id)
      .filter((unit) => (unit - (device.unit ?? 0)) * step > 0)
      .sort((a, b) => (a - b) * step);
    const [next] = free;
    if (next === undefined)
      return sync.announce({
        tone: 'bad',
        text: `${device.name} has no free place further ${event.key === 'ArrowUp' ? 'up' : 'down'}.`,
      });
    keep(tryMove(network, device, { rackId: rack.id, unit: next }));
  };
}
