import { modelUse, modelWords } from '@visograph/core/catalogue';
import { byName, modelTitle, type CatalogueModel } from '@visograph/core/model';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, type KeyboardEvent, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Empty, RoleMark } from '../kit/panel/panels.tsx';
import { mono } from '../theme/mono.ts';
import { kindText, portText, sizeText } from './figures.ts';
import { ModelFace } from './ModelFace.tsx';

const rowHeight = 52;
const List = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  background: ${({ theme }) => theme.surface};
  outline: none;
`;
const Row = styled.div`
  position: absolute;
  left: 0;
  width: 100%;
  height: ${rowHeight}px;
  padding: 0 12px;
  display: grid;
  grid-template-columns: 26px minmax(140px, 1fr) minmax(0, 1.15fr) 190px;
  gap: 10px;
  align-items: center;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  cursor: default;
  outline: none;
  &[aria-selected='true'] {
    background: ${({ theme }) => theme.accentWash};
  }
  &:focus-visible {
    box-shadow: inset 0 0 0 2px ${({ theme }) => theme.accent};
  }
  > div {
    min-width: 0;
    line-height: 18px;
  }
  strong,
  span,
  small {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
  }
  .figures {
    ${mono}
    font-size: 12px;
  }
  .retired {
    text-decoration: line-through;
  }
  svg {
    display: block;
  }
`;
const Jacket = styled.i`
  display: block;
  height: 7px;
  width: 170px;
  border-radius: 4px;
  border: 1px solid ${({ theme }) => theme.rule};
`;

export type FormFilter = CatalogueModel['form'] | 'all';

interface Props {
  text: string;
  form: FormFilter;
  /** Opens a model for editing. */
  onOpen: (model: CatalogueModel) => void;
}

/** The catalogue as a list: what it is, its figures, and its face as it will be drawn. */
export function ModelList({ text, form, onOpen }: Props): ReactNode {
  const { view } = useProject();
  const { network } = view;
  const { selection, select } = useWhereabouts();
  const scroller = useRef<HTMLDivElement>(null);
  const all = useMemo(
    () =>
      [...network.all('model')]
        .map((model) => ({
          model,
          title: modelTitle(model),
          words: `${modelWords(model, kindText(model))} ${model.form}`,
        }))
        .sort(
          (a, b) =>
            Number(a.model.maker === null) - Number(b.model.maker === null) ||
            byName({ name: a.title }, { name: b.title }),
        ),
    [network],
  );
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = all.filter(
    (one) => (form === 'all' || one.model.form === form) && words.every((word) => one.words.includes(word)),
  );
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 8,
  });
  const at = shown.findIndex(({ model }) => model.id === selection?.id);
  const { scrollToIndex } = virtual;
  useEffect(() => {
    if (at >= 0) requestAnimationFrame(() => scrollToIndex(at, { align: 'auto' }));
    // Only another selection moves the list.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [selection?.id]);
  const move = (to: number): void => {
    const next = shown[Math.max(0, Math.min(shown.length - 1, to))];
    if (next === undefined) return;
    select({ kind: 'model', id: next.model.id });
    requestAnimationFrame(() =>
      scroller.current?.querySelector<HTMLElement>(`[data-model="${next.model.id}"]`)?.focus(),
    );
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const steps: Record<string, number> = {
      ArrowDown: at + 1,
      ArrowUp: at - 1,
      Home: 0,
      End: shown.length - 1,
      PageDown: at + 10,
      PageUp: at - 10,
    };
    const to = steps[event.key];
    const chosen = shown[at]?.model;
    if (to !== undefined) move(to);
    else if (event.key === 'Enter' && chosen !== undefined) onOpen(chosen);
    else return;
    event.preventDefault();
  };
  if (shown.length === 0)
    return (
      <List>
        <Empty title="No model fits">
          {text === ''
            ? 'Add a model of your own, or import some.'
            : `Nothing has “${text}” in its name, number, role or ports.`}
        </Empty>
      </List>
    );
  return (
    <List ref={scroller} role="listbox" aria-label="Models" tabIndex={-1} onKeyDown={onKeyDown}>
      <div style={{ height: virtual.getTotalSize(), position: 'relative' }} role="presentation">
        {virtual.getVirtualItems().map((item) => {
          const entry = shown[item.index];
          if (entry === undefined) return null;
          const { model, title } = entry;
          const use = modelUse(network, model);
          const count = use.devices + use.modules + use.cables;
          return (
            <Row
              key={model.id}
              role="option"
              aria-selected={model.id === selection?.id}
              aria-setsize={shown.length}
              aria-posinset={item.index + 1}
              data-model={model.id}
              tabIndex={item.index === Math.max(0, at) ? 0 : -1}
              style={{ transform: `translateY(${item.start}px)` }}
              onClick={() => select({ kind: 'model', id: model.id })}
              onDoubleClick={() => onOpen(model)}
            >
              {model.role === null ? <span /> : <RoleMark role={model.role} />}
              <div>
                <strong className={model.retired ? 'retired' : undefined}>{title}</strong>
                <small>
                  {[kindText(model), model.partNumber, count > 0 ? `${count} in use` : '']
                    .filter(Boolean)
                    .join(' · ')}
                </small>
              </div>
              <div>
                <span className="figures">{sizeText(model)}</span>
                <small>{model.form === 'cable' ? (model.ends ?? []).join(' to ') : portText(model)}</small>
              </div>
              {model.jacket !== null ? (
                <Jacket style={{ background: model.jacket }} />
              ) : model.form === 'device' || model.form === 'module' ? (
                <ModelFace
                  model={model}
                  face={
                    model.portGroups.some((group) => group.face === 'front') || model.portGroups.length === 0
                      ? 'front'
                      : 'rear'
                  }
                  width={190}
                  maxHeight={44}
                />
              ) : (
                <span />
              )}
            </Row>
          );
        })}
      </div>
    </List>
  );
}
