import { remove } from '@visograph/core/change';
import type { PortProfile } from '@visograph/core/model';
import { settingText } from '@visograph/core/switching';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { Button } from '../kit/controls.tsx';
import { Empty } from '../kit/panel/panels.tsx';
import { mono } from '../theme/mono.ts';
import { ProfileForm } from './ProfileForm.tsx';

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
  h2 {
    font-size: 13px;
  }
`;

/** How kinds of ports are set: made, changed and deleted here, given to ports in their record and by the line. */
export function ProfilesView(): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const profiles = [...network.all('portProfile')].sort((a, b) => (a.name < b.name ? -1 : 1));
  const [editing, setEditing] = useState<PortProfile | null>(null);
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
                  <Button aria-label={`Edit ${profile.name}`} onPress={() => setEditing(profile)}>
                    Edit
                  </Button>
                  <Button
                    aria-label={`Delete ${profile.name}`}
                    onPress={() => {
                      setEditing(null);
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
        <ProfileForm key={editing?.id ?? 'new'} profile={editing} onDone={() => setEditing(null)} />
      )}
    </Page>
  );
}
