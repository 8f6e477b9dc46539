import { byName, childPlaces, placePath, placesWithin, type Projection } from '@visograph/core/model';
import { addSheet } from '@visograph/core/sheets';
import { useEffect, useState, type ReactNode } from 'react';
import { useParams } from 'react-router';
import { styled } from 'styled-components';
import { useProject, useWhoCan } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Button } from '../kit/controls.tsx';
import { Empty, Work, WorkHead } from '../kit/panel/panels.tsx';
import { PrintMany } from './printing/PrintMany.tsx';
import { drawAhead, warmDrawing } from './useScene.ts';
import { SheetView } from './SheetView.tsx';

const List = styled.ul`
  padding: 14px 16px;
  overflow: auto;
  button {
    font: inherit;
    width: 100%;
    max-width: 620px;
    display: flex;
    justify-content: space-between;
    gap: 16px;
    text-align: left;
    padding: 11px 14px;
    margin-bottom: 8px;
    background: ${({ theme }) => theme.surface};
    color: ${({ theme }) => theme.ink};
    border: 1px solid ${({ theme }) => theme.rule};
    border-radius: 3px;
  }
  button:hover {
    border-color: ${({ theme }) => theme.accent};
  }
  small {
    color: ${({ theme }) => theme.inkSoft};
  }
`;

/** Saved drawings of the scope; one of them when it is open. */
export default function SheetsSection(): ReactNode {
  const { view, commit, canEdit } = useProject();
  const whoCan = useWhoCan();
  const { network } = view;
  const { sheet: sheetId } = useParams();
  const { scopeId, go } = useWhereabouts();
  const [printing, setPrinting] = useState(false);
  useEffect(warmDrawing, []);
  const open = network.get('sheet', sheetId ?? null);
  const within = placesWithin(network, scopeId);
  const sheets = [...network.all('sheet')]
    .filter((sheet) => scopeId === null || (sheet.scopeId !== null && within.has(sheet.scopeId)))
    .sort(byName);
  const likely = open === null ? sheets[0] : undefined;
  useEffect(() => (likely === undefined ? undefined : drawAhead(network, likely)), [network, likely]);
  // A sheet that is opened brings its place along: path, counts and drawing are about the same.
  const openId = open?.id ?? null;
  useEffect(() => {
    if (open !== null && open.scopeId !== scopeId) go({ scopeId: open.scopeId, replace: true });
    // Only when another sheet is opened.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [openId]);
  if (open !== null) return <SheetView key={open.id} sheet={open} />;
  const add = (projection: Projection): void => {
    const set = addSheet(network, { scopeId, projection });
    if (commit(set).ok) go({ sheetId: set.sheetId, selection: null });
  };
  const inside = childPlaces(network, scopeId).length;
  return (
    <Work>
      <WorkHead>
        <h1>Sheets</h1>
        <p>{`${sheets.length} here`}</p>
        <div>
          {sheets.length > 0 && <Button onPress={() => setPrinting(true)}>Print several</Button>}
          {canEdit && inside > 1 && (
            <Button onPress={() => add('sites')}>
              {scopeId === null
                ? 'Draw the sites'
                : `Draw the places of ${network.get('place', scopeId)?.name ?? ''}`}
            </Button>
          )}
          {canEdit && <Button onPress={() => add('switching')}>Draw switching</Button>}
          {canEdit && <Button onPress={() => add('routing')}>Draw routing</Button>}
          {canEdit && (
            <Button $tone="primary" onPress={() => add('cabling')}>
              {`Draw cabling of ${network.get('place', scopeId)?.name ?? 'all sites'}`}
            </Button>
          )}
        </div>
      </WorkHead>
      {sheets.length === 0 ? (
        <Empty title={network.count('device') === 0 ? 'Nothing is drawn yet' : 'No sheet of this place yet'}>
          {!canEdit
            ? whoCan('draw one')
            : network.count('device') === 0
              ? 'Begin with a blank sheet: drop devices on it and pull lines between them. Rooms, racks and addresses can come later.'
              : 'A sheet draws itself from the model; you arrange it afterwards.'}
          {canEdit && (
            <Button $tone="primary" onPress={() => add('cabling')}>
              {network.count('device') === 0 ? 'Begin with a blank sheet' : 'Draw one'}
            </Button>
          )}
        </Empty>
      ) : (
        <List>
          {sheets.map((sheet) => (
            <li key={sheet.id}>
              <button type="button" onClick={() => go({ sheetId: sheet.id, selection: null })}>
                <strong>{sheet.name}</strong>
                <small>{`${sheet.projection} · ${sheet.picked ? 'picked devices' : placePath(network, sheet.scopeId).replaceAll('/', ' › ') || 'All sites'}`}</small>
              </button>
            </li>
          ))}
        </List>
      )}
      {printing && <PrintMany sheets={sheets} onClose={() => setPrinting(false)} />}
    </Work>
  );
}
