import { placePath, type Sheet } from '@visograph/core';
import type { ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { Card, EditableFact, Facts, Head } from './parts.tsx';
import { RowHistory } from './RowHistory.tsx';

export function SheetRecord({ sheet }: { sheet: Sheet }): ReactNode {
  const { view } = useProject();
  return (
    <>
      <Head>
        <h2>{sheet.name}</h2>
        <p>{`${sheet.projection} sheet · ${placePath(view.network, sheet.scopeId).replaceAll('/', ' › ') || 'All sites'}`}</p>
      </Head>
      <Card title="Facts">
        <Facts>
          <EditableFact kind="sheet" row={sheet} field="name" optional={false} />
        </Facts>
      </Card>
      <RowHistory rowId={sheet.id} />
    </>
  );
}
