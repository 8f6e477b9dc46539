import { create, remove } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import {
  newId,
  portModes,
  readVids,
  formatVids,
  type PortMode,
  type PortProfile,
} from '@visograph/core/model';
import { settingText } from '@visograph/core/switching';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { Choice } from '../kit/choice.tsx';
import { Button, Field } from '../kit/controls.tsx';
import { Empty, Hint } from '../kit/panel/panels.tsx';
import { mono } from '../theme/mono.ts';

const Page = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 14px 16px;
  display: grid;
  grid-template-columns: minmax(300px, 1fr) 280px;
  gap: 20px;
  align-items: start;
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: flex;
    gap: 10px;
    align-items: center;
    padding: 8px 10px;
    margin-bottom: 6px;
    border: 1px solid ${({ theme }) => theme.rule};
    border-radius: 3px;
    background: ${({ theme }) => theme.surface};
  }
  li > span {
    flex: 1;
    min-width: 0;
  }
  code {
    ${mono}
    display: block;
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
  }
  form {
    display: grid;
    gap: 8px;
  }
  h2 {
    font-size: 13px;
  }
`;

interface Typed {
  name: string;
  mode: PortMode;
  untagged: string;
  tagged: string;
  voice: string;
}
const start: Typed = { name: '', mode: 'access', untagged: '', tagged: '', voice: '' };

const typedOf = (profile: PortProfile): Typed => ({
  name: profile.name,
  mode: profile.mode,
  untagged: profile.untaggedVid === null ? '' : String(profile.untaggedVid),
  tagged: profile.taggedVids === null ? '' : formatVids(profile.taggedVids),
  voice: profile.voiceVid === null ? '' : String(profile.voiceVid),
});

type Read = { ok: true; fields: Omit<PortProfile, 'id' | 'notes'> } | { ok: false; why: string };

/** What was typed as fields of a profile, or which of them is wrong. */
function read({ name, mode, untagged, tagged, voice }: Typed): Read {
  const one = (text: string, what: string): number | null | string => {
    const vids = readVids(text);
    if (!vids.ok) return `${what}: ${vids.reason}.`;
    if (vids.vids === 'all' || vids.vids.length > 1) return `${what}: give one number.`;
    return vids.vids[0] ?? null;
  };
  if (name.trim() === '') return { ok: false, why: 'Give the profile a name, such as Camera port.' };
  const [untaggedVid, voiceVid] = [one(untagged, 'Untagged VLAN'), one(voice, 'Voice VLAN')];
  const all = readVids(tagged);
  if (typeof untaggedVid === 'string') return { ok: false, why: untaggedVid };
  if (typeof voiceVid === 'string') return { ok: false, why: voiceVid };
  if (!all.ok) return { ok: false, why: `Tagged VLANs: ${all.reason}.` };
  return {
    ok: true,
    fields: {
      name: name.trim(),
      mode,
      untaggedVid: mode === 'routed' ? null : untaggedVid,
      taggedVids: mode === 'trunk' ? (all.vids === 'all' ? 'all' : [...all.vids]) : null,
      voiceVid: mode === 'access' ? voiceVid : null,
    },
  };
}

/** How kinds of ports are set: made, changed and deleted here, given to ports in their record and by the line. */
export function ProfilesView(): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const profiles = [...network.all('portProfile')].sort((a, b) => (a.name < b.name ? -1 : 1));
  const [editing, setEditing] = useState<PortProfile | null>(null);
  const [typed, setTyped] = useState<Typed>(start);
  const [why, setWhy] = useState<string | null>(null);
  const put = (fields: Partial<Typed>): void => {
    setWhy(null);
    setTyped({ ...typed, ...fields });
  };
  const open = (profile: PortProfile | null): void => {
    setWhy(null);
    setEditing(profile);
    setTyped(profile === null ? start : typedOf(profile));
  };
  const keep = (): void => {
    const made = read(typed);
    if (!made.ok) return setWhy(made.why);
    const set =
      editing === null
        ? {
            changes: [create('portProfile', { ...made.fields, id: newId(), notes: null })],
            sentence: `Added port profile ${made.fields.name}`,
          }
        : editRow(network, 'portProfile', editing, made.fields);
    const done = commit(set);
    if (!done.ok) return setWhy(done.problems[0]?.message ?? 'It cannot be kept.');
    open(null);
  };
  return (
    <Page>
      {profiles.length === 0 ? (
        <Empty title="No port profiles yet">
          A profile says how a kind of port is set, such as “Camera port: access, VLAN 40”. Ports then take it
          in their record, or by the line: set kq-acc-5 gi1/3-10 as Camera port.
        </Empty>
      ) : (
        <ul aria-label="Port profiles">
          {profiles.map((profile) => (
            <li key={profile.id}>
              <span>
                <strong>{profile.name}</strong>
                <code>{settingText(profile)}</code>
              </span>
              {canEdit && (
                <>
                  <Button aria-label={`Edit ${profile.name}`} onPress={() => open(profile)}>
                    Edit
                  </Button>
                  <Button
                    aria-label={`Delete ${profile.name}`}
                    onPress={() => {
                      open(null);
                      void commit({
                        changes: [remove('portProfile', profile)],
                        sentence: `Deleted port profile ${profile.name}; ports stay as they are set`,
                      });
                    }}
                  >
                    Delete
                  </Button>
                </>
              )}
            </li>
          ))}
        </ul>
      )}
      {canEdit && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            keep();
          }}
        >
          <h2>{editing === null ? 'New profile' : `Profile ${editing.name}`}</h2>
          <Field label="Name" value={typed.name} onChange={(name) => put({ name })} />
          <Choice
            label="Mode"
            value={typed.mode}
            options={portModes.map((mode) => ({ id: mode, text: mode }))}
            onChange={(id) => put({ mode: portModes.find((mode) => mode === id) ?? 'access' })}
          />
          {typed.mode !== 'routed' && (
            <Field
              label="Untagged VLAN"
              mono
              value={typed.untagged}
              onChange={(untagged) => put({ untagged })}
            />
          )}
          {typed.mode === 'trunk' && (
            <Field
              label="Tagged VLANs"
              mono
              value={typed.tagged}
              onChange={(tagged) => put({ tagged })}
              help="10,20,30-34, or all"
            />
          )}
          {typed.mode === 'access' && (
            <Field label="Voice VLAN" mono value={typed.voice} onChange={(voice) => put({ voice })} />
          )}
          {why !== null && <Hint role="alert">{why}</Hint>}
          <div>
            <Button type="submit" $tone="primary">
              {editing === null ? 'Add profile' : 'Keep profile'}
            </Button>{' '}
            {editing !== null && <Button onPress={() => open(null)}>Cancel</Button>}
          </div>
        </form>
      )}
    </Page>
  );
}
