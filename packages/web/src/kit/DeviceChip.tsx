import type { Role } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { Mono, RoleMark } from './panel/panels.tsx';

const Chip = styled.button`
  font: inherit;
  display: flex;
  gap: 6px;
  align-items: center;
  border: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.surface};
  color: ${({ theme }) => theme.ink};
  border-radius: 3px;
  padding: 2px 8px 2px 3px;
  &:hover,
  &[aria-pressed='true'] {
    border-color: ${({ theme }) => theme.accent};
  }
`;

interface Props {
  name: string;
  role: Role;
  selected: boolean;
  onChoose: () => void;
}

/** A device in a line of others: its role code and its name. */
export function DeviceChip({ name, role, selected, onChoose }: Props): ReactNode {
  return (
    <Chip type="button" aria-pressed={selected} onClick={onChoose}>
      <RoleMark role={role} />
      <Mono>{name}</Mono>
    </Chip>
  );
}
