import { addressOffers, addressesOf, managementPort, setPortAddress } from '@visograph/core/addressing';
import { editRow } from '@visograph/core/commands';
import { everyPortOf, modelTitle, whereIs, type Device } from '@visograph/core/model';
import { placeDevices } from '@visograph/core/racks';
import type { Box, Plate, Point } from '@visograph/core/sheets';
import { useMemo, useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { Button } from '../../kit/controls.tsx';
import { ModelChoice } from '../../catalogue/record/ModelChoice.tsx';
import { PlaceFact } from '../../places/record/PlaceFact.tsx';
import { Facts, TypedFact } from '../../record/parts.tsx';
import { Afloat } from '../draw/Afloat.tsx';
import { useFirstField } from './useFirstField.ts';
import { useTaking } from './useTaking.ts';

/** What of a plate was pressed twice: its field has the focus first. */
export type PlateFact = 'model' | 'place' | 'address';

interface Props {
  plates: readonly Plate[];
  at: Point;
  avoid: readonly Box[];
  fact: PlateFact | null;
  onClose: () => void;
}

function AddressFact({ device }: { device: Device }): ReactNode {
  const { network } = useProject().view;
  const take = useTaking();
  const port = managementPort(network, everyPortOf(network, device.id));
  if (port === null) return null;
  return (
    <TypedFact
      label={`Address of ${port.name}`}
      shown={addressesOf(network, port.id)[0]?.address ?? ''}
      keep={(text) => take(setPortAddress(network, port, text))}
      offers={addressOffers(network, port).map(({ address, why }) => ({ value: address, text: why }))}
    />
  );
}

/** The facts of one plate or several, edited where they are drawn: name, model, place, address. */
export function PlateFacts({ plates, at, avoid, fact, onClose }: Props): ReactNode {
  const { view } = useProject();
  const { network } = view;
  const take = useTaking();
  const [choosing, setChoosing] = useState(fact === 'model');
  const [why, setWhy] = useState<string | null>(null);
  const devices = useMemo(
    () => plates.flatMap((plate) => plate.deviceIds).flatMap((id) => network.get('device', id) ?? []),
    [plates, network],
  );
  const frame = useFirstField(
    choosing ? null : fact === 'place' ? 'Place' : fact === 'address' ? /^Address/ : /./,
  );
  const [only] = devices;
  if (only === undefined) return null;
  const one = devices.length === 1;
  const models = new Set(devices.map((device) => device.modelId));
  const model = models.size === 1 ? network.get('model', only.modelId) : null;
  const loose = devices.every((device) => device.rackId === null);
  const places = new Set(devices.map((device) => device.placeId));
  return (
    <Afloat
      at={at}
      avoid={avoid}
      label={one ? `Facts of ${only.name}` : `Facts of ${devices.length} devices`}
      onEscape={onClose}
    >
      <div ref={frame}>
        {!one && <strong>{`${devices.length} devices`}</strong>}
        <Facts>
          {one && (
            <TypedFact
              label="Name"
              shown={only.name}
              keep={(name) =>
                name.trim() === ''
                  ? 'Give a value.'
                  : take({ ok: true, set: editRow(network, 'device', only, { name: name.trim() }) })
              }
            />
          )}
          <dt>Model</dt>
          <dd>
            {model === null ? (models.size === 1 ? 'none' : `${models.size} models`) : modelTitle(model)}{' '}
            {!choosing && (
              <Button $tone="quiet" onPress={() => setChoosing(true)}>
                Replace …
              </Button>
            )}
          </dd>
          {loose ? (
            <PlaceFact
              placeId={places.size === 1 ? only.placeId : null}
              onMove={(placeId) => setWhy(take(placeDevices(network, devices, placeId)))}
            />
          ) : (
            <>
              <dt>Where</dt>
              <dd>{one ? whereIs(network, only) : 'some are mounted in racks'}</dd>
            </>
          )}
          {one && <AddressFact device={only} />}
        </Facts>
        {choosing && <ModelChoice devices={devices} onClose={() => setChoosing(false)} />}
        {why !== null && <p role="alert">{why}</p>}
      </div>
    </Afloat>
  );
}
