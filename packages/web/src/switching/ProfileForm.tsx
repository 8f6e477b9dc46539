import { create } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import {
  formatVids,
  newId,
  noted,
  portModes,
  portProfileSchema,
  type PortProfile,
} from '@visograph/core/model';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { useFormActs } from '../data/useFormActs.ts';
import { Button } from '../kit/controls.tsx';
import { ChoiceIn, TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { vidIn, vidsIn, vidsText, vidText } from './vidTexts.ts';

const profileTexts = z.object({
  name: trimmed(portProfileSchema.shape.name),
  mode: noted(z.enum(portModes), { label: 'Mode' }),
  untagged: vidText('Untagged VLAN'),
  tagged: vidsText('Tagged VLANs'),
  voice: vidText('Voice VLAN'),
});
type Texts = z.infer<typeof profileTexts>;

const textsOf = (profile: PortProfile): Texts => ({
  name: profile.name,
  mode: profile.mode,
  untagged: profile.untaggedVid === null ? '' : String(profile.untaggedVid),
  tagged: profile.taggedVids === null ? '' : formatVids(profile.taggedVids),
  voice: profile.voiceVid === null ? '' : String(profile.voiceVid),
});
/** What the texts come to: what a mode has no use for is left out. */
const fieldsOf = ({ name, mode, untagged, tagged, voice }: Texts): Omit<PortProfile, 'id' | 'notes'> => ({
  name,
  mode,
  untaggedVid: mode === 'routed' ? null : vidIn(untagged),
  taggedVids: mode === 'trunk' ? vidsIn(tagged) : null,
  voiceVid: mode === 'access' ? vidIn(voice) : null,
});

/** A port profile that is made, or changed. */
export function ProfileForm({
  profile,
  onDone,
}: {
  profile: PortProfile | null;
  onDone: () => void;
}): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(
    profileTexts,
    profile === null ? { name: '', mode: 'access', untagged: '', tagged: '', voice: '' } : textsOf(profile),
  );
  const { make } = useFormActs(form);
  const mode = form.control.watch('mode');
  const keep = (texts: Texts): void => {
    const fields = fieldsOf(texts);
    const added = {
      changes: [create('portProfile', { ...fields, id: newId(), notes: null })],
      sentence: `Added port profile ${fields.name}`,
    };
    make(profile === null ? added : editRow(network, 'portProfile', profile, fields), onDone);
  };
  return (
    <Form
      label={profile === null ? 'New profile' : `Profile ${profile.name}`}
      form={form}
      action={profile === null ? 'Add profile' : 'Keep profile'}
      onSend={keep}
      beside={profile !== null && <Button onPress={onDone}>Cancel</Button>}
    >
      <h2>{profile === null ? 'New profile' : `Profile ${profile.name}`}</h2>
      <TextIn name="name" />
      <ChoiceIn name="mode" options={portModes.map((id) => ({ id, text: id }))} />
      {mode !== 'routed' && <TextIn name="untagged" mono />}
      {mode === 'trunk' && <TextIn name="tagged" mono help="10,20,30-34, or all" />}
      {mode === 'access' && <TextIn name="voice" mono />}
    </Form>
  );
}
