import { beforeAll, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { switched } from '../../../core/src/testing/testSwitching.ts';
import { pressNamed, rowNamed, show, type, withSizes } from '../testing/testScreen.tsx';
import { ProfilesView } from './ProfilesView.tsx';

beforeAll(withSizes);
const network = switched({}, [], {
  portProfiles: [
    { name: 'Camera port', mode: 'access', untagged: 40 },
    { name: 'Uplink', mode: 'trunk', tagged: [10, 20] },
  ],
});
const open = (role: 'owner' | 'reader' = 'owner') => show(<ProfilesView />, { network, role });
const field = (name: string): HTMLInputElement => screen.getByRole<HTMLInputElement>('textbox', { name });

describe('port profiles', () => {
  test('one is added; without a name, and under one that is taken, it is not', async () => {
    const held = await open();
    pressNamed('Add profile');
    await screen.findByText('Name is empty.');
    type(field('Name'), 'camera port');
    type(field('Untagged VLAN'), '40');
    pressNamed('Add profile');
    await screen.findByText(/already a port profile with the name/);
    type(field('Name'), 'Phone port');
    type(field('Voice VLAN'), '5000');
    pressNamed('Add profile');
    await screen.findByText('Voice VLAN: 5000 is not a VLAN number: they go from 1 to 4094.');
    type(field('Voice VLAN'), '50');
    pressNamed('Add profile');
    await waitFor(() => expect(held.steps()).toEqual(['Added port profile Phone port']));
    expect(rowNamed(held.network(), 'portProfile', 'Phone port')).toMatchObject({
      mode: 'access',
      untaggedVid: 40,
      voiceVid: 50,
      taggedVids: null,
    });
    expect(field('Name').value).toBe('');
  });

  test('one is changed in the same form, and given up with Cancel', async () => {
    const held = await open();
    pressNamed('Edit Uplink');
    expect(field('Tagged VLANs').value).toBe('10,20');
    expect(screen.queryByRole('textbox', { name: 'Voice VLAN' })).toBeNull();
    type(field('Tagged VLANs'), 'all');
    pressNamed('Cancel');
    expect(screen.getByRole('heading', { name: 'New profile' })).toBeTruthy();
    pressNamed('Edit Uplink');
    type(field('Tagged VLANs'), 'all');
    pressNamed('Keep profile');
    await waitFor(() => expect(rowNamed(held.network(), 'portProfile', 'Uplink').taggedVids).toBe('all'));
  });

  test('one is deleted; ports stay as they are set', async () => {
    const held = await open();
    pressNamed('Delete Camera port');
    await waitFor(() =>
      expect(held.steps()).toEqual(['Deleted port profile Camera port; ports stay as they are set']),
    );
  });

  test('a reader sees how they are set', async () => {
    await open('reader');
    const list = screen.getByRole('list', { name: 'Port profiles' });
    expect(within(list).getByText('trunk, tagged 10,20')).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });
});
