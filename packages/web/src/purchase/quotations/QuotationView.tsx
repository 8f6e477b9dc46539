import { quotationKind, type Network, type Quotation } from '@visograph/core/model';
import {
  issueQuotation,
  quoteAnew,
  removeQuotation,
  reviseQuotation,
  totalsOf,
} from '@visograph/core/purchase';
import { useMemo, useState, type ReactNode } from 'react';
import { addressOf } from '../../data/api.ts';
import { useProject } from '../../data/project.tsx';
import { useMeantQuery } from '../../data/shown.ts';
import { Button } from '../../kit/controls.tsx';
import { Bar, Halves, Main } from '../layout.tsx';
import { today } from '../../data/today.ts';
import { useDo } from '../../data/useDo.ts';
import { usePurchaseAddress } from '../usePurchaseAddress.ts';
import { Differences } from './Differences.tsx';
import { QuotationHead } from './QuotationHead.tsx';
import { QuotationLines } from './QuotationLines.tsx';
import { Sums } from './Sums.tsx';

/** One quotation: its lines, its sums, and who it is for. A draft is written in; what is issued is only read. */
export function QuotationView({ row, network }: { row: Quotation; network: Network }): ReactNode {
  const { project, view, canEdit } = useProject();
  const meant = useMeantQuery();
  const { set } = usePurchaseAddress();
  const act = useDo();
  const [comparing, setComparing] = useState(false);
  const totals = useMemo(() => totalsOf(row), [row]);
  const before = useMemo(
    () =>
      network
        .find('quotationsByNumber', row.number.toLowerCase())
        .filter(({ revision }) => revision < row.revision)
        .sort((a, b) => b.revision - a.revision)[0] ?? null,
    [network, row],
  );
  const draft = row.status === 'draft';
  const writes = canEdit && draft;
  const list = network.get('partsList', row.partsListId);
  const address = (format: string): string =>
    addressOf('GET /projects/:project/quotation', {
      params: { project: project.id },
      query: { ...meant, number: row.number, revision: String(row.revision), format },
    });
  return (
    <>
      <Bar>
        <p>
          <strong>{quotationKind.nameOf(row)}</strong>
          {` · ${draft ? 'draft' : 'issued'} · ${row.title}${list === null ? '' : ` · from ${list.name}`}`}
        </p>
        {before !== null && (
          <Button aria-pressed={comparing} onPress={() => setComparing((on) => !on)}>
            {comparing ? 'Close the differences' : `Against revision ${before.revision}`}
          </Button>
        )}
        {writes && list !== null && (
          <Button onPress={() => act(quoteAnew(view.network, row, today()))}>Write anew from the list</Button>
        )}
        {(['pdf', 'xlsx'] as const).map((format) => (
          <Button key={format} onPress={() => window.location.assign(address(format))}>
            {`Save ${format.toUpperCase()}`}
          </Button>
        ))}
        {canEdit && (
          <Button onPress={() => act(removeQuotation(view.network, row)) && set({ open: null })}>
            Delete
          </Button>
        )}
        {writes && (
          <Button $tone="primary" onPress={() => act(issueQuotation(view.network, row))}>
            Issue it
          </Button>
        )}
        {canEdit && !draft && (
          <Button
            onPress={() => {
              const attempt = reviseQuotation(view.network, row, today());
              if (act(attempt)) set({ open: attempt.id });
            }}
          >
            Make a revision
          </Button>
        )}
      </Bar>
      <Halves>
        <Main>
          {comparing && before !== null && <Differences before={before} after={row} />}
          <QuotationLines row={row} writes={writes} />
          <Sums row={row} totals={totals} />
        </Main>
        <QuotationHead row={row} network={network} writes={writes} totals={totals} />
      </Halves>
    </>
  );
}
