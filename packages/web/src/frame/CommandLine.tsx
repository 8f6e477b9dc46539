import { interpretLine, lineExamples, type Found, type LineOption } from '@visograph/core/commands';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { Input, SearchField } from 'react-aria-components';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts, type Selection } from '../data/location.ts';
import { useWorkspace } from '../data/workspace.tsx';
import { FieldInput, Keycap } from '../kit/controls.tsx';
import { mono } from '../theme/mono.ts';

const Frame = styled.div`
  position: relative;
  width: 320px;
  flex: 0 1 320px;
  min-width: 160px;
  > kbd {
    position: absolute;
    right: 6px;
    top: 5px;
    border: 1px solid ${({ theme }) => theme.rule};
    border-radius: 3px;
    padding: 0 6px;
    pointer-events: none;
    color: ${({ theme }) => theme.inkSoft};
    opacity: 1;
  }
`;
const Line = styled(FieldInput)`
  &::-webkit-search-cancel-button {
    display: none;
  }
`;
const List = styled.ul`
  position: absolute;
  top: 32px;
  right: 0;
  width: min(460px, calc(100vw - 24px));
  z-index: 30;
  padding: 4px;
  background: ${({ theme }) => theme.surface};
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  box-shadow: 0 6px 20px rgb(0 0 0 / 16%);
  li {
    display: flex;
    justify-content: space-between;
    gap: 16px;
    padding: 5px 8px;
    border-radius: 2px;
    cursor: default;
  }
  li[aria-selected='true'] {
    background: ${({ theme }) => theme.accentWash};
  }
  li > span:first-child {
    ${mono}
    font-size: 12.5px;
    white-space: nowrap;
  }
  li > span:last-child {
    color: ${({ theme }) => theme.inkSoft};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  li[data-refused] > span:last-child {
    white-space: normal;
    color: ${({ theme }) => theme.bad};
  }
`;

/** Opens what was found where it is best seen. */
function useOpenFound(): (found: Found) => void {
  const { view } = useProject();
  const { go, section } = useWhereabouts();
  return (found) => {
    const { network } = view;
    const selection: Selection = { kind: found.kind, id: found.id };
    if (found.kind === 'place') return go({ section: 'places', scopeId: found.id, rackId: null, selection });
    if (found.kind === 'rack') {
      const rack = network.get('rack', found.id);
      return go({ section: 'places', scopeId: rack?.placeId ?? null, rackId: found.id, selection });
    }
    if (found.kind === 'sheet') return go({ sheetId: found.id, selection });
    if (found.kind === 'vlan') return go({ section: 'vlans', scopeId: null, selection });
    if (found.kind === 'prefix') return go({ section: 'addresses', scopeId: null, selection });
    if (found.kind === 'cable') return go({ section: 'cables', scopeId: null, selection });
    if (found.kind !== 'device' && found.kind !== 'port' && found.kind !== 'circuit')
      return go({ selection });
    const device = network.get(
      'device',
      found.kind === 'port' ? (network.get('port', found.id)?.deviceId ?? null) : found.id,
    );
    const rack = network.get('rack', device?.rackId ?? null);
    if (section === 'sheets') return go({ selection });
    if (rack === null) return go({ section: 'equipment', scopeId: null, selection });
    return go({ section: 'places', scopeId: rack.placeId, rackId: rack.id, selection });
  };
}

/** Finds anything and does things, from one line. Enter does the first of what is listed, or the one chosen by arrows. */
export function CommandLine(): ReactNode {
  const { view, commit } = useProject();
  const { setDock, onAsk } = useWorkspace();
  const openFound = useOpenFound();
  const { section } = useWhereabouts();
  const [text, setText] = useState('');
  const [open, setOpen] = useState(false);
  const [at, setAt] = useState(0);
  const frame = useRef<HTMLDivElement>(null);
  const options = useMemo(
    () => (open && text.trim() !== '' ? interpretLine(view.network, text) : []),
    [open, text, view.network],
  );

  // What was looked for in one section is not what is looked for in the next.
  useEffect(() => {
    setText('');
    setOpen(false);
    setAt(0);
  }, [section]);
  useEffect(() => onAsk('command line', () => frame.current?.querySelector('input')?.focus()), [onAsk]);

  const leave = (): void => {
    setText('');
    setOpen(false);
    setAt(0);
    frame.current?.querySelector('input')?.blur();
  };
  const take = (option: LineOption | undefined): void => {
    if (option === undefined || option.does === 'refuse') return;
    if (option.does === 'go') openFound(option.found);
    else if (option.does === 'trace') setDock({ form: 'trace', portId: option.portId });
    else if (!commit(option.set).ok) return;
    leave();
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      const step = event.key === 'ArrowDown' ? 1 : -1;
      setAt((now) => Math.max(0, Math.min(options.length - 1, now + step)));
    } else if (event.key === 'Enter') {
      event.preventDefault();
      take(options[at]);
    } else if (event.key === 'Escape') leave();
  };
  const idOf = (index: number): string => `line-option-${index}`;
  return (
    <Frame
      ref={frame}
      onBlur={(event) => !event.currentTarget.contains(event.relatedTarget) && setOpen(false)}
    >
      <SearchField
        aria-label="Find or do"
        value={text}
        onChange={(value) => {
          setText(value);
          setOpen(true);
          setAt(0);
        }}
        onFocus={() => setOpen(true)}
        onKeyDown={onKeyDown}
      >
        <Line
          as={Input}
          role="combobox"
          placeholder="Find or do …"
          aria-expanded={open}
          aria-controls="line-options"
          aria-activedescendant={options.length > 0 ? idOf(at) : undefined}
          aria-autocomplete="list"
        />
      </SearchField>
      <Keycap aria-hidden="true">/</Keycap>
      {open && (
        <List
          id="line-options"
          role="listbox"
          aria-label="What the line would do"
          onPointerDown={(event) => event.preventDefault()}
        >
          {text.trim() === ''
            ? lineExamples.map((example) => (
                <li key={example.form} role="option" aria-selected="false">
                  <span>{example.form}</span>
                  <span>{example.what}</span>
                </li>
              ))
            : options.map((option, index) => (
                <li
                  key={`${option.title}${index}`}
                  id={idOf(index)}
                  role="option"
                  aria-selected={index === at}
                  data-refused={option.does === 'refuse' ? '' : undefined}
                  onClick={() => take(option)}
                  onPointerMove={() => setAt(index)}
                >
                  <span>{option.title}</span>
                  <span>{option.detail}</span>
                </li>
              ))}
        </List>
      )}
    </Frame>
  );
}
