import type { PartsList } from '@visograph/core/model';
import { beginPartsList, partsOf, toOrder } from '@visograph/core/purchase';
import { useDeferredValue, useMemo, type ReactNode } from 'react';
import { useFindings } from '../../data/findings.ts';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { useShown } from '../../data/shown.ts';
import { Button } from '../../kit/controls.tsx';
import { SideList } from '../../kit/list/SideList.tsx';
import { Empty } from '../../kit/panel/panels.tsx';
import { Halves, Main } from '../layout.tsx';
import { today } from '../../data/today.ts';
import { useDo } from '../../data/useDo.ts';
import { usePurchaseAddress } from '../usePurchaseAddress.ts';
import { PartsListView } from './PartsListView.tsx';

/** Parts lists of the project, the open one worked out as the network is now. */
export function PartsLists(): ReactNode {
  const { view, canEdit } = useProject();
  const shown = useShown();
  const network = useDeferredValue(shown);
  const { scopeId } = useWhereabouts();
  const { open, set } = usePurchaseAddress();
  const act = useDo();
  const lists = useMemo(
    () => [...network.all('partsList')].sort((a, b) => a.name.localeCompare(b.name, 'en')),
    [network],
  );
  const list: PartsList | null = lists.find(({ id }) => id === open) ?? lists[0] ?? null;
  const judged = useFindings();
  const answer = useMemo(() => (list === null ? null : partsOf(network, list, today())), [network, list]);
  const concerns = useMemo(
    () =>
      list === null || answer === null
        ? null
        : toOrder(network, list, answer, today(), judged?.review.open ?? []),
    [network, list, answer, judged],
  );
  const begin = (): void => {
    const attempt = beginPartsList(view.network, { scopeId });
    if (act(attempt)) set({ open: attempt.id });
  };
  return (
    <Halves>
      {lists.length > 0 && (
        <SideList
          label="Parts lists"
          chosen={list?.id ?? null}
          onOpen={(id) => set({ open: id, sel: null })}
          groups={[
            {
              title: 'Of this project',
              items: lists.map(({ id, name }) => ({ id, text: name, detail: name })),
            },
          ]}
        >
          {canEdit && <Button onPress={begin}>Begin a parts list</Button>}
        </SideList>
      )}
      <Main>
        {list === null || answer === null || concerns === null ? (
          <Empty title="No parts list yet">
            A parts list says what a place, a kit or chosen devices come to: what is in place, what is
            planned, and what of it is to be bought.
            {canEdit && (
              <Button $tone="primary" onPress={begin}>
                Begin a parts list
              </Button>
            )}
          </Empty>
        ) : (
          <PartsListView key={list.id} {...{ list, network, answer, concerns }} checking={judged === null} />
        )}
      </Main>
    </Halves>
  );
}
