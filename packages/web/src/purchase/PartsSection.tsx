import { count, type Counted } from './counts.ts';
import type { ReactNode } from 'react';
import { useShown } from '../data/shown.ts';
import { Views } from '../kit/Views.tsx';
import { Work, WorkHead } from '../kit/panel/panels.tsx';
import { LicencesView } from './LicencesView.tsx';
import { PartsLists } from './lists/PartsLists.tsx';
import { PricesView } from './prices/PricesView.tsx';
import { Quotations } from './quotations/Quotations.tsx';
import { StockView } from './stock/StockView.tsx';
import { purchaseViews, usePurchaseAddress, type PurchaseView } from './usePurchaseAddress.ts';

const counted: Record<PurchaseView, Counted> = {
  lists: ['partsList', 'list', 'lists'],
  stock: ['stock', 'line', 'lines'],
  licences: ['heldLicence', 'certificate', 'certificates'],
  prices: ['priceList', 'price list', 'price lists'],
  quotations: ['quotation', 'quotation', 'quotations'],
};

/** What the network comes to when it is bought: parts lists, stock, licences, prices, quotations. */
export default function PartsSection(): ReactNode {
  const network = useShown();
  const { view, set } = usePurchaseAddress();
  return (
    <Work>
      <WorkHead>
        <h1>Parts</h1>
        <p>{count(network, counted[view])}</p>
        <div>
          <Views
            views={purchaseViews}
            shown={view}
            onShow={(next) => set({ view: next, open: null, sel: null })}
          />
        </div>
      </WorkHead>
      {view === 'lists' && <PartsLists />}
      {view === 'stock' && <StockView />}
      {view === 'licences' && <LicencesView />}
      {view === 'prices' && <PricesView />}
      {view === 'quotations' && <Quotations />}
    </Work>
  );
}
