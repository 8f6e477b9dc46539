import {
  formatVids,
  portModes,
  portTitle,
  type Network,
  type Port,
  type PortSwitching,
} from '@visograph/core/model';
import {
  applyProfile,
  numberingOfPort,
  layer2Of,
  settingText,
  setPort,
  setSwitching,
  vlanText,
} from '@visograph/core/switching';
import { useState, type ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useFormActs } from '../../data/useFormActs.ts';
import { Choice } from '../../kit/choice.tsx';
import { TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';
import { Tick } from '../../kit/Tick.tsx';
import { Card, Facts, Goto } from '../../record/parts.tsx';
import { vidIn, vidsIn, vidsText, vidText } from '../vidTexts.ts';

/** The switched port at the other end of the run from a port, or its aggregate. */
function farSwitchPort(network: Network, port: Port): Port | null {
  const { bridging } = layer2Of(network);
  const [plugged] = port.form === 'aggregate' ? network.find('portsByAggregate', port.id) : [port];
  const far = network.get('port', plugged === undefined ? null : bridging.farOf(plugged.id));
  const at = far === null ? undefined : bridging.byMember.get(far.id);
  return at?.bridge.form === 'switch' ? at.port : null;
}

const inForce = ({ mode, untaggedVid, taggedVids, voiceVid }: Port): PortSwitching => ({
  mode,
  untaggedVid,
  taggedVids,
  voiceVid,
});

const vlanTexts = z.object({
  untagged: vidText('Untagged VLAN'),
  tagged: vidsText('Tagged VLANs'),
  voice: vidText('Voice VLAN'),
});
const textsOf = ({ untaggedVid, taggedVids, voiceVid }: Port): z.infer<typeof vlanTexts> => ({
  untagged: untaggedVid === null ? '' : String(untaggedVid),
  tagged: taggedVids === null ? '' : formatVids(taggedVids),
  voice: voiceVid === null ? '' : String(voiceVid),
});

/** The VLANs of a switched port as numbers; `targets`: the ports that are set alike. */
function VlansForm({ target, targets }: { target: Port; targets: readonly Port[] }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const form = useSchemaForm(vlanTexts, textsOf(target), textsOf(target));
  const { act } = useFormActs(form);
  const { mode, untaggedVid } = target;
  return (
    <Form
      label="VLANs"
      form={form}
      action="Keep"
      changes
      readOnly={!canEdit}
      onSend={({ untagged, tagged, voice }) =>
        act(
          setSwitching(network, targets, {
            mode,
            untaggedVid: vidIn(untagged),
            taggedVids: mode === 'trunk' ? vidsIn(tagged) : null,
            voiceVid: mode === 'access' ? vidIn(voice) : null,
          }),
        )
      }
    >
      <TextIn
        name="untagged"
        mono
        help={
          untaggedVid === null ? undefined : vlanText(network, numberingOfPort(network, target), untaggedVid)
        }
      />
      {mode === 'trunk' && (
        <TextIn name="tagged" mono help="Numbers and ranges, such as 10,20,30-34, or all" />
      )}
      {mode === 'access' && <TextIn name="voice" mono />}
    </Form>
  );
}

/** What VLANs a port takes part in: its mode, the untagged VLAN, the tagged ones; of a member, those of its aggregate. */
export function SwitchingCard({ port, bothEnds = false }: { port: Port; bothEnds?: boolean }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const target = setPort(network, port);
  const [why, setWhy] = useState<string | null>(null);
  const numberingId = numberingOfPort(network, target);
  const numbering = network.get('vlanNumbering', numberingId);
  const [both, setBoth] = useState(bothEnds);
  const far = farSwitchPort(network, port);
  const targets = both && far !== null ? [target, far] : [target];
  const profiles = [...network.all('portProfile')].sort((a, b) => (a.name < b.name ? -1 : 1));
  const takeProfile = (id: string | null): void => {
    const profile = network.get('portProfile', id);
    if (profile === null) return;
    const attempt = applyProfile(network, targets, profile);
    setWhy(attempt.ok ? null : attempt.why);
    if (attempt.ok) commit(attempt.set);
  };
  const set = (fields: Partial<PortSwitching>): void => {
    const attempt = setSwitching(network, targets, fields);
    setWhy(attempt.ok ? null : attempt.why);
    if (attempt.ok) commit(attempt.set);
  };
  const switched = target.mode === 'access' || target.mode === 'trunk';
  return (
    <Card title={bothEnds ? 'VLANs of the link' : 'VLANs'}>
      <Facts>
        {target.id !== port.id && (
          <>
            <dt>Member of</dt>
            <dd>
              <Goto to={{ kind: 'port', id: target.id }}>
                {portTitle(network, target.id).replace(':', ' ')}
              </Goto>
            </dd>
          </>
        )}
        <dt>Mode</dt>
        <dd>
          <Choice
            label="Mode"
            hideLabel
            width={130}
            value={target.mode ?? 'none'}
            options={[
              { id: 'none', text: 'not switched', disabled: !canEdit },
              ...portModes.map((mode) => ({ id: mode, text: mode, disabled: !canEdit })),
            ]}
            onChange={(id) => set({ mode: portModes.find((mode) => mode === id) ?? null })}
          />
        </dd>
        {canEdit && profiles.length > 0 && (
          <>
            <dt>Profile</dt>
            <dd>
              <Choice
                label="Profile"
                hideLabel
                width={150}
                value={profiles.find((one) => settingText(one) === settingText(inForce(target)))?.id ?? null}
                options={profiles.map((one) => ({ id: one.id, text: one.name, detail: settingText(one) }))}
                onChange={takeProfile}
              />
            </dd>
          </>
        )}
        {numbering !== null && switched && (
          <>
            <dt>Numbering</dt>
            <dd>{numbering.name}</dd>
          </>
        )}
      </Facts>
      {canEdit && far !== null && (
        <Tick isSelected={both} onChange={setBoth}>
          {`Set the far end alike: ${portTitle(network, far.id).replace(':', ' ')}`}
        </Tick>
      )}
      {switched && <VlansForm key={target.id} target={target} targets={targets} />}
      {why !== null && <Hint role="alert">{why}</Hint>}
    </Card>
  );
}

/** The VLANs of a link between two switches: set at both ends at once, or at this end alone. */
export function LinkSwitchingCard({ portId }: { portId: string | null }): ReactNode {
  const { network } = useProject().view;
  const port = network.get('port', portId);
  if (port === null) return null;
  const { mode } = setPort(network, port);
  if ((mode !== 'trunk' && mode !== 'access') || farSwitchPort(network, port) === null) return null;
  return <SwitchingCard port={port} bothEnds />;
}
