import { byName, modelTitle, roles } from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { modelDrag } from '../surface/SheetCanvas.tsx';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Filter } from '../../kit/Filter.tsx';
import { Hint, RoleMark } from '../../kit/panel/panels.tsx';

const Frame = styled.aside`
  flex: none;
  width: 208px;
  display: flex;
  flex-direction: column;
  gap: 6px;
  padding: 8px;
  border-right: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.band};
  ul {
    overflow: auto;
    flex: 1;
    min-height: 0;
  }
  li {
    display: flex;
    gap: 6px;
    align-items: center;
    padding: 3px 6px;
    margin-bottom: 3px;
    border: 1px solid ${({ theme }) => theme.rule};
    border-radius: 3px;
    background: ${({ theme }) => theme.surface};
    font-size: 12px;
    cursor: grab;
    > span:last-child {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  }
`;
const most = 120;

/** Models of the catalogue, to be dragged onto the sheet: letting go over a place makes a device there. */
export function Palette(): ReactNode {
  const { view } = useProject();
  const [text, setText] = useState('');
  const models = useMemo(
    () =>
      [...view.network.all('model')]
        .filter((model) => model.form === 'device' && !model.retired && model.role !== null)
        .map((model) => ({ id: model.id, name: modelTitle(model), role: model.role ?? 'XX' }))
        .sort(byName),
    [view.network],
  );
  const words = text.toLowerCase().split(/\s+/);
  const listed = models.filter((model) =>
    words.every((word) => `${model.name} ${roles[model.role].label}`.toLowerCase().includes(word)),
  );
  return (
    <Frame aria-label="Models">
      <Filter value={text} onChange={setText} />
      <Hint>Drag a model onto a place of the sheet: a device is made there.</Hint>
      <ul>
        {listed.slice(0, most).map((model) => (
          <li
            key={model.id}
            draggable
            title={model.name}
            onDragStart={(event) => {
              event.dataTransfer.setData(modelDrag, model.id);
              event.dataTransfer.effectAllowed = 'copy';
            }}
          >
            <RoleMark role={model.role} />
            <span>{model.name}</span>
          </li>
        ))}
      </ul>
    </Frame>
  );
}
