import {
  addPublicAddress,
  moveInstance,
  seatsOf,
  standFor,
  subnetsOf,
  tieRuleSets,
} from '@visograph/core/cloud';
import { addressStays, byName, noted, type Network, type Place, type Port } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useDo } from '../../data/useDo.ts';
import { useFormActs } from '../../data/useFormActs.ts';
import { Choice } from '../../kit/choice.tsx';
import { ChoiceIn, TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';
import { Tick } from '../../kit/Tick.tsx';
import { FactLine, FactList } from '../../record/factList.tsx';
import { Card, Facts, Goto } from '../../record/parts.tsx';

/** The virtual network whose addresses an interface has; null where it has those of none. */
const networkOfPort = (network: Network, port: Port): Place | null =>
  network.get('place', network.findOne('virtualNetworkByVrf', port.vrfId ?? '')?.placeId ?? null);

const publicForm = z.object({
  address: noted(z.string(), { label: 'Public address' }),
  hold: noted(z.enum(addressStays), { label: 'Stays' }),
});
/** Gives an interface an address of the internet: a new one, or one that is kept and stands for nothing. */
function GivePublic({ port, place }: { port: Port; place: Place }): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(publicForm, { address: '', hold: 'kept' as const });
  const { act } = useFormActs(form);
  return (
    <Form
      label={`Give ${port.name} a public address`}
      form={form}
      row
      quiet
      action="Give"
      onSend={({ address, hold }) => act(addPublicAddress(network, place, { address, hold, port }))}
    >
      <TextIn name="address" width={122} />
      <ChoiceIn name="hold" width={74} options={addressStays.map((id) => ({ id, text: id }))} />
    </Form>
  );
}

/** One interface in a cloud: its subnet, which moves it, the rule sets tied to it, and its public addresses. */
function Interface({ port, place }: { port: Port; place: Place }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const act = useDo();
  const [seat] = seatsOf(network, port.id);
  const tied = new Set(network.find('ruleSetUsesByPort', port.id).map(({ setId }) => setId));
  const sets = network
    .find('ruleSetsByNetwork', place.id)
    .filter(({ id, ties }) => ties === 'interfaces' || tied.has(id))
    .sort(byName);
  const publics = network.find('publicAddressesByPort', port.id);
  const subnets = subnetsOf(network, place.id);
  return (
    <Card title={`Interface ${port.name}`}>
      <Facts>
        <dt>Subnet</dt>
        <dd>
          {canEdit && seat !== undefined ? (
            <Choice
              label={`Subnet of ${port.name}`}
              hideLabel
              width={190}
              value={seat.subnet.id}
              options={subnets.map(({ id, name }) => ({ id, text: name }))}
              onChange={(id) => {
                const to = network.get('cloudSubnet', id);
                if (to !== null && to.id !== seat.subnet.id) act(moveInstance(network, port.id, to));
              }}
            />
          ) : seat === undefined ? (
            '–'
          ) : (
            <Goto to={{ kind: 'cloudSubnet', id: seat.subnet.id }}>{seat.subnet.name}</Goto>
          )}
        </dd>
        <dt>Addresses</dt>
        <dd>
          {network
            .find('addressesByPort', port.id)
            .map(({ address }) => address)
            .join(', ') || '–'}
        </dd>
        {(sets.length > 0 || tied.size > 0) && (
          <>
            <dt>Rule sets</dt>
            <dd>
              {sets.map((set) => (
                <Tick
                  key={set.id}
                  isSelected={tied.has(set.id)}
                  isDisabled={!canEdit}
                  onChange={(on) =>
                    act(
                      tieRuleSets(
                        network,
                        port,
                        sets.filter(({ id }) => (id === set.id ? on : tied.has(id))),
                      ),
                    )
                  }
                >
                  {set.name}
                </Tick>
              ))}
            </dd>
          </>
        )}
      </Facts>
      {publics.length > 0 && (
        <FactList aria-label={`Public addresses of ${port.name}`}>
          {publics.map((row) => (
            <FactLine
              key={row.id}
              label={`Take ${row.address} off`}
              onRemove={canEdit ? () => act(standFor(network, row, null)) : null}
            >
              <Goto to={{ kind: 'publicAddress', id: row.id }}>{row.address}</Goto>
              <small>{row.hold === 'lent' ? 'lent: a stop loses it' : row.hold}</small>
            </FactLine>
          ))}
        </FactList>
      )}
      {canEdit && <GivePublic key={port.id} port={port} place={place} />}
    </Card>
  );
}

/** The interfaces of a device in virtual networks, each with what can be said of it. */
export function InterfaceCards({ deviceId }: { deviceId: string }): ReactNode {
  const { network } = useProject().view;
  const ports = network
    .find('everyPortByDevice', deviceId)
    .filter(({ form }) => form === 'virtual')
    .sort(byName);
  const inNetworks = ports.flatMap((port) => {
    const place = networkOfPort(network, port);
    return place === null ? [] : [{ port, place }];
  });
  return inNetworks.length === 0 ? (
    <Card title="Interfaces">
      <Hint>It has no interface in a virtual network.</Hint>
    </Card>
  ) : (
    inNetworks.map((one) => <Interface key={one.port.id} {...one} />)
  );
}
