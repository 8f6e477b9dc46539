import type { ExchangeFile, PrintedLabelEntry } from '../../exchange/format.ts';
import { rowsByTitle, titleOf } from '../../exchange/sections.ts';
import { sparse } from '../../exchange/sparse.ts';
import type { Staging } from '../../exchange/staging.ts';
import { kinds, type Kind } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import { compareNames } from '../../model/values/order.ts';

/** What was printed, by kind and name of the thing. */
export const printedLabelEntries = (network: Network): PrintedLabelEntry[] =>
  [...network.all('printedLabel')]
    .map(({ subjectKind, subjectId, side, text, printedOn }): PrintedLabelEntry => ({
      of: subjectKind,
      name: titleOf(network, subjectKind, subjectId) ?? '',
      ...sparse({ end: side }),
      text,
      on: printedOn,
    }))
    .sort(
      (a, b) =>
        compareNames(a.of, b.of) || compareNames(a.name, b.name) || compareNames(a.end ?? '', b.end ?? ''),
    );

/** Reads them after the things that they are stuck to. */
export function readPrintedLabels(staging: Staging, { printedLabels = [] }: ExchangeFile): void {
  const titles = new Map<Kind, Map<string, string | null>>();
  printedLabels.forEach(({ of, name, end = null, text, on }, index) => {
    const known = titles.get(of) ?? rowsByTitle(staging.network, of);
    titles.set(of, known);
    const id = known.get(name.toLowerCase());
    const path = `$.printedLabels[${index}]`;
    if (id == null) {
      staging.problem(
        `${path}.name`,
        id === undefined
          ? `There is no ${kinds[of].one} “${name}”. Add it, or correct the name.`
          : `There are two ${kinds[of].many} “${name}”. Rename one of them.`,
      );
      return;
    }
    const existing = staging.network.find('printedLabelsBySubject', id).find(({ side }) => side === end);
    staging.put(
      'printedLabel',
      { id: existing?.id ?? newId(), subjectKind: of, subjectId: id, side: end, text, printedOn: on },
      path,
    );
  });
}
