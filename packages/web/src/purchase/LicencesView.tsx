import {
  compareNames,
  factFieldsOf,
  modelTitle,
  type CatalogueModel,
  type Network,
} from '@visograph/core/model';
import { heldOn, holdsOn, keepLicence, licenceNeeds, removeLicence } from '@visograph/core/purchase';
import { editFact } from '@visograph/core/report';
import { useMemo, useState, type ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { useShown } from '../data/shown.ts';
import { Choice } from '../kit/choice.tsx';
import { Button, Field } from '../kit/controls.tsx';
import { DateEntry, dateOf } from '../kit/DateEntry.tsx';
import { Grid, type GridColumn, type GridRow } from '../kit/grid/Grid.tsx';
import { ActPanel } from '../kit/panel/ActPanel.tsx';
import { Empty } from '../kit/panel/panels.tsx';
import { Bar, Main } from './layout.tsx';
import { PartPicker } from './partPicker.tsx';
import { today } from '../data/today.ts';
import { useDo, useKeep } from '../data/useDo.ts';

const columns: readonly GridColumn[] = [
  { key: 'certificate', label: 'Certificate', width: 200, text: true, editable: true },
  { key: 'count', label: 'Held', width: 70, numeric: true, editable: true },
  { key: 'validFrom', label: 'Valid from', width: 104, editable: true },
  { key: 'validUntil', label: 'Valid until', width: 104, editable: true },
  { key: 'state', label: 'State', width: 170, text: true, worked: true },
  { key: 'notes', label: 'Notes', width: 240, text: true, editable: true },
];

/** Licences by the model and name they are for: a heading with how many are needed and held, then the certificates. */
function rowsOf(network: Network, day: string): GridRow[] {
  const groups = new Map<string, { title: string; needed: number; held: number; ids: string[] }>();
  const group = (model: CatalogueModel, name: string): { needed: number; ids: string[] } => {
    const key = `${model.id}/${name.toLowerCase()}`;
    const known = groups.get(key) ?? {
      ...{ title: `${name} of ${modelTitle(model)}`, needed: 0, ids: [] },
      held: heldOn(network, model.id, name, day),
    };
    groups.set(key, known);
    return known;
  };
  const counted = [...network.all('device')].filter(({ status }) => status !== 'retired');
  for (const { model, licence, devices } of licenceNeeds(network, counted))
    group(model, licence.name).needed = devices.length;
  for (const { id, modelId, name } of network.all('heldLicence')) {
    const model = network.get('model', modelId);
    if (model !== null) group(model, name).ids.push(id);
  }
  return [...groups]
    .sort(([, a], [, b]) => compareNames(a.title, b.title))
    .flatMap(([key, { title, needed, held, ids }]): GridRow[] => [
      {
        id: `group#${key}`,
        heading: 0,
        cells: {
          certificate: `${title}: ${needed} needed, ${held} held${held < needed ? `, ${needed - held} missing` : ''}`,
        },
      },
      ...ids
        .flatMap((id) => network.get('heldLicence', id) ?? [])
        .sort((a, b) => compareNames(a.certificate, b.certificate))
        .map((row): GridRow => ({
          id: row.id,
          cells: {
            certificate: row.certificate,
            count: row.count,
            validFrom: row.validFrom,
            validUntil: row.validUntil,
            state: holdsOn(row, day)
              ? null
              : row.validFrom !== null && row.validFrom > day
                ? 'not yet'
                : 'ended',
            notes: row.notes,
          },
        })),
    ]);
}

/** Which licences the gear needs, and the certificates under which they are held. */
export function LicencesView(): ReactNode {
  const { view, canEdit } = useProject();
  const network = useShown();
  const act = useDo();
  const keep = useKeep();
  const [chosen, setChosen] = useState<string | null>(null);
  const [adding, setAdding] = useState(false);
  const rows = useMemo(() => rowsOf(network, today()), [network]);
  const row = network.get('heldLicence', chosen);
  const edit = (id: string, key: string, text: string): string | null => {
    const held = view.network.get('heldLicence', id);
    const fact = factFieldsOf('heldLicence').find(({ field }) => field === key);
    if (held === null || fact === undefined) return 'It is no longer there.';
    return keep(editFact(view.network, 'heldLicence', held, fact, text));
  };
  return (
    <Main>
      <Bar>
        <p>What the models of the catalogue need, and the certificates that are held for it.</p>
        {canEdit && <Button onPress={() => setAdding(true)}>Write down a certificate …</Button>}
        {canEdit && row !== null && (
          <Button onPress={() => act(removeLicence(view.network, row)) && setChosen(null)}>
            Delete the certificate
          </Button>
        )}
      </Bar>
      <Grid
        label="Licences"
        columns={columns}
        rows={rows}
        selectedId={chosen}
        onSelect={(id) => setChosen(id.startsWith('group#') ? null : id)}
        {...(canEdit ? { onEdit: edit } : {})}
        empty={
          <Empty title="No device here needs a licence">
            Which licences a model needs stands with it in the catalogue.
          </Empty>
        }
      />
      {adding && <Certificate onClose={() => setAdding(false)} onDone={setChosen} />}
    </Main>
  );
}

function Certificate({ onClose, onDone }: { onClose: () => void; onDone: (id: string) => void }): ReactNode {
  const { view } = useProject();
  const { network } = view;
  const keep = useKeep();
  const [modelId, setModelId] = useState<string | null>(null);
  const [name, setName] = useState<string | null>(null);
  const [certificate, setCertificate] = useState('');
  const [count, setCount] = useState('1');
  const [validFrom, setValidFrom] = useState<string | null>(null);
  const [validUntil, setValidUntil] = useState<string | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const licences = network.get('model', modelId)?.licences ?? [];
  const act = (): boolean => {
    if (modelId === null || name === null) return false;
    const attempt = keepLicence(network, {
      ...{ certificate, modelId, name, count: Number(count) },
      ...{ validFrom, validUntil, notes: null },
    });
    const problem = keep(attempt);
    setWhy(problem);
    if (problem === null) onDone(attempt.id);
    return problem === null;
  };
  return (
    <ActPanel
      title="Write down a certificate"
      open
      onOpenChange={(stays) => !stays && onClose()}
      fields={
        <>
          <PartPicker
            network={network}
            modelId={modelId}
            lengthM={null}
            among={hasLicences}
            onChange={(id) => {
              setModelId(id);
              setName(network.get('model', id)?.licences[0]?.name ?? null);
            }}
          />
          {licences.length > 0 && (
            <Choice
              label="Licence"
              width={200}
              options={licences.map((one) => ({ id: one.name, text: one.name }))}
              value={name}
              onChange={setName}
            />
          )}
          <Field label="Certificate" width={180} value={certificate} error={why} onChange={setCertificate} />
          <Field label="Held" width={70} value={count} onChange={setCount} />
          <DateEntry
            label="Valid from"
            value={dateOf(validFrom)}
            onChange={(date) => setValidFrom(date?.toString() ?? null)}
          />
          <DateEntry
            label="Valid until"
            value={dateOf(validUntil)}
            onChange={(date) => setValidUntil(date?.toString() ?? null)}
          />
        </>
      }
      note={
        [...network.all('model')].some(hasLicences)
          ? null
          : 'No model of the catalogue needs a licence. Say there which one does.'
      }
      action="Write it down"
      onAct={modelId === null || name === null ? null : act}
    />
  );
}

const hasLicences = ({ licences }: CatalogueModel): boolean => licences.length > 0;
