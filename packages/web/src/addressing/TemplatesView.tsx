import { byName } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject, useWhoCan } from '../data/project.tsx';
import { Button } from '../kit/controls.tsx';
import { Empty } from '../kit/panel/panels.tsx';
import { SiteTemplateForm } from './SiteTemplateForm.tsx';

const Page = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 12px 16px;
  .templates {
    display: flex;
    gap: 6px;
    flex-wrap: wrap;
    margin-bottom: 12px;
  }
  .templates button[aria-pressed='true'] {
    border-color: ${({ theme }) => theme.accent};
    background: ${({ theme }) => theme.accentWash};
  }
`;

/** What every site of a kind gets: prefixes by length, VLAN number, gateway and share of DHCP. */
export function TemplatesView(): ReactNode {
  const { view, canEdit } = useProject();
  const whoCan = useWhoCan();
  const { network } = view;
  const templates = [...network.all('siteTemplate')].sort(byName);
  const [chosenId, setChosen] = useState<string | null>(templates[0]?.id ?? null);
  const template = network.get('siteTemplate', chosenId);
  return (
    <Page>
      <div className="templates" role="group" aria-label="Site templates">
        {templates.map((one) => (
          <Button key={one.id} aria-pressed={one.id === chosenId} onPress={() => setChosen(one.id)}>
            {one.name}
          </Button>
        ))}
        {canEdit && (
          <Button aria-pressed={chosenId === null} onPress={() => setChosen(null)}>
            New template
          </Button>
        )}
      </div>
      {!canEdit && template === null ? (
        <Empty title="No site templates yet">{whoCan('add one')}</Empty>
      ) : (
        <SiteTemplateForm key={chosenId ?? 'new'} of={template} onDone={setChosen} />
      )}
    </Page>
  );
}
