import { draftModel } from '@visograph/core/catalogue';
import { readExchange, writeExchange } from '@visograph/core/exchange';
import { modelTitle, type CatalogueModel } from '@visograph/core/model';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Choice } from '../kit/choice.tsx';
import { Button } from '../kit/controls.tsx';
import { Filter } from '../kit/Filter.tsx';
import { Work, WorkHead } from '../kit/panel/panels.tsx';
import { useWorkspace } from '../data/workspace.tsx';
import { KitList } from './KitList.tsx';
import { ModelEditor } from './editor/ModelEditor.tsx';
import { ModelList, type FormFilter } from './ModelList.tsx';
import { RoleSymbols } from './RoleSymbols.tsx';
import { SharedModels } from './SharedModels.tsx';
import { FileInput } from '../kit/FileInput.tsx';
import { saveFile } from '../kit/saveFile.ts';

const Line = styled.div`
  flex: none;
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 5px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  button[aria-pressed='true'] {
    border-color: ${({ theme }) => theme.accent};
    background: ${({ theme }) => theme.accentWash};
  }
`;

const forms: readonly { id: FormFilter; text: string }[] = [
  { id: 'all', text: 'Everything' },
  { id: 'device', text: 'Hardware' },
  { id: 'module', text: 'Modules' },
  { id: 'transceiver', text: 'Transceivers' },
  { id: 'cable', text: 'Cable types' },
];

/** The catalogue: every model there is, own ones made and changed, kits placed. */
export default function CatalogueSection(): ReactNode {
  const { view, canEdit, commit, sync } = useProject();
  const { network } = view;
  const { select, selection } = useWhereabouts();
  const [text, setText] = useState('');
  const [form, setForm] = useState<FormFilter>('all');
  const [editing, setEditing] = useState<CatalogueModel | null>(null);
  const [showsKits, setShowsKits] = useState(false);
  const [sharing, setSharing] = useState(false);
  const [symbols, setSymbols] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const { modelEdit, setModelEdit } = useWorkspace();
  useEffect(() => {
    if (modelEdit === null) return;
    const model = network.get('model', modelEdit.modelId);
    if (model !== null) setEditing(modelEdit.variant ? draftModel(network, model.form, model) : model);
    setModelEdit(null);
  }, [network, modelEdit, setModelEdit]);
  const take = async (file: File): Promise<void> => {
    const tell = (why: string): void => sync.announce({ tone: 'bad', text: `${file.name}: ${why}` });
    let data: unknown;
    try {
      data = JSON.parse(await file.text());
    } catch {
      return tell('It is not a Visograph exchange file.');
    }
    const read = readExchange(network, {
      ...Object(data),
      places: [],
      racks: [],
      devices: [],
      cables: [],
      sheets: [],
      kits: [],
      project: undefined,
    });
    if (!read.ok) return tell(`${read.problems[0]?.path ?? ''} ${read.problems[0]?.message ?? ''}`);
    if (read.changes.length === 0)
      return sync.announce({ tone: 'ok', text: `${file.name}: every model is there already.` });
    const set = {
      changes: read.changes,
      sentence: `Imported ${read.changes.length} models from ${file.name}`,
    };
    if (commit(set).ok)
      sync.announce({ tone: 'ok', text: `${file.name}: ${read.changes.length} models imported.` });
  };
  const exportModels = (): void => {
    const file = writeExchange(network);
    const chosen = selection?.kind === 'model' ? network.get('model', selection.id) : null;
    const models = (file.models ?? []).filter(
      (model) => chosen === null || (model.name === chosen.name && (model.maker ?? null) === chosen.maker),
    );
    saveFile(
      `${chosen === null ? 'catalogue' : modelTitle(chosen)}.visograph.json`,
      `${JSON.stringify({ format: file.format, version: file.version, models }, null, 1)}\n`,
      'application/json',
    );
  };
  if (editing !== null)
    return (
      <ModelEditor
        key={editing.id}
        start={editing}
        onDone={(id) => {
          setEditing(null);
          if (id !== null) select({ kind: 'model', id });
        }}
      />
    );
  return (
    <Work>
      <WorkHead>
        <h1>Catalogue</h1>
        <p>{`${network.count('model')} models · ${network.count('kit')} kits`}</p>
        <div>
          <Button onPress={exportModels}>
            {selection?.kind === 'model' ? 'Export model' : 'Export all'}
          </Button>
          {canEdit && (
            <>
              <Button onPress={() => input.current?.click()}>Import …</Button>
              <Button onPress={() => setSharing(true)}>Shared …</Button>
              <Button onPress={() => setSymbols(true)}>Symbols …</Button>
              <Button
                $tone="primary"
                onPress={() => setEditing(draftModel(network, form === 'all' ? 'device' : form, null))}
              >
                New model
              </Button>
            </>
          )}
        </div>
      </WorkHead>
      <FileInput
        input={input}
        label="Model file"
        accept=".json,application/json"
        onFile={(file) => void take(file)}
      />
      <SharedModels open={sharing} onOpenChange={setSharing} />
      <RoleSymbols open={symbols} onOpenChange={setSymbols} />
      <Line>
        {!showsKits && (
          <>
            <Filter value={text} onChange={setText} />
            <Choice
              label="Kind of model"
              hideLabel
              width={130}
              value={form}
              options={forms}
              onChange={(next) => setForm(forms.find((one) => one.id === next)?.id ?? 'all')}
            />
          </>
        )}
        <Button aria-pressed={showsKits} onPress={() => setShowsKits(!showsKits)}>
          {`Kits · ${network.count('kit')}`}
        </Button>
      </Line>
      {showsKits ? (
        <KitList />
      ) : (
        <ModelList text={text} form={form} onOpen={(model) => canEdit && setEditing(model)} />
      )}
    </Work>
  );
}
