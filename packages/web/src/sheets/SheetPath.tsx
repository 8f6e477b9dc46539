import { byName, placeChain, type Network, type Sheet } from '@visograph/core/model';
import { useMemo, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useNetwork } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';

const Path = styled.nav`
  display: flex;
  align-items: center;
  gap: 5px;
  min-width: 0;
  white-space: nowrap;
  button {
    font: inherit;
    padding: 0 2px;
    border: 0;
    background: none;
    color: ${({ theme }) => theme.inkSoft};
    overflow: hidden;
    text-overflow: ellipsis;
    max-width: 132px;
    &:hover {
      color: ${({ theme }) => theme.accent};
      text-decoration: underline;
    }
  }
  > span {
    min-width: 0;
    flex: 0 1 auto;
    display: flex;
    gap: 5px;
    overflow: hidden;
  }
  h1 {
    flex: 0 1 auto;
    min-width: 76px;
    max-width: 250px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;

/** The sheets that this one lies in: of the places around its scope, from the outermost in. */
function outerSheets(network: Network, sheet: Sheet): Sheet[] {
  const chain = placeChain(network, sheet.scopeId);
  const scopes = sheet.scopeId === null ? [] : [null, ...chain.slice(0, -1).map((place) => place.id)];
  const all = [...network.all('sheet')].filter((one) => !one.picked && one.id !== sheet.id).sort(byName);
  return scopes.flatMap((scopeId) => {
    const there = all.filter((one) => one.scopeId === scopeId);
    const alike = [sheet.projection, 'sites', 'cabling'] as const;
    return alike.flatMap((projection) => there.filter((one) => one.projection === projection))[0] ?? [];
  });
}

/** Where the sheet stands among the sheets: each step leads back out. */
export function SheetPath({ sheet }: { sheet: Sheet }): ReactNode {
  const network = useNetwork();
  const { go } = useWhereabouts();
  const outer = useMemo(() => outerSheets(network, sheet), [network, sheet]);
  return (
    <Path aria-label="Sheets around this one">
      <button type="button" title="All sheets" onClick={() => go({ sheetId: null, selection: null })}>
        All
      </button>
      {outer.map((one) => (
        <span key={one.id}>
          ›
          <button type="button" title={one.name} onClick={() => go({ sheetId: one.id, selection: null })}>
            {one.name}
          </button>
        </span>
      ))}
      <span aria-hidden="true">›</span>
      <h1>{sheet.name}</h1>
    </Path>
  );
}
