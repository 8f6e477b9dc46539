import type { Scene } from '@visograph/core/sheets';
import { useReactFlow, useStoreApi } from '@xyflow/react';
import { useEffect } from 'react';

/** What is selected elsewhere, by searching or in the rows, is brought into view where it is not. */
export function useFollowing(scene: Scene, lit: ReadonlySet<string>): void {
  const { setCenter } = useReactFlow();
  const store = useStoreApi();
  useEffect(() => {
    const box = scene.plates.find((plate) => lit.has(plate.id))?.box;
    const { transform, width, height } = store.getState();
    const [x, y, zoom] = transform;
    if (box === undefined || lit.size !== 1 || width === 0) return;
    const [left, top] = [box.x * zoom + x, box.y * zoom + y];
    const seen = left + box.width * zoom > 0 && top + box.height * zoom > 0 && left < width && top < height;
    if (!seen) void setCenter(box.x + box.width / 2, box.y + box.height / 2, { zoom });
    // Only a new selection moves the view, not every new scene.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [[...lit].join(' ')]);
}
