import { btuPerHourPerWatt, deleteModel, modelUse, shareModel } from '@visograph/core/catalogue';
import { editRow } from '@visograph/core/commands';
import {
  formatVids,
  grouped,
  modelTitle,
  moneyText,
  whereIs,
  type CatalogueModel,
} from '@visograph/core/model';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useWorkspace } from '../../data/workspace.tsx';
import { kindText, portCount } from '../figures.ts';
import { ModelFace } from '../ModelFace.tsx';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { Button } from '../../kit/controls.tsx';
import { Hint, Mono } from '../../kit/panel/panels.tsx';
import { Card, Facts, Goto, Head } from '../../record/parts.tsx';
import { RowHistory } from '../../record/RowHistory.tsx';

/** Whole watts as they are, others to a tenth. */
const watts = (value: number): string => grouped(value, Number.isInteger(value) ? 0 : 1);

const Faces = styled.div`
  display: flex;
  flex-direction: column;
  gap: 6px;
  img {
    max-width: 100%;
    max-height: 140px;
  }
`;
const steps = {
  draft: 'Draft of this project',
  offered: 'Offered: waits for an owner',
  accepted: 'Shared with every project',
};
const mostListed = 30;

function factsOf(model: CatalogueModel): [string, string][] {
  const facts: [string, string | null][] = [
    ['Part number', model.partNumber],
    [
      'Height',
      model.form === 'device'
        ? `${model.units} U${model.halfWidth ? ', half width' : ''}${model.fillsBothFaces ? ', fills both faces' : ', one face'}`
        : null,
    ],
    ['Mass', model.massKg === null ? null : `${model.massKg} kg`],
    [
      'Power',
      model.maxPowerW === null
        ? null
        : `${watts(model.typicalPowerW ?? Math.round(model.maxPowerW * 0.6))} W typical, ${watts(model.maxPowerW)} W at most`,
    ],
    ['Heat', model.maxPowerW === null ? null : `${grouped(model.maxPowerW * btuPerHourPerWatt)} BTU/h`],
    ['Passes on', model.capacityW === null ? null : `${grouped(model.capacityW)} W`],
    ['Inlets needed', model.inletsNeeded > 1 ? String(model.inletsNeeded) : null],
    ['Airflow', model.airflow],
    ['PoE budget', model.poeBudgetW === null ? null : `${grouped(model.poeBudgetW)} W`],
    ['PoE class', model.poeClass === null ? null : `${model.poeClass}, as powered device`],
    ['Fits slots', model.moduleFamily],
    ['Medium', model.medium],
    ['Plugs', model.ends?.join(' to ') ?? null],
    ['Strands', model.strands === null ? null : String(model.strands)],
    ['Stock', model.stockLengthsM.length === 0 ? null : `${model.stockLengthsM.join(', ')} m`],
    [
      'Wavelength',
      model.optics === null || model.optics.wavelengthsNm.length === 0
        ? null
        : `${model.optics.wavelengthsNm.join(', ')} nm`,
    ],
    ['Reach', model.optics === null ? null : `${model.optics.reachM} m over ${model.optics.connector}`],
    [
      'Launch',
      model.optics?.launchMinDbm == null
        ? null
        : `${model.optics.launchMinDbm} to ${model.optics.launchMaxDbm ?? ''} dBm`,
    ],
    ['Lights strands', model.opticStrands === null ? null : formatVids(model.opticStrands)],
    ['Sensitivity', model.optics?.sensitivityDbm == null ? null : `${model.optics.sensitivityDbm} dBm`],
    ['List price', model.priceMinor === null ? null : moneyText(model)],
    ['End of sale', model.endOfSale],
    ['End of support', model.endOfSupport],
    [
      'Licences',
      model.licences.length === 0
        ? null
        : model.licences.map((one) => `${one.name} (per ${one.per})`).join(', '),
    ],
    ['Notes', model.notes],
  ];
  return facts.filter((fact): fact is [string, string] => fact[1] !== null);
}

export function ModelRecord({ model }: { model: CatalogueModel }): ReactNode {
  const { view, canEdit, commit, sync, project } = useProject();
  const { network } = view;
  const { select, section, go } = useWhereabouts();
  const { setModelEdit } = useWorkspace();
  const use = modelUse(network, model);
  const devices = network.find('devicesByModel', model.id).slice(0, mostListed);
  const edit = (variant: boolean): void => {
    if (section !== 'catalogue') go({ section: 'catalogue' });
    setModelEdit({ modelId: model.id, variant });
  };
  const retire = (): void => {
    const set = editRow(network, 'model', model, { retired: !model.retired });
    commit({
      ...set,
      sentence: `${model.retired ? 'Offered' : 'Retired'} the model ${modelTitle(model)}${model.retired ? ' again' : ''}`,
    });
  };
  const isHardware = model.form === 'device' || model.form === 'module';
  return (
    <>
      <Head>
        <h2>{modelTitle(model)}</h2>
        <p>{`${kindText(model)}${model.retired ? ' · retired' : ''}`}</p>
        {canEdit && (
          <div>
            <Button onPress={() => edit(false)}>Edit …</Button>
            <Button onPress={() => edit(true)}>Make a variant</Button>
            <Button onPress={retire}>{model.retired ? 'Offer again' : 'Retire'}</Button>
            {use.devices + use.modules + use.cables === 0 && (
              <Button
                onPress={() => {
                  const attempt = deleteModel(network, model);
                  if (!attempt.ok) sync.announce({ tone: 'bad', text: attempt.why });
                  else if (commit(attempt.set).ok) select(null);
                }}
              >
                Delete
              </Button>
            )}
          </div>
        )}
      </Head>
      {(isHardware || model.picture !== null) && (
        <Card title="Faces">
          <Faces>
            {isHardware && <ModelFace model={model} face="front" width={308} maxHeight={150} />}
            {isHardware && <ModelFace model={model} face="rear" width={308} maxHeight={150} />}
            {model.picture !== null && <img src={model.picture} alt={`Picture of ${model.name}`} />}
          </Faces>
        </Card>
      )}
      <Card title="Facts">
        <Facts>
          {factsOf(model).map(([label, value]) => (
            <FactLine key={label} label={label} value={value} />
          ))}
        </Facts>
      </Card>
      {model.portGroups.length > 0 && (
        <Card title="Ports">
          {model.portGroups.map((group) => (
            <div key={group.pattern}>
              <Mono>{group.pattern}</Mono>{' '}
              <Hint>{`${portCount(group.pattern)} × ${group.connector}${group.poeClass === null ? '' : `, PoE class ${group.poeClass}`}`}</Hint>
            </div>
          ))}
        </Card>
      )}
      {model.slots.length > 0 && (
        <Card title="Slots">
          {model.slots.map((slot) => (
            <div key={slot.name}>
              <Mono>{slot.name}</Mono> <Hint>{`${slot.family}, ${slot.face}`}</Hint>
            </div>
          ))}
        </Card>
      )}
      <Card title="Shared">
        <p>
          {model.sharing === null ? 'Came with the catalogue or from another project' : steps[model.sharing]}
        </p>
        {canEdit && (model.sharing === 'draft' || model.sharing === null) && (
          <Button $tone="quiet" onPress={() => commit(shareModel(network, model, 'offered'))}>
            Offer to the organisation
          </Button>
        )}
        {project.role === 'owner' && model.sharing === 'offered' && (
          <Button $tone="primary" onPress={() => commit(shareModel(network, model, 'accepted'))}>
            Accept for every project
          </Button>
        )}
        {canEdit &&
          (model.sharing === 'offered' || (model.sharing === 'accepted' && project.role === 'owner')) && (
            <Button $tone="quiet" onPress={() => commit(shareModel(network, model, 'draft'))}>
              Back to draft
            </Button>
          )}
      </Card>
      <Card title={`Where used · ${use.devices + use.modules + use.cables}`}>
        {use.devices > 0 && (
          <ul>
            {devices.map((device) => (
              <li key={device.id}>
                <Goto to={{ kind: 'device', id: device.id }}>{device.name}</Goto>{' '}
                <Hint>{whereIs(network, device)}</Hint>
              </li>
            ))}
          </ul>
        )}
        {use.devices > mostListed && <Hint>{`and ${use.devices - mostListed} more`}</Hint>}
        {use.modules > 0 && <p>{`${use.modules} modules in slots`}</p>}
        {use.cables > 0 && <p>{`${use.cables} cables`}</p>}
        {use.devices + use.modules + use.cables === 0 && <Hint>Nothing uses it yet.</Hint>}
      </Card>
      <RowHistory rowId={model.id} />
    </>
  );
}

function FactLine({ label, value }: { label: string; value: string }): ReactNode {
  return (
    <>
      <dt>{label}</dt>
      <dd>{value}</dd>
    </>
  );
}
