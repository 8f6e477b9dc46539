import type { ArrowKind } from '@visograph/core/model';

/** What the arrows of a cloud sheet tell. */
export const arrowWords: Record<ArrowKind, string> = {
  routes: 'Where packets are sent',
  rules: 'Who may call whom',
  none: 'None',
};
