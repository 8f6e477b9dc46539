import {
  bundleManners,
  hasChoice,
  paperNames,
  type BundleManner,
  type Page,
  type Sheet,
} from '@visograph/core/model';
import {
  collapsePlaces,
  leastPoints,
  legibilityOf,
  pagesOf,
  setSheet,
  type Scene,
} from '@visograph/core/sheets';
import { diagramBox } from '@visograph/drawing';
import { useMemo, useState, type ReactNode } from 'react';
import { Dialog } from 'react-aria-components';
import { styled } from 'styled-components';
import { addressOf } from '../../data/api.ts';
import { callJob } from '../../data/jobs.ts';
import { useProject } from '../../data/project.tsx';
import { useMeantQuery } from '../../data/shown.ts';
import { Choice } from '../../kit/choice.tsx';
import { Button, Field } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Tick } from '../../kit/Tick.tsx';
import { MissingGlyphs } from './MissingGlyphs.tsx';
import { PrintPages, type PaperPages } from './PrintPages.tsx';

const Panel = styled(Dialog)`
  width: 330px;
  padding: 10px 12px 12px;
  outline: none;
  display: flex;
  flex-direction: column;
  gap: 8px;
  h2 {
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
  }
`;
const Told = styled.div`
  font-size: 12px;
  padding: 6px 8px;
  border-left: 3px solid ${({ theme }) => theme.warn};
  background: ${({ theme }) => theme.accentWash};
  display: flex;
  flex-direction: column;
  gap: 6px;
`;
const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: flex-end;
`;

interface Props {
  sheet: Sheet;
  scene: Scene;
  framesShown: boolean;
  onFrames: (shown: boolean) => void;
  /** Plates stand where somebody put them: the paper lays nothing out. */
  arranged: boolean;
  /** Keeps plates where they are seen; null where they are printed there anyway. */
  onKeep: (() => void) | null;
}

/** Paper, and the files a sheet can be saved as. What is hidden on the sheet is not in them. */
export function PrintPanel({ sheet, scene, framesShown, onFrames, arranged, onKeep }: Props): ReactNode {
  const { project, commit, canEdit, moment, sync } = useProject();
  const [paper, setPaper] = useState<PaperPages | null>(null);
  const { page } = sheet;
  const { network } = useProject().view;
  const placeIds = scene.containers.flatMap(({ id, form }) => (form === 'place' ? [id] : []));
  const closable = hasChoice(sheet.projection, 'closedPlaces') && placeIds.length > 1;
  const set = (fields: Partial<Page>): void =>
    void commit(setSheet(sheet, { page: { ...page, ...fields } }, 'the paper'));
  const [bundles, setBundles] = useState<BundleManner | null>(null);
  const drawn = useMemo(() => diagramBox(scene), [scene]);
  const pages = pagesOf(drawn, page);
  const legible = legibilityOf(drawn, page);
  const meant = useMeantQuery();
  const query = bundles === null ? meant : { ...meant, bundles };
  const params = { project: project.id, sheet: sheet.id };
  const to = {
    pdf: addressOf('GET /projects/:project/sheets/:sheet/pdf', { params, query }),
    svg: addressOf('GET /projects/:project/sheets/:sheet/svg', { params, query }),
    png: (scale: number, transparent?: '1') =>
      addressOf('GET /projects/:project/sheets/:sheet/png', {
        params,
        query: { ...query, scale: String(scale), transparent },
      }),
    graph: (format: 'graphml' | 'dot' | 'topology') =>
      addressOf('GET /projects/:project/sheets/:sheet/graph', { params, query: { ...meant, format } }),
  };
  const save = (address: string): void => window.location.assign(address);
  const print = async (): Promise<void> => {
    try {
      setPaper(await callJob('GET /projects/:project/sheets/:sheet/pages', { params, query }));
    } catch (error) {
      sync.announce({
        tone: 'bad',
        text: error instanceof Error ? error.message : 'It could not be printed.',
      });
    }
  };
  const number = (text: string): number | null => {
    const value = Number(text.replace(',', '.'));
    return text.trim() !== '' && Number.isFinite(value) ? value : null;
  };
  return (
    <Panel aria-label="Print and save">
      <h2>Paper</h2>
      <Line>
        <Choice
          label="Size"
          width={100}
          value={page.size}
          options={paperNames.map((size) => ({ id: size, text: size }))}
          onChange={(size) => set({ size })}
        />
        <Choice
          label="Lies"
          width={104}
          value={page.landscape ? 'across' : 'upright'}
          options={[
            { id: 'across', text: 'Landscape' },
            { id: 'upright', text: 'Portrait' },
          ]}
          onChange={(way) => set({ landscape: way === 'across' })}
        />
        <Field
          label="Margin (mm)"
          width={80}
          value={String(page.marginMm)}
          onChange={(text) => {
            const value = number(text);
            if (value !== null && value >= 0 && value <= 50) set({ marginMm: value });
          }}
        />
      </Line>
      <Line>
        <Choice
          label="Pages"
          width={150}
          value={page.fit ? 'fit' : 'tile'}
          options={[
            { id: 'fit', text: 'Fitted to one page' },
            { id: 'tile', text: 'Tiled over several' },
          ]}
          onChange={(way) => set({ fit: way === 'fit' })}
        />
        {!page.fit && (
          <Choice
            label="Scale"
            width={90}
            value={String(page.scale)}
            options={[...new Set([0.25, 0.35, 0.5, 0.7, 1, 1.4, 2, page.scale])]
              .sort((a, b) => a - b)
              .map((scale) => ({
                id: String(scale),
                text: `${Math.round(scale * 100)} %`,
              }))}
            onChange={(scale) => set({ scale: Number(scale) })}
          />
        )}
      </Line>
      <Tick
        isSelected={page.composed === true}
        isDisabled={!canEdit}
        onChange={(composed) => set({ composed })}
      >
        Lay the sheet out for this paper
      </Tick>
      {page.composed === true && arranged && (
        <Hint>Plates that were put somewhere stay there: Tidy lays them out for the paper.</Hint>
      )}
      {onKeep !== null && (
        <Told role="status">
          The plates stand where they stood before something changed. In print they are laid out afresh.
          {canEdit && (
            <Line>
              <Button onPress={onKeep}>Keep them as they stand</Button>
            </Line>
          )}
        </Told>
      )}
      <Hint>
        {pages.frames.length === 1
          ? `One page, drawn at ${Math.round(pages.mmPerUnit * (96 / 25.4) * 100)} % of its size on the screen`
          : `${pages.frames.length} pages of ${page.size}`}
      </Hint>
      {legible.points < leastPoints && (
        <Told role="status">
          {`The smallest text would be ${legible.points.toFixed(1)} pt; ${leastPoints} pt can be read.`}
          {canEdit && (
            <Line>
              {legible.paper !== null && (
                <Button onPress={() => set({ size: legible.paper ?? page.size, fit: true })}>
                  {`On ${legible.paper}`}
                </Button>
              )}
              <Button onPress={() => set({ fit: false, scale: legible.scale })}>
                {`On ${legible.pages} pages of ${page.size}`}
              </Button>
              {closable && (
                <Button onPress={() => void commit(collapsePlaces(network, sheet, placeIds))}>
                  {`Close ${placeIds.length} places`}
                </Button>
              )}
            </Line>
          )}
        </Told>
      )}
      <Choice
        label="Links of one purpose"
        width={220}
        value={bundles ?? 'sheet'}
        options={[
          { id: 'sheet', text: 'As on the sheet' },
          { id: 'closed', text: 'As one line' },
          { id: 'open', text: 'In lanes' },
          { id: 'never', text: 'Each by itself' },
        ]}
        onChange={(id) => setBundles(bundleManners.find((manner) => manner === id) ?? null)}
      />
      <Tick isSelected={framesShown} onChange={onFrames}>
        Show the edges of the paper
      </Tick>
      <Line>
        <Button $tone="primary" onPress={() => save(to.pdf)}>
          Save PDF
        </Button>
        <Button onPress={() => void print()}>Print …</Button>
        <Button onPress={() => save(to.svg)}>Save SVG</Button>
      </Line>
      <h2>Picture (PNG)</h2>
      <Line>
        {[1, 2, 3, 4].map((scale) => (
          <Button key={scale} onPress={() => save(to.png(scale))}>{`${scale}×`}</Button>
        ))}
        <Button onPress={() => save(to.png(2, '1'))}>2×, no paper</Button>
      </Line>
      <h2>Graph</h2>
      <Line>
        <Button onPress={() => save(to.graph('graphml'))}>GraphML</Button>
        <Button onPress={() => save(to.graph('dot'))}>DOT</Button>
        <Button onPress={() => save(to.graph('topology'))}>Topology (RFC 8345)</Button>
      </Line>
      <MissingGlyphs sheetIds={[sheet.id]} />
      {!canEdit && moment === null && <Hint>The paper is set by editors.</Hint>}
      {paper !== null && <PrintPages paper={paper} onDone={() => setPaper(null)} />}
    </Panel>
  );
}
