import type { Scene } from '@visograph/core/sheets';
import type { ReactNode } from 'react';
import { LinkFacts } from './LinkFacts.tsx';
import { PlateFacts } from './PlateFacts.tsx';
import type { FactsShown } from './useFacts.ts';

/** The facts of what was pressed twice, beside it. */
export function FactsPanel({
  facts,
  scene,
  onClose,
}: {
  facts: FactsShown;
  scene: Scene;
  onClose: () => void;
}): ReactNode {
  const { at, avoid } = facts;
  if (facts.of === 'plates') {
    const key = facts.plates.map(({ id }) => id).join();
    const { plates, fact } = facts;
    return <PlateFacts key={key} plates={plates} fact={fact} at={at} avoid={avoid} onClose={onClose} />;
  }
  const { link, part } = facts;
  return (
    <LinkFacts
      key={`${link.line.id} ${part}`}
      link={link}
      part={part}
      scene={scene}
      at={at}
      avoid={avoid}
      onClose={onClose}
    />
  );
}
