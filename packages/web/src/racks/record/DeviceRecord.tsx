import { deviceWatts } from '@visograph/core/catalogue';
import { spanText } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import {
  grouped,
  deviceStatuses,
  filledBy,
  isInCloud,
  modelTitle,
  portsOf,
  roles,
  whereIs,
  type Device,
} from '@visograph/core/model';
import { deleteDevice, freePositions, tryMove } from '@visograph/core/racks';
import { useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { useWorkspace } from '../../data/workspace.tsx';
import { Choice } from '../../kit/choice.tsx';
import { Button, Keycap } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Card, ChosenFact, DateFact, EditableFact, Facts, Goto, Head } from '../../record/parts.tsx';
import { ModelCard } from '../../catalogue/record/ModelCard.tsx';
import { OwnFields } from '../../record/OwnFields.tsx';
import { PlaceFact } from '../../places/record/PlaceFact.tsx';
import { CloudDeviceCards } from '../../cloud/record/CloudDeviceCards.tsx';
import { PoeCard } from '../../cabling/record/PoeCard.tsx';
import { DeviceAddressesCard } from '../../addressing/record/AddressesCard.tsx';
import { PortList } from '../../cabling/record/PortList.tsx';
import { InterfacesCard } from '../../routing/record/InterfacesCard.tsx';
import { RoutesCard } from '../../routing/record/RoutesCard.tsx';
import { SpanningTreeCard } from '../../switching/record/SpanningTreeCard.tsx';
import { RowHistory } from '../../record/RowHistory.tsx';
import { InventoryCard } from './InventoryCard.tsx';
import { SlotsCard } from './SlotsCard.tsx';

export function DeviceRecord({ device }: { device: Device }): ReactNode {
  const { view, commit, canEdit, sync } = useProject();
  const { network } = view;
  const { select } = useWhereabouts();
  const { setDock } = useWorkspace();
  const [asking, setAsking] = useState(false);
  const model = network.get('model', device.modelId);
  const rack = network.get('rack', device.rackId);
  const ports = portsOf(network, device.id);
  const used = ports.filter((port) => filledBy(network, port.id) !== null).length;
  const watts = deviceWatts(network, device);
  /** Gear that can have configured ports; a panel or a power strip has none. */
  const routes = !['PP', 'CA', 'PD', 'UP', 'CM', 'PH', 'PR'].includes(device.role);
  const removal = asking ? deleteDevice(network, device) : null;
  const drawn = network
    .find('sheetItemsBySubject', device.id)
    .map((item) => network.get('sheet', item.sheetId));
  return (
    <>
      <Head>
        <h2>{device.name}</h2>
        <p>
          {[roles[device.role].label, model === null ? null : modelTitle(model), whereIs(network, device)]
            .filter(Boolean)
            .join(' · ')}
        </p>
        {canEdit && (
          <div>
            {/* Nothing is patched in a cloud. */}
            {!isInCloud(network, device) && (
              <Button
                onPress={() =>
                  setDock({ form: 'connect', aPortId: null, aDeviceId: device.id, bPortId: null })
                }
              >
                Connect<Keycap>C</Keycap>
              </Button>
            )}
            <Button onPress={() => setAsking(!asking)}>Delete …</Button>
          </div>
        )}
        {removal !== null && (
          <div role="alertdialog" aria-label="Delete device">
            <span>
              {removal.alsoGone === ''
                ? 'Nothing else goes with it. Ctrl+Z brings it back.'
                : `With it go ${removal.alsoGone}. Ctrl+Z brings all back.`}
            </span>
            <Button
              $tone="primary"
              onPress={() => {
                if (commit(removal).ok) select(rack === null ? null : { kind: 'rack', id: rack.id });
              }}
            >
              {`Delete ${device.name}`}
            </Button>
          </div>
        )}
      </Head>
      <Card title="Facts">
        <Facts>
          <EditableFact kind="device" row={device} field="name" optional={false} />
          <ChosenFact kind="device" row={device} field="status" options={deviceStatuses} />
          <EditableFact kind="device" row={device} field="serial" />
          <DateFact kind="device" row={device} field="installedOn" />
          {(device.role === 'SW' || device.role === 'FW' || device.role === 'RT') && (
            <EditableFact kind="device" row={device} field="stack" />
          )}
          {rack === null && (
            <PlaceFact
              placeId={device.placeId}
              onMove={(placeId) => void commit(editRow(network, 'device', device, { placeId }))}
            />
          )}
          {rack !== null && (
            <>
              <dt>Rack</dt>
              <dd>
                <Goto to={{ kind: 'rack', id: rack.id }}>{rack.name}</Goto>
              </dd>
              <dt>Unit</dt>
              <dd>
                {canEdit && device.units > 0 ? (
                  <Choice
                    label="Unit"
                    hideLabel
                    width={130}
                    value={device.unit === null ? null : String(device.unit)}
                    options={freePositions(network, rack, device, device.id).map((unit) => ({
                      id: String(unit),
                      text: spanText({ unit, units: 1 }),
                    }))}
                    onChange={(unit) => {
                      const attempt = tryMove(network, device, { rackId: rack.id, unit: Number(unit) });
                      if (attempt.ok) commit(attempt.set);
                      else sync.announce({ tone: 'bad', text: `${attempt.why}.` });
                    }}
                  />
                ) : (
                  (device.unit ?? 'at the side')
                )}
              </dd>
            </>
          )}
          {rack !== null && (
            <ChosenFact
              kind="device"
              row={device}
              field="feed"
              options={[null, ...rack.feeds.map((feed) => feed.name)]}
            />
          )}
          {rack !== null && device.side !== 'full' && (
            <ChosenFact kind="device" row={device} field="side" options={['left', 'right']} />
          )}
          {rack !== null && device.unit !== null && (
            <ChosenFact kind="device" row={device} field="face" options={['front', 'rear']} />
          )}
          {watts.maxW > 0 && (
            <>
              <dt>Power</dt>
              <dd>{`${grouped(watts.typicalW)} W typical, ${grouped(watts.maxW)} W at most`}</dd>
            </>
          )}
          <EditableFact kind="device" row={device} field="notes" />
        </Facts>
      </Card>
      <CloudDeviceCards device={device} />
      <InventoryCard device={device} />
      <PoeCard device={device} />
      <ModelCard device={device} />
      <SlotsCard device={device} />
      <Card title={`Ports · ${used} of ${ports.length} used`}>
        {ports.length === 0 ? <Hint>This device has no ports.</Hint> : <PortList device={device} />}
      </Card>
      <DeviceAddressesCard device={device} />
      {device.role === 'SW' && <SpanningTreeCard device={device} />}
      {routes && <InterfacesCard device={device} />}
      {routes && <RoutesCard device={device} />}
      {drawn.length > 0 && (
        <Card title="Placed on">
          {drawn.map((sheet) => sheet !== null && <div key={sheet.id}>{sheet.name}</div>)}
        </Card>
      )}
      <OwnFields device={device} />
      <RowHistory rowId={device.id} />
    </>
  );
}
