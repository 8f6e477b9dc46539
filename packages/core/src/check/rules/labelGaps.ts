import { missingLabels } from '../../cabling/labels.ts';
import type { Rule } from '../finding.ts';

/** Labels of one prefix count without gaps. */
export const labelGaps: Rule = {
  key: 'label-gap',
  title: 'Label number missing from its sequence',
  reads: 'all',
  find: (network) => {
    const byPrefix = new Map<string, string[]>();
    for (const cable of network.all('cable')) {
      const prefix = /^(.*?)\d+$/.exec(cable.label)?.[1];
      if (prefix === undefined) continue;
      const labels = byPrefix.get(prefix);
      if (labels === undefined) byPrefix.set(prefix, [cable.label]);
      else labels.push(cable.label);
    }
    return [...byPrefix.values()].flatMap((labels) =>
      missingLabels(labels).map((label) => ({
        rule: 'label-gap',
        severity: 'warn' as const,
        about: [`cable ${label}`],
        rows: [],
        message: `No cable has the label ${label}, although later numbers are in use. Find the cable, or note why the number was given up.`,
      })),
    );
  },
};
