import { useReactFlow } from '@xyflow/react';
import { useMemo } from 'react';
import { boxAround, type Box } from '@visograph/core/sheets';

/** More than this nothing is enlarged when all of a drawing is brought into view, or a part of it. */
const mostForAll = 1.1;
const mostForPart = 1.4;

/** Ways to bring all of a drawing, or some boxes of it, into view, without enlarging it beyond what reads well. */
export function useFit(): {
  all: (box: Box) => Promise<void>;
  part: (boxes: readonly Box[]) => Promise<void>;
} {
  const { fitBounds, getZoom, setCenter } = useReactFlow();
  return useMemo(() => {
    const fit = async ({ x, y, width, height }: Box, padding: number, most: number): Promise<void> => {
      await fitBounds({ x, y, width, height }, { padding });
      if (getZoom() > most) await setCenter(x + width / 2, y + height / 2, { zoom: most });
    };
    return {
      all: (box) => fit(box, 0.02, mostForAll),
      part: async (boxes) => {
        if (boxes.length > 0) await fit(boxAround(boxes), 0.6, mostForPart);
      },
    };
  }, [fitBounds, getZoom, setCenter]);
}
