import {
  addBlock,
  addGateway,
  addRoute,
  addSubnet,
  addTable,
  freeInBlocks,
  gatewaysOf,
  tablesOf,
  zonesAround,
  type RouteTarget,
} from '@visograph/core/cloud';
import { nameField, noted, profileAround, readPrefix, type Network, type Place } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useFormActs } from '../data/useFormActs.ts';
import { ChoiceIn, TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { Asked } from './Asked.tsx';

interface Props {
  place: Place;
}
interface Closing extends Props {
  close: () => void;
}
const text = (label: string, help?: string) =>
  noted(z.string(), help === undefined ? { label } : { label, help });

const subnetForm = z.object({
  name: trimmed(nameField('Name', 60)),
  zoneId: noted(z.string().nullable(), { label: 'Zone' }),
  prefix: text('Prefix', 'The next free one is proposed'),
  routeTableId: noted(z.string().nullable(), { label: 'Route table' }),
});
function SubnetFields({ place, close }: Closing): ReactNode {
  const { network } = useProject().view;
  const { select } = useWhereabouts();
  const zones = zonesAround(network, place.id);
  const tables = tablesOf(network, place.id);
  const form = useSchemaForm(subnetForm, {
    ...{ name: '', zoneId: zones[0]?.id ?? null, prefix: freeInBlocks(network, place.id, 200) ?? '' },
    routeTableId: tables[0]?.id ?? null,
  });
  const { act } = useFormActs(form);
  return (
    <Form
      label="Add a subnet"
      form={form}
      action="Add subnet"
      onSend={(wish) => {
        const attempt = addSubnet(network, place, wish);
        act(attempt, () => {
          if (attempt.ok) select({ kind: 'cloudSubnet', id: attempt.subnet.id });
          close();
        });
      }}
    >
      <TextIn name="name" autoFocus />
      <ChoiceIn
        name="zoneId"
        none="the whole region"
        options={zones.map(({ id, name }) => ({ id, text: name }))}
      />
      <TextIn name="prefix" />
      <ChoiceIn
        name="routeTableId"
        none="none yet"
        options={tables.map(({ id, name }) => ({ id, text: name }))}
      />
    </Form>
  );
}

const blockForm = z.object({ prefix: text('Block', 'Private space, beside the blocks it has') });
function BlockFields({ place, close }: Closing): ReactNode {
  const { network } = useProject().view;
  const { select } = useWhereabouts();
  const form = useSchemaForm(blockForm, { prefix: '' });
  const { act } = useFormActs(form);
  return (
    <Form
      label="Add a block"
      form={form}
      action="Add block"
      onSend={({ prefix }) => {
        const attempt = addBlock(network, place, prefix);
        act(attempt, () => {
          if (attempt.ok) select({ kind: 'prefix', id: attempt.prefixId });
          close();
        });
      }}
    >
      <TextIn name="prefix" autoFocus />
    </Form>
  );
}

/** Further subnets and blocks of a network. */
export const SubnetButtons = ({ place }: Props): ReactNode => (
  <>
    <Asked text="Add block" end>
      {(close) => <BlockFields place={place} close={close} />}
    </Asked>
    <Asked text="Add subnet" primary end>
      {(close) => <SubnetFields place={place} close={close} />}
    </Asked>
  </>
);

const tableForm = z.object({ name: trimmed(nameField('Name', 60)) });
function TableFields({ place, close }: Closing): ReactNode {
  const { network } = useProject().view;
  const { select } = useWhereabouts();
  const form = useSchemaForm(tableForm, { name: '' });
  const { act } = useFormActs(form);
  return (
    <Form
      label="Add a route table"
      form={form}
      action="Add table"
      onSend={({ name }) => {
        const attempt = addTable(network, place, name);
        act(attempt, () => {
          if (attempt.ok) select({ kind: 'routeTable', id: attempt.table.id });
          close();
        });
      }}
    >
      <TextIn name="name" autoFocus />
    </Form>
  );
}

/** What a route of a network can lead through: its gateways, its peerings, or nowhere. */
function targets(network: Network, place: Place): { id: string; text: string }[] {
  const hubs = network
    .find('hubAttachmentsByNetwork', place.id)
    .flatMap(({ hubId }) => network.get('device', hubId) ?? []);
  return [
    ...gatewaysOf(network, place.id).map(({ device }) => ({ id: `gateway ${device.id}`, text: device.name })),
    ...hubs.map(({ id, name }) => ({ id: `gateway ${id}`, text: name })),
    ...network
      .find('peeringsByNetwork', place.id)
      .map(({ id, name }) => ({ id: `peering ${id}`, text: `peering ${name}` })),
    { id: 'nowhere', text: 'nowhere: dropped' },
  ];
}
const targetOf = (chosen: string): RouteTarget => {
  const [kind, id = ''] = chosen.split(' ');
  return kind === 'gateway' ? { gatewayId: id } : kind === 'peering' ? { peeringId: id } : { discard: true };
};

const routeForm = z.object({
  tableId: noted(z.string(), { label: 'Route table' }),
  prefix: text('Destination', '0.0.0.0/0 for everything else'),
  through: noted(z.string(), { label: 'Through' }),
});
function RouteFields({ place }: Props): ReactNode {
  const { network } = useProject().view;
  const tables = tablesOf(network, place.id);
  const ways = targets(network, place);
  const form = useSchemaForm(routeForm, {
    ...{ tableId: tables[0]?.id ?? '', prefix: '', through: ways[0]?.id ?? 'nowhere' },
  });
  const { act } = useFormActs(form);
  return (
    <Form
      label="Add a route"
      form={form}
      action="Add route"
      onSend={(wish) => {
        const table = network.get('routeTable', wish.tableId);
        const read = readPrefix(wish.prefix.trim());
        if (table === null)
          return form.refuse([{ field: 'tableId', message: 'Choose the table it stands in.' }]);
        if (!read.ok)
          return form.refuse([{ field: 'prefix', message: `“${wish.prefix.trim()}” ${read.reason}.` }]);
        act(addRoute(network, table, wish.prefix.trim(), targetOf(wish.through)), () =>
          form.control.reset({ ...wish, prefix: '' }),
        );
        return undefined;
      }}
    >
      <ChoiceIn name="tableId" options={tables.map(({ id, name }) => ({ id, text: name }))} />
      <TextIn name="prefix" autoFocus />
      <ChoiceIn name="through" options={ways} />
    </Form>
  );
}

/** Further route tables and routes of a network. */
export function RouteButtons({ place }: Props): ReactNode {
  const { network } = useProject().view;
  return (
    <>
      <Asked text="Add table" end>
        {(close) => <TableFields place={place} close={close} />}
      </Asked>
      <Asked
        text="Add route"
        primary
        end
        isDisabled={network.countOf('routeTablesByNetwork', place.id) === 0}
      >
        {() => <RouteFields place={place} />}
      </Asked>
    </>
  );
}

const gatewayForm = z.object({
  name: trimmed(nameField('Name', 80)),
  sort: noted(z.string().nullable(), { label: 'Sort' }),
});
function GatewayFields({ place, close }: Closing): ReactNode {
  const { network } = useProject().view;
  const { select } = useWhereabouts();
  const sorts = profileAround(network, place.id)?.gateways ?? [];
  const form = useSchemaForm(gatewayForm, { name: '', sort: sorts[0]?.sort ?? null });
  const { act } = useFormActs(form);
  return (
    <Form
      label="Add a gateway"
      form={form}
      action="Add gateway"
      onSend={(wish) => {
        const attempt = addGateway(network, place, wish);
        act(attempt, () => {
          if (attempt.ok) select({ kind: 'device', id: attempt.deviceId });
          close();
        });
      }}
    >
      <TextIn name="name" autoFocus />
      <ChoiceIn
        name="sort"
        none="set by hand"
        options={sorts.map(({ sort }) => ({ id: sort, text: sort }))}
      />
    </Form>
  );
}

/** A further gateway of a network. */
export const GatewayButtons = ({ place }: Props): ReactNode => (
  <Asked text="Add gateway" primary end>
    {(close) => <GatewayFields place={place} close={close} />}
  </Asked>
);
