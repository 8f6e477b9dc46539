import { firstOfTheirRole, genericModels, modelWords } from '@visograph/core/catalogue';
import { compareNames, modelTitle, roleCodes, roles, type CatalogueModel } from '@visograph/core/model';
import { formations, mostDrawn, type Formation } from '@visograph/core/sheets';
import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { Checkbox, Label, Radio, RadioGroup } from 'react-aria-components';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Button, Field } from '../../kit/controls.tsx';
import { Hint, RoleMark } from '../../kit/panel/panels.tsx';
import { usedLately } from './usedLately.ts';
import type { Stamp } from './useStamp.ts';

const Frame = styled.aside`
  flex: none;
  width: 208px;
  display: flex;
  flex-direction: column;
  gap: 6px;
  padding: 8px;
  min-height: 0;
  border-right: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.band};
  > div.list {
    overflow: auto;
    flex: 1;
    min-height: 0;
    margin: 0 -8px;
    padding: 0 8px;
  }
  h3 {
    font-size: 12px;
    font-weight: 600;
    color: ${({ theme }) => theme.inkSoft};
    margin: 8px 0 4px;
  }
  header {
    display: flex;
    justify-content: space-between;
    align-items: center;
  }
`;
const Item = styled.button`
  font: inherit;
  font-size: 12.5px;
  width: 100%;
  display: flex;
  gap: 6px;
  align-items: center;
  text-align: left;
  padding: 3px 6px;
  margin-bottom: 3px;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  background: ${({ theme }) => theme.surface};
  color: ${({ theme }) => theme.ink};
  cursor: grab;
  touch-action: none;
  > span:last-child {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  &:hover,
  &:focus-visible,
  &[aria-pressed='true'] {
    border-color: ${({ theme }) => theme.accent};
  }
  &[aria-pressed='true'] {
    background: ${({ theme }) => theme.accentWash};
    box-shadow: inset 0 0 0 1px ${({ theme }) => theme.accent};
  }
`;
const PutIn = styled.div`
  display: flex;
  flex-direction: column;
  gap: 4px;
  font-size: 12.5px;
  border-top: 1px solid ${({ theme }) => theme.rule};
  padding-top: 6px;
  .count {
    display: flex;
    gap: 6px;
    align-items: end;
  }
  .react-aria-RadioGroup {
    display: flex;
    flex-wrap: wrap;
    gap: 3px;
  }
  .react-aria-RadioGroup > span:first-child {
    width: 100%;
    color: ${({ theme }) => theme.inkSoft};
    font-size: 12px;
  }
  .react-aria-Radio,
  .react-aria-Checkbox {
    padding: 2px 7px;
    border: 1px solid ${({ theme }) => theme.rule};
    border-radius: 3px;
    background: ${({ theme }) => theme.surface};
    cursor: default;
  }
  .react-aria-Radio[data-selected],
  .react-aria-Checkbox[data-selected] {
    border-color: ${({ theme }) => theme.accent};
    background: ${({ theme }) => theme.accentWash};
  }
  .react-aria-Radio[data-focus-visible],
  .react-aria-Checkbox[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.accent};
  }
`;
const mostListed = 120;
const formationNames: Record<Formation, string> = {
  row: 'row',
  column: 'column',
  ring: 'ring',
  star: 'star',
};

interface Shelf {
  title: string;
  models: CatalogueModel[];
}

/** What the palette offers for a text: roles first, then what was used lately, then the catalogue by role and maker. */
function useShelves(text: string): Shelf[] {
  const { project, view } = useProject();
  const { network } = view;
  const all = useMemo(() => {
    const models = [...network.all('model')].filter(
      (model) => model.form === 'device' && !model.retired && model.role !== null,
    );
    const title = (model: CatalogueModel): string => modelTitle(model);
    return models.sort((a, b) => compareNames(title(a), title(b)));
  }, [network]);
  return useMemo(() => {
    const words = text.toLowerCase().split(/\s+/).filter(Boolean);
    const fits = (model: CatalogueModel): boolean => {
      const role = model.role ?? 'XX';
      const said = `${modelTitle(model)} ${role} ${modelWords(model, roles[role].label)}`.toLowerCase();
      return words.every((word) => said.includes(word));
    };
    const byRole = roleCodes
      .flatMap((role): readonly CatalogueModel[] => {
        const first = firstOfTheirRole(network, role);
        return words.length > 0 ? genericModels(network, role) : first === null ? [] : [first];
      })
      .filter(fits);
    const lately = usedLately(project.id).flatMap((id) =>
      all.filter((model) => model.id === id && fits(model)),
    );
    const shelves: Shelf[] = [
      { title: 'By role', models: byRole },
      { title: 'Used lately', models: lately },
    ];
    let left = mostListed;
    for (const role of roleCodes) {
      const models = all
        .filter((model) => model.role === role && model.maker !== null && fits(model))
        .slice(0, left);
      left -= models.length;
      shelves.push({ title: roles[role].label, models });
    }
    return shelves.filter((shelf) => shelf.models.length > 0);
  }, [all, network, text, project.id]);
}

/** What a model is called in the palette: one without a maker by its role alone where it is the first. */
const itemName = (model: CatalogueModel): string =>
  model.maker === null ? model.name.replace(/^Generic /, '') : modelTitle(model);

interface Props {
  stamp: Stamp | null;
  /** Takes a model in hand: what is pressed next on the sheet puts it there. */
  onTake: (stamp: Stamp) => void;
  /** Begins to carry one, with the pointer that pressed it. */
  onCarry: (event: PointerEvent, stamp: Stamp) => void;
  /** Puts one in at the middle of the view. */
  onPut: (stamp: Stamp) => void;
  onClose: () => void;
}

/** Roles and models to be put on the sheet: dragged, stamped with repeated presses, or put in the middle with Enter. */
export function Palette({ stamp, onTake, onCarry, onPut, onClose }: Props): ReactNode {
  const [text, setText] = useState('');
  const [countText, setCountText] = useState('1');
  const [formation, setFormation] = useState<Formation>('row');
  const [joined, setJoined] = useState(false);
  const list = useRef<HTMLDivElement>(null);
  const shelves = useShelves(text);
  const count = Number(countText);
  const wrong = !Number.isInteger(count) || count < 1 || count > mostDrawn;
  const of = (model: CatalogueModel): Stamp => ({
    modelId: model.id,
    count: wrong ? 1 : count,
    formation,
    joined: joined && count > 1,
  });
  const change = (fields: Partial<Stamp>): void => {
    if (stamp !== null) onTake({ ...stamp, ...fields });
  };
  const focusItem = (by: number): void => {
    const items = [...(list.current?.querySelectorAll('button') ?? [])];
    const at = items.findIndex((item) => item === document.activeElement);
    items[Math.max(0, Math.min(items.length - 1, at + by))]?.focus();
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      focusItem(event.key === 'ArrowDown' ? 1 : -1);
    }
    if (event.key === 'Escape' && stamp === null) {
      event.stopPropagation();
      onClose();
    }
  };
  const first = shelves[0]?.models[0];
  return (
    <Frame aria-label="Models" onKeyDown={onKeyDown}>
      <header>
        <strong>Models</strong>
        <Button $tone="quiet" aria-label="Close models" onPress={onClose}>
          ×
        </Button>
      </header>
      <div
        onKeyDown={(event) => {
          if (event.key !== 'Enter' || first === undefined) return;
          event.preventDefault();
          onPut(of(first));
        }}
      >
        <Field label="Find a role or model" value={text} onChange={setText} autoFocus />
      </div>
      <div className="list" ref={list}>
        {shelves.length === 0 && (
          <Hint>{`Nothing in the catalogue is called “${text}”. Use another word.`}</Hint>
        )}
        {shelves.map((shelf) => (
          <section key={shelf.title} aria-label={shelf.title}>
            <h3>{shelf.title}</h3>
            {shelf.models.map((model) => (
              <Item
                key={model.id}
                type="button"
                title={modelTitle(model)}
                aria-pressed={stamp?.modelId === model.id}
                onPointerDown={(event) => onCarry(event, of(model))}
                onClick={(event) => {
                  // By keyboard it goes to the middle of the view; by pointer it is in hand from then on.
                  if (event.detail === 0) onPut(of(model));
                  else onTake(of(model));
                }}
              >
                <RoleMark role={model.role ?? 'XX'} />
                <span>{itemName(model)}</span>
              </Item>
            ))}
          </section>
        ))}
      </div>
      <PutIn role="group" aria-label="Put in">
        <div className="count">
          <Field
            label="How many"
            width={64}
            mono
            value={countText}
            error={wrong ? `1 to ${mostDrawn}` : null}
            onChange={(next) => {
              setCountText(next);
              const many = Number(next);
              if (Number.isInteger(many) && many >= 1 && many <= mostDrawn)
                change({ count: many, joined: joined && many > 1 });
            }}
          />
          <Checkbox
            isSelected={joined}
            isDisabled={count < 2}
            onChange={(on) => {
              setJoined(on);
              change({ joined: on && count > 1 });
            }}
          >
            Join them
          </Checkbox>
        </div>
        <RadioGroup
          orientation="horizontal"
          value={formation}
          isDisabled={count < 2}
          onChange={(next) => {
            const to = formations.find((one) => one === next) ?? 'row';
            setFormation(to);
            change({ formation: to });
          }}
        >
          <Label>In a</Label>
          {formations.map((one) => (
            <Radio key={one} value={one}>
              {formationNames[one]}
            </Radio>
          ))}
        </RadioGroup>
        <Hint>Drag it, or press it and then the sheet; Esc ends. Enter puts one in the middle.</Hint>
      </PutIn>
    </Frame>
  );
}
