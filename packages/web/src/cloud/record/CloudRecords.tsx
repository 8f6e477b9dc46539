import {
  addPriceList,
  effectiveRoutes,
  natureOf,
  priceText,
  pricesIn,
  readPrice,
  seatsIn,
  setPrice,
  wayText,
} from '@visograph/core/cloud';
import {
  dateField,
  nameField,
  noted,
  pricedThingNames,
  pricedThings,
  type CloudPriceList,
  type CloudSubnet,
  type ProviderProfile,
  type RuleSet,
} from '@visograph/core/model';
import { useMemo, type ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { useDo } from '../../data/useDo.ts';
import { useFormActs } from '../../data/useFormActs.ts';
import { today } from '../../data/today.ts';
import { useShown } from '../../data/shown.ts';
import { ChoiceIn, DateIn, TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';
import { FactLine, FactList } from '../../record/factList.tsx';
import { KindRecord } from '../../record/KindRecord.tsx';
import { Card, Facts, Goto } from '../../record/parts.tsx';
import { Asked } from '../Asked.tsx';

/** A subnet of a cloud: what it is to the internet, its routes as they work, and who stands in it. */
export function SubnetRecord({ subnet }: { subnet: CloudSubnet }): ReactNode {
  const network = useShown();
  const shown = useMemo(
    () => ({ nature: natureOf(network, subnet), routes: effectiveRoutes(network, subnet) }),
    [network, subnet],
  );
  const gateways = [...new Set([shown.nature.by[4], shown.nature.by[6]])].flatMap(
    (id) => network.get('device', id) ?? [],
  );
  return (
    <KindRecord kind="cloudSubnet" row={subnet}>
      <Card title="Worked out">
        <Facts>
          <dt>To the internet</dt>
          <dd>
            {shown.nature.nature === 'unknown' ? 'unknown: no route table' : shown.nature.nature}
            {gateways.map(({ id, name }) => (
              <span key={id}>
                {' by '}
                <Goto to={{ kind: 'device', id }}>{name}</Goto>
              </span>
            ))}
          </dd>
          <dt>Interfaces</dt>
          <dd>{seatsIn(network, subnet).length}</dd>
        </Facts>
      </Card>
      <Card title="Routes as they work">
        <FactList>
          {shown.routes.routes.map((route) => (
            <FactLine key={`${route.text} ${route.source}`} label="" onRemove={null}>
              {`${route.text} ${route.way.by === 'local' ? 'local' : `through ${wayText(network, route.way)}`}`}
              <small>{route.source === 'learned' ? ' learned' : ''}</small>
            </FactLine>
          ))}
          {shown.routes.idle.map(({ route, text, fault }) => (
            <FactLine key={`${route.id} ${text}`} label="" onRemove={null}>
              {text}
              <small>{` carries nothing: ${fault}`}</small>
            </FactLine>
          ))}
        </FactList>
      </Card>
    </KindRecord>
  );
}

/** A rule set, and what it is tied to. */
export function RuleSetRecord({ set }: { set: RuleSet }): ReactNode {
  const { network } = useProject().view;
  const ports = network.find('ruleSetUsesBySet', set.id).flatMap(({ portId }) => {
    const port = network.get('port', portId);
    const device = network.get('device', port?.deviceId ?? null);
    return port === null || device === null ? [] : [{ id: device.id, text: `${device.name} ${port.name}` }];
  });
  const subnets = network.find('cloudSubnetsByRuleSet', set.id);
  return (
    <KindRecord kind="ruleSet" row={set}>
      <Card title={`Tied to ${ports.length + subnets.length}`}>
        {ports.length + subnets.length === 0 && <Hint>Nothing: it protects nothing.</Hint>}
        <FactList>
          {ports
            .sort((a, b) => (a.text < b.text ? -1 : 1))
            .map(({ id, text }) => (
              <FactLine key={text} label="" onRemove={null}>
                <Goto to={{ kind: 'device', id }}>{text}</Goto>
              </FactLine>
            ))}
          {subnets.map(({ id, name }) => (
            <FactLine key={id} label="" onRemove={null}>
              <Goto to={{ kind: 'cloudSubnet', id }}>{`subnet ${name}`}</Goto>
            </FactLine>
          ))}
        </FactList>
      </Card>
    </KindRecord>
  );
}

const priceForm = z.object({
  of: noted(z.enum(pricedThingNames), { label: 'Of' }),
  which: noted(z.string().trim(), { label: 'Which', help: 'Size of an instance, sort of a gateway' }),
  price: noted(z.string(), { label: 'Price' }),
});
function SetPrice({ list }: { list: CloudPriceList }): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(priceForm, { of: 'instance' as const, which: '', price: '' });
  const { act } = useFormActs(form);
  return (
    <Form
      label={`Set a price in ${list.name}`}
      form={form}
      quiet
      action="Set price"
      onSend={({ of, which, price }) => {
        const millionths = readPrice(price);
        if (millionths === null)
          return form.refuse([
            {
              field: 'price',
              message: `“${price}” is not an amount such as 0.0520, with six decimals at most.`,
            },
          ]);
        return act(setPrice(network, list, { of, which: which === '' ? null : which }, millionths));
      }}
    >
      <ChoiceIn
        name="of"
        options={pricedThingNames.map((id) => ({
          id,
          text: `${pricedThings[id].title}, per ${pricedThings[id].per}`,
        }))}
      />
      <TextIn name="which" />
      <TextIn name="price" />
    </Form>
  );
}

const nextForm = z.object({
  name: trimmed(nameField('Name', 80)),
  currency: noted(z.string(), { label: 'Currency' }),
  validFrom: noted(dateField('Valid from').unwrap(), { label: 'Valid from' }),
});
/** A further list of a provider, with the prices of one that it follows. */
export function NewPriceList({
  profile,
  after,
  close,
}: {
  profile: ProviderProfile;
  after: CloudPriceList | null;
  close: () => void;
}): ReactNode {
  const { network } = useProject().view;
  const { select } = useWhereabouts();
  const form = useSchemaForm(nextForm, {
    ...{ name: '', currency: after?.currency ?? 'EUR', validFrom: today() },
  });
  const { act } = useFormActs(form);
  return (
    <Form
      label={`Add a price list of ${profile.name}`}
      form={form}
      action="Add price list"
      onSend={(wish) => {
        const attempt = addPriceList(network, profile, { ...wish, after });
        act(attempt, () => {
          if (attempt.ok) select({ kind: 'cloudPriceList', id: attempt.list.id });
          close();
        });
      }}
    >
      <TextIn name="name" autoFocus />
      <TextIn name="currency" />
      <DateIn name="validFrom" />
    </Form>
  );
}

/** A price list with its prices. */
export function PriceListRecord({ list }: { list: CloudPriceList }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const act = useDo();
  const profile = network.get('providerProfile', list.profileId);
  return (
    <KindRecord kind="cloudPriceList" row={list}>
      <Card title={`Prices in ${list.currency}`}>
        <FactList>
          {pricesIn(network, list.id).map(({ id, of, which, millionths }) => (
            <FactLine
              key={id}
              label={`Take the price of ${pricedThings[of].title} ${which ?? ''} out`}
              onRemove={canEdit ? () => act(setPrice(network, list, { of, which }, null)) : null}
            >
              <Goto to={{ kind: 'cloudPrice', id }}>
                {which === null ? pricedThings[of].title : `${pricedThings[of].title} ${which}`}
              </Goto>
              {` ${priceText(millionths)}`}
              <small>{` per ${pricedThings[of].per}`}</small>
            </FactLine>
          ))}
        </FactList>
        {canEdit && <SetPrice key={list.id} list={list} />}
      </Card>
      {canEdit && profile !== null && (
        <Card title="Another list">
          <Asked text="Copy to a new list">
            {(close) => <NewPriceList profile={profile} after={list} close={close} />}
          </Asked>
        </Card>
      )}
    </KindRecord>
  );
}

/** What a provider offers: its sorts of gateway and rule set, its words and limits. */
export function ProfileRecord({ profile }: { profile: ProviderProfile }): ReactNode {
  return (
    <KindRecord kind="providerProfile" row={profile}>
      <Card title="Sorts of gateway">
        <FactList>
          {profile.gateways.map(({ sort, direction, families, translates, reach }) => (
            <FactLine key={sort} label="" onRemove={null}>
              {sort}
              <small>{` ${[direction, families.join(' and '), translates ? 'translates' : '', reach].filter(Boolean).join(', ')}`}</small>
            </FactLine>
          ))}
        </FactList>
      </Card>
      <Card title="Sorts of rule set">
        <FactList>
          {profile.ruleSets.map(({ sort, ties, remembers, ordered }) => (
            <FactLine key={sort} label="" onRemove={null}>
              {sort}
              <small>{` tied to ${ties}, ${remembers ? 'remembers' : 'does not remember'}${ordered ? ', in order' : ''}`}</small>
            </FactLine>
          ))}
        </FactList>
      </Card>
    </KindRecord>
  );
}
