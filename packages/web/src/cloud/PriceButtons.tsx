import { estimateFlow, instancesOf, readCloudPriceRows } from '@visograph/core/cloud';
import { noted, type CloudPriceList, type Place } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { z } from 'zod';
import { addressOf } from '../data/api.ts';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useFormActs } from '../data/useFormActs.ts';
import { Button } from '../kit/controls.tsx';
import { ChoiceIn, NumberIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { ImportRows } from '../kit/ImportRows.tsx';
import { Asked } from './Asked.tsx';

const help =
  'A spreadsheet (.xlsx or .csv) with headings in its first row: Of (instance, storage, gateway, traffic between zones …), Price, and where there are several Which (the size or sort), and if wished Currency. It is read as “Save prices” writes it.';

const flowForm = z.object({
  fromId: noted(z.string({ error: 'is to be chosen' }), { label: 'From' }),
  toId: noted(z.string().nullable(), { label: 'To' }),
  gb: noted(z.number({ error: 'is to be a number' }).min(0, 'is negative'), {
    label: 'Per month',
    unit: 'GB',
  }),
});
function Flow({ place, close }: { place: Place; close: () => void }): ReactNode {
  const { network } = useProject().view;
  const instances = instancesOf(network, place.id);
  const form = useSchemaForm(flowForm, { fromId: instances[0]?.id ?? '', toId: null, gb: 0 });
  const { act } = useFormActs(form);
  const options = instances.map(({ id, name }) => ({ id, text: name }));
  return (
    <Form
      label="Reckon a flow"
      form={form}
      action="Keep it"
      onSend={({ fromId, toId, gb }) => {
        const from = network.get('device', fromId);
        if (from === null) return form.refuse([{ field: 'fromId', message: 'Choose where it comes from.' }]);
        return act(estimateFlow(network, from, network.get('device', toId), gb), close);
      }}
    >
      <ChoiceIn name="fromId" options={options} />
      <ChoiceIn name="toId" none="the internet" options={options} />
      <NumberIn name="gb" />
    </Form>
  );
}

/** What can be done with prices: looked at, taken in, saved; and what is reckoned to flow. */
export function PriceButtons({
  place,
  list,
  canEdit,
}: {
  place: Place;
  list: CloudPriceList;
  canEdit: boolean;
}): ReactNode {
  const { project, view } = useProject();
  const { select } = useWhereabouts();
  const [taking, setTaking] = useState(false);
  return (
    <>
      <Button onPress={() => select({ kind: 'cloudPriceList', id: list.id })}>Prices</Button>
      <Button
        onPress={() =>
          window.location.assign(
            addressOf('GET /projects/:project/reports/:report', {
              params: { project: project.id, report: 'cloud-prices' },
              query: { format: 'csv' },
            }),
          )
        }
      >
        Save prices
      </Button>
      {canEdit && <Button onPress={() => setTaking(true)}>Take in prices</Button>}
      {canEdit && <Asked text="Reckon a flow">{(close) => <Flow place={place} close={close} />}</Asked>}
      {taking && (
        <ImportRows
          title={`Take prices into ${list.name}`}
          help={help}
          read={(rows) => readCloudPriceRows(view.network, list, rows)}
          open
          onOpenChange={(next) => !next && setTaking(false)}
        />
      )}
    </>
  );
}
