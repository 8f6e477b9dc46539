import { noted, nameField, dateField, amountField, countField, textField } from '@visograph/core/model';
import { Lock, Printer, Rows3 } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { FixedTheme } from '../theme/theme.tsx';
import { z } from 'zod';
import { ActPanel } from './panel/ActPanel.tsx';
import { Choice, Picker } from './choice.tsx';
import { Button, Field, Keycap } from './controls.tsx';
import { DeviceChip } from './DeviceChip.tsx';
import { Filter } from './Filter.tsx';
import { ChoiceIn, DateIn, NumberIn, TextIn, TickIn } from './form/fields.tsx';
import { Form } from './form/Form.tsx';
import { trimmed, useSchemaForm } from './form/useSchemaForm.ts';
import { Grid } from './grid/Grid.tsx';
import { OrderedList } from './OrderedList.tsx';
import { Empty, Hint, Mono, RoleMark, StateMark } from './panel/panels.tsx';
import { Tick } from './Tick.tsx';
import { Tool } from './Tool.tsx';
import { Views } from './Views.tsx';

const Half = styled.section`
  flex: 1;
  min-width: 0;
  padding: 18px 22px 40px;
  display: grid;
  gap: 16px;
  align-content: start;
  background: ${({ theme }) => theme.surface};
  color: ${({ theme }) => theme.ink};
  > h1 {
    font-size: 19px;
  }
  > div > h2 {
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
    margin-bottom: 6px;
  }
`;
const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: flex-start;
`;
const Narrow = styled(Line)`
  container: tools / inline-size;
`;

const schema = z.object({
  name: trimmed(nameField('Name')),
  units: countField('Units', 1, 60, 'U'),
  mass: amountField('Mass limit', 5000, 'kg', 'With everything in it'),
  installedOn: dateField('Installed on'),
  face: noted(z.enum(['front', 'rear']), { label: 'Face' }),
  fills: noted(z.boolean(), { label: 'Fills both faces' }),
  notes: textField('Notes'),
});

const options = ['role', 'status', 'model'].map((id) => ({ id, text: id }));
const views = { list: 'VLANs', links: 'On links' };

/** Each part under its name, so that a look at the page finds what is out of line. */
function Part({ name, children }: { name: string; children: ReactNode }): ReactNode {
  return (
    <div>
      <h2>{name}</h2>
      {children}
    </div>
  );
}

function Forms(): ReactNode {
  const form = useSchemaForm(schema, {
    name: 'KQ-A1',
    units: 72,
    mass: null,
    installedOn: '2031-06-30',
    face: 'front',
    fills: true,
    notes: null,
  });
  return (
    <Form label="A rack" form={form} action="Keep" onSend={() => undefined} beside={<Button>Cancel</Button>}>
      <TextIn name="name" />
      <NumberIn name="units" />
      <NumberIn name="mass" />
      <DateIn name="installedOn" />
      <ChoiceIn name="face" options={['front', 'rear'].map((id) => ({ id, text: id }))} />
      <TickIn name="fills" />
      <TextIn name="notes" nullable />
    </Form>
  );
}

function Controls({ theme }: { theme: string }): ReactNode {
  const [view, setView] = useState<keyof typeof views>('list');
  const [colour, setColour] = useState<string | null>('role');
  const [ticked, setTicked] = useState(true);
  const [open, setOpen] = useState(false);
  const [order, setOrder] = useState(['Staff', 'Cameras', 'Guests'].map((id) => ({ id })));
  return (
    <Half aria-label={theme}>
      <h1>{theme}</h1>
      <Part name="Buttons">
        <Line>
          <Button $tone="primary">Add device</Button>
          <Button>
            Connect<Keycap>C</Keycap>
          </Button>
          <Button $tone="quiet">Cancel</Button>
          <Button isDisabled>Tidy</Button>
          <Button aria-pressed>Rows</Button>
        </Line>
      </Part>
      <Part name="Tools">
        <Line>
          <Tool icon={Printer} word="Print" />
          <Tool icon={Rows3} word="Rows" keycap="=" />
          <Tool icon={Lock} word="Lock" isDisabled />
        </Line>
      </Part>
      <Part name="Tools of a narrow line">
        <Narrow>
          <Tool icon={Printer} word="Print" />
          <Tool icon={Rows3} word="Rows" keycap="=" />
        </Narrow>
      </Part>
      <Part name="Fields">
        <Line>
          <Field label="Name" value="kq-acc-1" onChange={() => undefined} width={150} />
          <Field
            label="Number"
            mono
            value="4095"
            onChange={() => undefined}
            width={150}
            error="Number is above 4094."
          />
          <Field
            label="Password"
            type="password"
            value=""
            onChange={() => undefined}
            help="At least 10 characters"
          />
          <Filter value="" onChange={() => undefined} />
        </Line>
      </Part>
      <Part name="Choices">
        <Line>
          <Choice label="Colour by" value={colour} options={options} onChange={setColour} width={140} />
          <Picker label="Model" value={colour} options={options} onChange={setColour} width={170} />
          <Tick isSelected={ticked} onChange={setTicked}>
            Cables between the racks
          </Tick>
          <Views views={views} shown={view} onShow={setView} />
        </Line>
      </Part>
      <Part name="Form">
        <Forms />
      </Part>
      <Part name="A list in an order">
        <OrderedList label="VLANs in order" items={order} textOf={({ id }) => id} onOrder={setOrder}>
          {({ id }) => id}
        </OrderedList>
      </Part>
      <Part name="Marks">
        <Line>
          <RoleMark role="SW" />
          <RoleMark role="FW" />
          <StateMark state="ok" />
          <StateMark state="warn" />
          <StateMark state="bad" />
          <DeviceChip name="kq-core-1" role="SW" selected={false} onChoose={() => undefined} />
          <Mono>10.40.0.0/19</Mono>
          <Hint>All links have their subnet.</Hint>
        </Line>
      </Part>
      <Part name="Grid">
        <div style={{ height: 120, display: 'flex' }}>
          <Grid
            label={`Devices in ${theme}`}
            columns={[
              { key: 'name', label: 'Name', width: 120, text: true, editable: true },
              { key: 'units', label: 'Units', width: 70, numeric: true },
            ]}
            rows={[
              { id: 'a', cells: { name: 'kq-core-1', units: 1 } },
              { id: 'b', cells: { name: 'kq-acc-1', units: 1 } },
            ]}
            selectedId="a"
            onSelect={() => undefined}
            onEdit={() => null}
          />
        </div>
      </Part>
      <Part name="Nothing there">
        <Empty title="No VRFs yet">Everything is in the global table.</Empty>
      </Part>
      <Part name="A panel that does something">
        <Button onPress={() => setOpen(true)}>Number links …</Button>
        <ActPanel
          title="Number links"
          open={open}
          onOpenChange={setOpen}
          fields={<Field label="Length" mono value="/31" onChange={() => undefined} width={90} />}
          note="5 of 12 routed links have no subnet yet."
          action="Number 5 links"
          onAct={() => true}
        />
      </Part>
    </Half>
  );
}

/** Every part of the kit in both themes; served at /kit while developing. */
export default function KitPage(): ReactNode {
  return (
    <main style={{ display: 'flex', minHeight: '100%' }}>
      {(
        [
          ['Paper', 'paper'],
          ['Night', 'night'],
        ] as const
      ).map(([title, name]) => (
        <FixedTheme key={name} name={name}>
          <Controls theme={title} />
        </FixedTheme>
      ))}
    </main>
  );
}
