import type { Answer, BodyOf } from '@visograph/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { noted } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { z } from 'zod';
import { call } from '../data/api.ts';
import { useProject } from '../data/project.tsx';
import { useSession, type ProjectSummary } from '../data/session.ts';
import { Choice } from '../kit/choice.tsx';
import { Button } from '../kit/controls.tsx';
import { ChoiceIn, TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { Hint } from '../kit/panel/panels.tsx';
import { PanelDialog } from '../kit/panel/panelDialog.tsx';
import { dayText } from './dayText.ts';
import { emailField } from './entry.tsx';
import { HandedLink } from './HandedLink.tsx';

type Role = ProjectSummary['role'];
type Invitation = BodyOf<'POST /projects/:project/invitations'>;
type Invited = Answer<'POST /projects/:project/invitations'>;

const roles: readonly Role[] = ['owner', 'editor', 'reader'];
const roleOptions = roles.map((role) => ({ id: role, text: role }));
const asRole = (text: string | null): Role => roles.find((role) => role === text) ?? 'reader';

const Body = styled.div`
  width: 640px;
  max-width: 100%;
  h3 {
    margin-top: 18px;
  }
`;
const List = styled.ul`
  margin: 12px 0;
  li {
    display: grid;
    grid-template-columns: minmax(0, 3fr) minmax(0, 4fr) 110px 104px;
    gap: 12px;
    align-items: center;
    padding: 5px 0;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
    overflow-wrap: anywhere;
  }
  li > button {
    justify-self: end;
  }
`;
const Waiting = styled(List)`
  li {
    grid-template-columns: minmax(0, 5fr) minmax(0, 3fr) 60px 104px;
  }
`;
const newPerson = z.object({
  email: emailField,
  role: noted(z.enum(['owner', 'editor', 'reader']), { label: 'Role' }),
});
const Trouble = styled.p`
  color: ${({ theme }) => theme.bad};
  margin-bottom: 12px;
`;

/** Who was invited and has not come yet; inviting others. */
function Invitations({ project }: { project: ProjectSummary }): ReactNode {
  const client = useQueryClient();
  const key = ['invitations', project.id];
  const params = { project: project.id };
  const again = (): void => void client.invalidateQueries({ queryKey: key });
  const [link, setLink] = useState<Invited | null>(null);
  const form = useSchemaForm(newPerson, { email: '', role: 'editor' });
  const waiting = useQuery({
    queryKey: key,
    queryFn: () => call('GET /projects/:project/invitations', { params }),
  });
  const invite = useMutation({
    mutationFn: (body: Invitation) => call('POST /projects/:project/invitations', { params, body }),
    onSuccess: (made) => {
      setLink(made);
      form.control.reset();
      again();
    },
    onError: (error) => form.refuse([{ field: null, message: error.message }]),
  });
  const takeBack = useMutation({
    mutationFn: (id: string) =>
      call('DELETE /projects/:project/invitations/:invitation', { params: { ...params, invitation: id } }),
    onSuccess: (_nothing, id) => {
      if (link?.id === id) setLink(null);
      again();
    },
  });
  return (
    <>
      <h3>Invite somebody</h3>
      <Form
        label="Invite somebody"
        form={form}
        row
        action="Invite"
        busy={invite.isPending}
        onSend={(wish) => invite.mutate(wish)}
      >
        <TextIn name="email" type="email" width={260} />
        <ChoiceIn name="role" options={roleOptions} width={110} />
      </Form>
      {link !== null && (
        <HandedLink
          key={link.key}
          label={`Link for ${link.email}`}
          link={`${location.origin}/join#${link.key}`}
          text={
            link.mailed
              ? `It was sent to ${link.email}. It works once, and is shown only now.`
              : `Hand it to them yourself: nothing was sent. It works once until ${dayText(link.until)}, for whoever has it, and is shown only now.`
          }
        />
      )}
      {(waiting.data?.length ?? 0) > 0 && (
        <Waiting aria-label="Invited, not here yet">
          {waiting.data?.map((one) => (
            <li key={one.id}>
              <span>{one.email}</span>
              <Hint>{`Invited, until ${dayText(one.until)}`}</Hint>
              <span>{one.role}</span>
              <Button
                onPress={() => takeBack.mutate(one.id)}
                aria-label={`Take back the invitation of ${one.email}`}
              >
                Take back
              </Button>
            </li>
          ))}
        </Waiting>
      )}
      {takeBack.error !== null && <Trouble role="alert">{takeBack.error.message}</Trouble>}
    </>
  );
}

/** Who may see and change the project. Owners invite people, change roles and take people out. */
export function PeoplePanel({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}): ReactNode {
  const { project } = useProject();
  const session = useSession();
  const client = useQueryClient();
  const key = ['members', project.id];
  const params = { project: project.id };
  const members = useQuery({
    queryKey: key,
    queryFn: () => call('GET /projects/:project/members', { params }),
    enabled: open,
  });
  const again = (): Promise<void> => client.invalidateQueries({ queryKey: key });
  const change = useMutation({
    mutationFn: ({ id, role }: { id: string; role: Role }) =>
      call('PUT /projects/:project/members/:account', { params: { ...params, account: id }, body: { role } }),
    onSettled: again,
  });
  const remove = useMutation({
    mutationFn: (id: string) =>
      call('DELETE /projects/:project/members/:account', { params: { ...params, account: id } }),
    onSettled: again,
  });
  const owner = project.role === 'owner';
  const trouble = remove.error ?? change.error ?? members.error;
  return (
    <PanelDialog title={`People of ${project.name}`} open={open} onOpenChange={onOpenChange}>
      <Body>
        <List aria-label="Members">
          {members.data?.map((member) => (
            <li key={member.id}>
              <strong>{member.name}</strong>
              <span>{member.email}</span>
              {owner && member.id !== session.data?.account?.id ? (
                <>
                  <Choice
                    label={`Role of ${member.name}`}
                    hideLabel
                    value={member.role}
                    options={roleOptions}
                    onChange={(next) => change.mutate({ id: member.id, role: asRole(next) })}
                  />
                  <Button onPress={() => remove.mutate(member.id)} aria-label={`Remove ${member.name}`}>
                    Remove
                  </Button>
                </>
              ) : (
                <span>{member.role}</span>
              )}
            </li>
          ))}
        </List>
        {trouble !== null && <Trouble role="alert">{trouble.message}</Trouble>}
        <p>
          <Hint>
            Readers see everything. Editors also change the network. Owners also decide who belongs to the
            project.
          </Hint>
        </p>
        {owner && <Invitations project={project} />}
      </Body>
    </PanelDialog>
  );
}
