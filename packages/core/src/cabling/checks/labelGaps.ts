import { missingCableLabels } from '../labelSeries.ts';
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
});
