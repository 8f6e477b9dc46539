import { update } from '../../change/change.ts';
import { judged } from '../../commands/attempt.ts';
import { lastOfSeries, missingCableLabels } from '../labelSeries.ts';
import { defineRule } from '../../check/finding.ts';

/** Labels of one prefix count without gaps. */
export const labelGaps = defineRule({
  key: 'label-gap',
  title: 'Label number missing from its sequence',
  why: 'A number missing from a sequence is a cable that was removed without a word, or one that is there and not in the document.',
  standard: 'ISO/IEC 14763-2; TIA-606',
  looksAt: 'all',
  reads: { cable: ['label'] },
  find: (network) =>
    missingCableLabels(network).map((label) => ({
      severity: 'warn' as const,
      subjects: [],
      facts: { label },
    })),
  says: ({ label }) =>
    `No cable has the label ${label}, although later numbers are in use. Find the cable, or note why the number was given up.`,
  about: ({ label }) => [`cable ${label}`],
  mends: ({ label }, network) => {
    const last = network.findOne('cableByLabel', (lastOfSeries(network, label) ?? '').toLowerCase());
    const change = last === null ? null : update('cable', last, { label });
    if (last === null || change === null) return [];
    return [
      {
        wish: `Label ${last.label}, the last of the sequence, ${label} instead`,
        attempt: judged(network, [change], `Relabelled ${last.label} to ${label}, which was missing`),
      },
    ];
  },
});
