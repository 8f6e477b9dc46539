import { beginPartsList } from '@visograph/core/purchase';
import type { ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { useProject } from '../data/project.tsx';
import { Button } from '../kit/controls.tsx';
import { useDo } from '../data/useDo.ts';

/** Begins a parts list of these devices, or of a kit, and goes to it. It counts both what is planned and what stands. */
export function ToPartsList({
  deviceIds = [],
  kitId = null,
}: {
  deviceIds?: readonly string[];
  kitId?: string | null;
}): ReactNode {
  const { project, view } = useProject();
  const navigate = useNavigate();
  const act = useDo();
  const begin = (): void => {
    const fields = kitId === null ? { counts: 'both' as const } : { kitId };
    const attempt = beginPartsList(view.network, fields, deviceIds);
    if (act(attempt)) void navigate(`/p/${project.id}/parts?open=${attempt.id}`);
  };
  return <Button onPress={begin}>Parts list</Button>;
}
