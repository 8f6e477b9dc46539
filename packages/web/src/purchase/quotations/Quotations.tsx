import { compareNames, quotationKind, type Quotation } from '@visograph/core/model';
import { beginQuotation } from '@visograph/core/purchase';
import { useMemo, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { useShown } from '../../data/shown.ts';
import { Button } from '../../kit/controls.tsx';
import { SideList } from '../../kit/list/SideList.tsx';
import { Empty } from '../../kit/panel/panels.tsx';
import { Halves, Main } from '../layout.tsx';
import { today } from '../../data/today.ts';
import { useDo } from '../../data/useDo.ts';
import { usePurchaseAddress } from '../usePurchaseAddress.ts';
import { QuotationView } from './QuotationView.tsx';

/** Quotations of the project, drafts first, the open one beside. */
export function Quotations(): ReactNode {
  const { view, canEdit } = useProject();
  const network = useShown();
  const { open, set } = usePurchaseAddress();
  const act = useDo();
  const all = useMemo(
    () =>
      [...network.all('quotation')].sort(
        (a, b) => compareNames(b.number, a.number) || b.revision - a.revision,
      ),
    [network],
  );
  const row = all.find(({ id }) => id === open) ?? all[0] ?? null;
  const begin = (): void => {
    const attempt = beginQuotation(view.network, null, today());
    if (act(attempt)) set({ open: attempt.id });
  };
  const group = (title: string, status: Quotation['status']) => ({
    title,
    items: all
      .filter((one) => one.status === status)
      .map((one) => ({ id: one.id, text: quotationKind.nameOf(one), detail: one.title })),
  });
  return (
    <Halves>
      {all.length > 0 && (
        <SideList
          label="Quotations"
          chosen={row?.id ?? null}
          onOpen={(id) => set({ open: id })}
          groups={[group('Drafts', 'draft'), group('Issued', 'issued')].filter(
            ({ items }) => items.length > 0,
          )}
        >
          {canEdit && <Button onPress={begin}>Begin a quotation</Button>}
        </SideList>
      )}
      <Main>
        {row === null ? (
          <Empty title="No quotation yet">
            A quotation is written from a parts list, or begun with nothing in it. Once issued it stays as it
            is.
            {canEdit && (
              <>
                <Button $tone="primary" onPress={() => set({ view: 'lists' })}>
                  To the parts lists
                </Button>
                <Button onPress={begin}>Begin an empty one</Button>
              </>
            )}
          </Empty>
        ) : (
          <QuotationView key={row.id} row={row} network={network} />
        )}
      </Main>
    </Halves>
  );
}
