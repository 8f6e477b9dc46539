import { create, remove, update, type Change } from '../../../change/change.ts';
import { blankGateway } from '../../../model/kinds/cloud/gateway.ts';
import { blankInstance } from '../../../model/kinds/cloud/instance.ts';
import { gatewayDirections } from '../../../model/kinds/cloud/providerProfile.ts';
import { blankDevice, type Device } from '../../../model/kinds/equipment/device.ts';
import { blankPort, type Port } from '../../../model/kinds/lines/port.ts';
import { blankAddress } from '../../../model/kinds/logical/address.ts';
import type { Place } from '../../../model/kinds/sites/place.ts';
import { newId } from '../../../model/values/ids.ts';
import { vrfOf } from '../../inventory.ts';
import { observedRoles } from '../../observed/observed.ts';
import { missing, oneOf, texts, type Facts, type Taking, type Ways } from './taking.ts';

function seat(
  taking: Taking,
  port: Port,
  vrfId: string | null,
  place: Place | null,
  facts: Facts,
): (Change | null)[] {
  const { network } = taking;
  const wanted = texts(facts['addresses'] ?? '');
  const there = network.find('addressesByPort', port.id);
  const sets =
    place === null ? [] : texts(facts['rule sets'] ?? '').map((name) => taking.set(place, name).id);
  const uses = network.find('ruleSetUsesByPort', port.id);
  return [
    ...there.filter(({ address }) => !wanted.includes(address)).map((row) => remove('address', row)),
    ...wanted
      .filter((address) => !there.some((row) => row.address === address))
      .map((address) => create('address', { ...blankAddress, id: newId(), address, vrfId, portId: port.id })),
    ...uses.filter(({ setId }) => !sets.includes(setId)).map((use) => remove('ruleSetUse', use)),
    ...sets
      .filter((setId) => !uses.some((use) => use.setId === setId))
      .map((setId) => create('ruleSetUse', { id: newId(), setId, portId: port.id })),
  ];
}

function instanceRows(taking: Taking, facts: Facts) {
  const place =
    (facts['network'] ?? '') === ''
      ? taking.region(facts['region'] ?? '')
      : taking.networkNamed(facts['network'] ?? '');
  return {
    device: { role: oneOf(observedRoles, facts['role'] ?? '', 'sort of instance'), placeId: place.id },
    instance: {
      size: (facts['size'] ?? '') === '' ? null : (facts['size'] ?? null),
      running: facts['running'] === 'yes',
    },
  };
}

/** Gateways, instances and their interfaces. */
export const deviceWays = {
  gateway: {
    added: (taking, key, facts) => {
      const place = (facts['network'] ?? '') === '' ? null : taking.networkNamed(facts['network'] ?? '');
      const placeId = place?.id ?? taking.region(facts['region'] ?? '').id;
      const device: Device = { ...blankDevice, ...{ id: newId(), name: key, role: 'GW', placeId, units: 0 } };
      return [
        create('device', device),
        create('gateway', {
          ...blankGateway,
          ...{ id: newId(), deviceId: device.id, networkId: place?.id ?? null },
          direction: oneOf(gatewayDirections, facts['direction'] ?? '', 'direction'),
          translates: facts['translates'] === 'yes',
        }),
      ];
    },
    changed: (taking, key, facts) => {
      const gateway = taking.network.findOne('gatewayByDevice', taking.device(key).id);
      return gateway === null
        ? missing('The gateway', key)
        : [
            update('gateway', gateway, {
              networkId:
                (facts['network'] ?? '') === '' ? null : taking.networkNamed(facts['network'] ?? '').id,
              direction: oneOf(gatewayDirections, facts['direction'] ?? '', 'direction'),
              translates: facts['translates'] === 'yes',
            }),
          ];
    },
    gone: (taking, key) => [update('device', taking.device(key), { status: 'retired' })],
  },
  instance: {
    added: (taking, key, facts) => {
      const { device, instance } = instanceRows(taking, facts);
      const id = newId();
      return [
        create('device', { ...blankDevice, ...device, ...{ id, name: key, units: 0 } }),
        create('instance', { ...blankInstance, ...instance, id: newId(), deviceId: id }),
      ];
    },
    changed: (taking, key, facts) => {
      const { device, instance } = instanceRows(taking, facts);
      const row = taking.device(key);
      const known = taking.network.findOne('instanceByDevice', row.id);
      return [
        update('device', row, device),
        known === null
          ? create('instance', { ...blankInstance, ...instance, id: newId(), deviceId: row.id })
          : update('instance', known, instance),
      ];
    },
    gone: (taking, key) => [update('device', taking.device(key), { status: 'retired' })],
  },
  interface: {
    added: (taking, key, facts) => {
      const at = key.lastIndexOf(':');
      const device = taking.device(key.slice(0, at));
      const place = (facts['network'] ?? '') === '' ? null : taking.networkNamed(facts['network'] ?? '');
      const vrfId = place === null ? null : vrfOf(taking.network, place.id);
      const port: Port = {
        ...blankPort,
        ...{ id: newId(), deviceId: device.id, name: key.slice(at + 1), form: 'virtual', vrfId },
      };
      return [create('port', port), ...seat(taking, port, vrfId, place, facts)];
    },
    changed: (taking, key, facts) => {
      const { port } = taking.nic(key);
      const place = (facts['network'] ?? '') === '' ? null : taking.networkNamed(facts['network'] ?? '');
      const vrfId = place === null ? null : vrfOf(taking.network, place.id);
      return [update('port', port, { vrfId }), ...seat(taking, port, vrfId, place, facts)];
    },
    gone: (taking, key) => taking.without('port', taking.nic(key).port.id),
  },
} satisfies Record<string, Ways>;
