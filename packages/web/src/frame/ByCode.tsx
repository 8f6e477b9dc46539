import { longId } from '@visograph/core/labels';
import { kindNames, type Kind } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { Navigate, useLocation, useParams } from 'react-router';
import { useProject } from '../data/project.tsx';
import { Empty, Work } from '../kit/panel/panels.tsx';

/** Where a thing of a kind is looked at. */
const sectionOf: { readonly [K in Kind]?: string } = {
  device: 'equipment',
  port: 'equipment',
  rack: 'places',
  place: 'places',
  cable: 'cables',
  circuit: 'cables',
  vlan: 'vlans',
  prefix: 'addresses',
  address: 'addresses',
};

/** Somebody scanned a label: to the project that it is of. */
function ToProject(): ReactNode {
  const { project = '', thing = '' } = useParams();
  const id = longId(project);
  return <Navigate to={id === null ? '/' : `/p/${id}/at/${thing}`} replace />;
}

/** To the thing itself, wherever it stands by now. */
function ToThing(): ReactNode {
  const { thing = '' } = useParams();
  const { view } = useProject();
  const { network } = view;
  const id = longId(thing);
  const kind = id === null ? undefined : kindNames.find((one) => network.get(one, id) !== null);
  if (view.save === 'loading') return null;
  if (id === null || kind === undefined)
    return (
      <Work>
        <Empty title="What this label was on is not there any more">
          It may have been deleted from the project, or the label is of another installation.
        </Empty>
      </Work>
    );
  const rack = kind === 'rack' ? `&rack=${id}` : '';
  return (
    <Navigate to={`../${sectionOf[kind] ?? 'schedules'}?sel=${kind}:${id}${rack}`} relative="path" replace />
  );
}

/** Where a scanned label leads: the first time without, then with its project around. */
export default function ByCode(): ReactNode {
  const { pathname } = useLocation();
  return pathname.startsWith('/p/') ? <ToThing /> : <ToProject />;
}
