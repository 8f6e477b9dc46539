import { networksIn } from '@visograph/core/cloud';
import {
  childPlaces,
  isCloudPlace,
  projectionNatures,
  projections,
  type Projection,
} from '@visograph/core/model';
import { addSheet } from '@visograph/core/sheets';
import { useEffect, useMemo, useState, type ReactNode } from 'react';
import { Input, SearchField } from 'react-aria-components';
import { useParams } from 'react-router';
import { styled } from 'styled-components';
import { useProject, useWhoCan } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Choice } from '../kit/choice.tsx';
import { Button, FieldInput } from '../kit/controls.tsx';
import { Empty, Hint, Work, WorkHead } from '../kit/panel/panels.tsx';
import { SheetCards } from './list/SheetCards.tsx';
import { listed, sheetSorts, sheetsWithin, useSheetChanges, type SheetSort } from './list/useSheetList.ts';
import { PrintMany } from './printing/PrintMany.tsx';
import { drawAhead, warmDrawing } from './useScene.ts';
import { SheetView } from './SheetView.tsx';

const Finding = styled.div`
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 10px 16px 0;
  input {
    width: 260px;
  }
`;
/** So many are found at a glance. */
const fewToFind = 3;

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
  const sheets = useMemo(() => sheetsWithin(network, scopeId), [network, scopeId]);
  const changes = useSheetChanges();
  const [text, setText] = useState('');
  const [projection, setProjection] = useState<Projection | null>(null);
  const [sort, setSort] = useState<SheetSort>('own order');
  const found = useMemo(
    () => listed(network, sheets, { text, projection, sort }, changes),
    [network, sheets, text, projection, sort, changes],
  );
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
  const inCloud = isCloudPlace(network, scopeId);
  return (
    <Work>
      <WorkHead>
        <h1>Sheets</h1>
        <p>{`${sheets.length} here`}</p>
        <div>
          {sheets.length > 0 && <Button onPress={() => setPrinting(true)}>Print several</Button>}
          {canEdit && !inCloud && inside > 1 && (
            <Button onPress={() => add('sites')}>
              {scopeId === null
                ? 'Draw the sites'
                : `Draw the places of ${network.get('place', scopeId)?.name ?? ''}`}
            </Button>
          )}
          {canEdit && !inCloud && <Button onPress={() => add('switching')}>Draw switching</Button>}
          {canEdit && !inCloud && <Button onPress={() => add('routing')}>Draw routing</Button>}
          {canEdit && !inCloud && networksIn(network, scopeId).length > 0 && (
            <Button onPress={() => add('cloud')}>Draw clouds</Button>
          )}
          {canEdit && (
            <Button $tone="primary" onPress={() => add(inCloud ? 'cloud' : 'cabling')}>
              {inCloud
                ? `Draw ${network.get('place', scopeId)?.name ?? ''}`
                : `Draw cabling of ${network.get('place', scopeId)?.name ?? 'all sites'}`}
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
            <Button $tone="primary" onPress={() => add(inCloud ? 'cloud' : 'cabling')}>
              {network.count('device') === 0 ? 'Begin with a blank sheet' : 'Draw one'}
            </Button>
          )}
        </Empty>
      ) : (
        <>
          {sheets.length > fewToFind && (
            <Finding>
              <SearchField aria-label="Find a sheet" value={text} onChange={setText}>
                <FieldInput as={Input} placeholder="Find by name, place or projection" />
              </SearchField>
              <Choice
                label="Projection"
                hideLabel
                width={150}
                value={projection ?? 'all'}
                options={[
                  { id: 'all', text: 'All projections' },
                  ...projections.map((one) => ({ id: one, text: projectionNatures[one].title })),
                ]}
                onChange={(id) => setProjection(projections.find((one) => one === id) ?? null)}
              />
              <Choice
                label="Sorted by"
                hideLabel
                width={150}
                value={sort}
                options={sheetSorts.map((one) => ({ id: one, text: `By ${one}` }))}
                onChange={setSort}
              />
              {found.length < sheets.length && (
                <Hint role="status">{`${found.length} of ${sheets.length}`}</Hint>
              )}
            </Finding>
          )}
          {found.length === 0 ? (
            <Empty title="No sheet is called so">
              <Button
                onPress={() => {
                  setText('');
                  setProjection(null);
                }}
              >
                Show all
              </Button>
            </Empty>
          ) : (
            <SheetCards
              sheets={found}
              changes={changes}
              orderable={sort === 'own order'}
              onOpen={(sheetId) => go({ sheetId, selection: null })}
            />
          )}
        </>
      )}
      {printing && <PrintMany sheets={sheets} onClose={() => setPrinting(false)} />}
    </Work>
  );
}
