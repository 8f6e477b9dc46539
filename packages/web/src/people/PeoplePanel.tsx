import type { BodyOf } from '@visograph/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { noted } from '@visograph/core/model';
import type { ReactNode } from 'react';
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

type Role = ProjectSummary['role'];
type Invitation = BodyOf<'PUT /projects/:project/members'>;

const roles: readonly Role[] = ['owner', 'editor', 'reader'];
const roleOptions = roles.map((role) => ({ id: role, text: role }));
const asRole = (text: string | null): Role => roles.find((role) => role === text) ?? 'reader';

const List = styled.ul`
  margin: 14px 0;
  li {
    display: grid;
    grid-template-columns: 150px 210px 110px auto;
    gap: 12px;
    align-items: center;
    padding: 5px 0;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
    overflow-wrap: anywhere;
  }
`;
const newPerson = z.object({
  email: noted(z.string().trim().min(1, 'is empty'), { label: 'E-mail' }),
  role: noted(z.enum(['owner', 'editor', 'reader']), { label: 'Role' }),
  name: noted(z.string().trim(), { label: 'Name, for a new account' }),
  password: noted(z.string(), { label: 'First password' }),
});
const Trouble = styled.p`
  color: ${({ theme }) => theme.bad};
  margin-bottom: 12px;
`;

/** Who may see and change the project. Owners add people, change roles and take people out. */
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
  const form = useSchemaForm(newPerson, { email: '', role: 'editor', name: '', password: '' });
  const put = useMutation({
    mutationFn: (member: Invitation) => call('PUT /projects/:project/members', { params, body: member }),
    onSuccess: () => client.invalidateQueries({ queryKey: key }),
  });
  const remove = useMutation({
    mutationFn: (id: string) =>
      call('DELETE /projects/:project/members/:account', { params: { ...params, account: id } }),
    onSuccess: () => client.invalidateQueries({ queryKey: key }),
  });
  const owner = project.role === 'owner';
  const trouble = remove.error;
  const add = ({ email, role, name, password }: z.infer<typeof newPerson>): void =>
    put.mutate(
      { email, role, ...(name === '' ? {} : { name }), ...(password === '' ? {} : { password }) },
      {
        onSuccess: () => form.control.reset(),
        onError: (error) => form.refuse([{ field: null, message: error.message }]),
      },
    );
  return (
    <PanelDialog title={`People of ${project.name}`} open={open} onOpenChange={onOpenChange}>
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
                  onChange={(next) => put.mutate({ email: member.email, role: asRole(next) })}
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
      {owner && (
        <Form label="Add a person" form={form} row action="Add person" busy={put.isPending} onSend={add}>
          <TextIn name="email" type="email" width={190} />
          <ChoiceIn name="role" options={roleOptions} width={96} />
          <TextIn name="name" width={150} />
          <TextIn name="password" type="password" width={130} autoComplete="new-password" />
        </Form>
      )}
      {trouble !== null && <Trouble role="alert">{trouble.message}</Trouble>}
      <p style={{ marginBottom: 14 }}>
        <Hint>
          Readers see everything. Editors also change the network. Owners also decide who belongs to the
          project.
        </Hint>
      </p>
    </PanelDialog>
  );
}
