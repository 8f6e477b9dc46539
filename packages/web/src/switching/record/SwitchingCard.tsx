import {
  formatVids,
  portModes,
  portTitle,
  readVids,
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
import { useProject } from '../../data/project.tsx';
import { Choice } from '../../kit/choice.tsx';
import { Button, Field } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Tick } from '../../kit/Tick.tsx';
import { Card, Facts, Goto } from '../../record/parts.tsx';

const one = (text: string): { ok: true; vid: number | null } | { ok: false; why: string } => {
  const read = readVids(text);
  if (!read.ok) return { ok: false, why: read.reason };
  if (read.vids === 'all' || read.vids.length > 1) return { ok: false, why: 'it is one number' };
  return { ok: true, vid: read.vids[0] ?? null };
};

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

/** What VLANs a port takes part in: its mode, the untagged VLAN, the tagged ones; of a member, those of its aggregate. */
export function SwitchingCard({ port, bothEnds = false }: { port: Port; bothEnds?: boolean }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const target = setPort(network, port);
  const shown = `${target.id} ${target.mode} ${target.untaggedVid} ${formatVids(target.taggedVids ?? [])} ${target.voiceVid}`;
  const [from, setFrom] = useState(shown);
  const texts = {
    untagged: target.untaggedVid === null ? '' : String(target.untaggedVid),
    tagged: target.taggedVids === null ? '' : formatVids(target.taggedVids),
    voice: target.voiceVid === null ? '' : String(target.voiceVid),
  };
  const [typed, setTyped] = useState(texts);
  const [why, setWhy] = useState<string | null>(null);
  if (from !== shown) {
    setFrom(shown);
    setTyped(texts);
    setWhy(null);
  }
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
  const keep = (): void => {
    const [untagged, voice] = [one(typed.untagged), one(typed.voice)];
    const tagged = readVids(typed.tagged);
    if (!untagged.ok) return setWhy(`Untagged VLAN: ${untagged.why}.`);
    if (!voice.ok) return setWhy(`Voice VLAN: ${voice.why}.`);
    if (!tagged.ok) return setWhy(`Tagged VLANs: ${tagged.reason}.`);
    const vids = tagged.vids === 'all' ? 'all' : [...tagged.vids];
    set({
      mode: target.mode,
      untaggedVid: untagged.vid,
      taggedVids: target.mode === 'trunk' ? vids : null,
      voiceVid: target.mode === 'access' ? voice.vid : null,
    });
  };
  const changed = JSON.stringify(typed) !== JSON.stringify(texts);
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
      {switched && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            keep();
          }}
        >
          <Field
            label="Untagged VLAN"
            mono
            readOnly={!canEdit}
            value={typed.untagged}
            onChange={(untagged) => setTyped({ ...typed, untagged })}
            help={
              target.untaggedVid === null ? undefined : vlanText(network, numberingId, target.untaggedVid)
            }
          />
          {target.mode === 'trunk' && (
            <Field
              label="Tagged VLANs"
              mono
              readOnly={!canEdit}
              value={typed.tagged}
              onChange={(tagged) => setTyped({ ...typed, tagged })}
              help="Numbers and ranges, such as 10,20,30-34, or all"
            />
          )}
          {target.mode === 'access' && (
            <Field
              label="Voice VLAN"
              mono
              readOnly={!canEdit}
              value={typed.voice}
              onChange={(voice) => setTyped({ ...typed, voice })}
            />
          )}
          {canEdit && changed && (
            <Button type="submit" $tone="primary">
              Keep
            </Button>
          )}
        </form>
      )}
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
