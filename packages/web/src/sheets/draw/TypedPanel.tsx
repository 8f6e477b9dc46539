import { takeOverTyped, typing, writeTyped } from '@visograph/core/cabling';
import type { Network } from '@visograph/core/model';
import { useDeferredValue, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { Label, TextArea, TextField } from 'react-aria-components';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Button, Keycap } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { mono } from '../../theme/mono.ts';

const Frame = styled.section`
  position: absolute;
  right: 10px;
  bottom: 10px;
  z-index: 11;
  width: 330px;
  max-height: calc(100% - 20px);
  display: flex;
  flex-direction: column;
  gap: 6px;
  padding: 8px 10px 10px;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  background: ${({ theme }) => theme.surface};
  box-shadow: 0 4px 14px rgb(0 0 0 / 14%);
  header,
  footer {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  header > span {
    margin-left: auto;
  }
  footer {
    justify-content: space-between;
  }
  textarea {
    ${mono}
    font-size: 12.5px;
    line-height: 20px;
    width: 100%;
    min-height: 140px;
    height: 200px;
    resize: vertical;
    padding: 4px 8px;
    border: 1px solid ${({ theme }) => theme.rule};
    border-radius: 3px;
    background: ${({ theme }) => theme.ground};
    color: ${({ theme }) => theme.ink};
    white-space: pre;
  }
  ol {
    max-height: 110px;
    overflow: auto;
    font-size: 12px;
  }
  li {
    display: flex;
    gap: 8px;
    padding: 1px 0;
    color: ${({ theme }) => theme.bad};
  }
  li > b {
    ${mono}
    font-weight: 400;
    min-width: 22px;
    text-align: right;
    color: ${({ theme }) => theme.inkSoft};
  }
`;

/** How a topology is written, for an empty panel. */
const example =
  'core-1 core-2 x2\nedge-1 ge0/1 -- core-1 10G\n3 access each to core-1 core-2\nin "Harbour": core-1 core-2';

/** What is typed stays for this tab, also when the panel is closed. */
const keptAs = (sheetId: string): string => `visograph.typed.${sheetId}`;

interface Props {
  sheetId: string;
  /** Devices that the text is read back from: those that are chosen, else all of the sheet. */
  deviceIds: readonly string[];
  placeId: string | null;
  /** The network as the text would make it, to be drawn; null: as it is. */
  onPreview: (network: Network | null) => void;
  /** Devices that were made. */
  onTaken: (deviceIds: string[]) => void;
  onClose: () => void;
}

/** A topology as text: drawn as it is typed, each wrong line told, taken over as one step, read back from the drawing. */
export function TypedPanel({ sheetId, deviceIds, placeId, onPreview, onTaken, onClose }: Props): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const [text, keepText] = useState(() => sessionStorage.getItem(keptAs(sheetId)) ?? '');
  const setText = (next: string): void => {
    sessionStorage.setItem(keptAs(sheetId), next);
    keepText(next);
  };
  const [said, setSaid] = useState<string | null>(null);
  const area = useRef<HTMLTextAreaElement>(null);
  const read = useRef(typing(placeId));
  const late = useDeferredValue(text);
  const result = useMemo(() => read.current(network, late), [network, late]);
  const empty = late.trim() === '';
  useEffect(() => {
    onPreview(empty || result.set.changes.length === 0 ? null : result.network);
  }, [empty, result, onPreview]);
  useEffect(() => () => onPreview(null), [onPreview]);
  const wrong = result.lines.filter((line) => line.problem !== null);
  const count = (kind: 'device' | 'cable' | 'place'): number =>
    result.set.changes.filter((change) => change.op === 'create' && change.kind === kind).length;
  const some = (kind: 'device' | 'cable' | 'place'): string[] =>
    count(kind) === 0 ? [] : [`+${count(kind)} ${kind}${count(kind) === 1 ? '' : 's'}`];
  const makes = [...some('device'), ...some('cable'), ...some('place')].join(', ');
  const ready = !empty && text === late && result.set.changes.length > 0;
  /** Takes over the text as it stands, whether or not all of it has been drawn yet. */
  const take = (): void => {
    const { set, network: after, lines } = takeOverTyped(network, text, placeId);
    if (set.changes.length === 0) return setSaid('Nothing of it is new: there is nothing to take over.');
    if (!commit(set).ok) return;
    const made = set.changes.flatMap((change) =>
      change.kind === 'device' && change.op === 'create' ? [change.id] : [],
    );
    const left = lines
      .filter((line) => line.problem !== null)
      .map((line) => line.text)
      .join('\n');
    setText(left);
    setSaid(`${set.sentence}.`);
    onPreview(null);
    onTaken(made.filter((id) => after.get('device', id) !== null));
    // Its button has nothing more to take: the keys belong to the text again.
    area.current?.focus();
  };
  return (
    <Frame
      aria-label="As text"
      onKeyDown={(event) => {
        if (event.key === 'Escape') {
          event.stopPropagation();
          onClose();
        }
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
          event.preventDefault();
          take();
        }
      }}
    >
      <header>
        <strong>As text</strong>
        <Hint as="span">drawn as you type</Hint>
        <Button $tone="quiet" aria-label="Close the text" onPress={onClose}>
          ×
        </Button>
      </header>
      <TextField
        value={text}
        autoFocus
        onChange={(next) => {
          setText(next);
          setSaid(null);
        }}
      >
        <Label style={{ position: 'absolute', width: 1, height: 1, overflow: 'hidden' }}>
          Topology, one link a line
        </Label>
        <TextArea ref={area} placeholder={example} spellCheck={false} />
      </TextField>
      {wrong.length > 0 && (
        <ol aria-label="Lines that are wrong">
          {wrong.slice(0, 40).map((line) => (
            <li key={line.number}>
              <b>{line.number}</b>
              <span>{line.problem}</span>
            </li>
          ))}
        </ol>
      )}
      <Hint role="status">
        {said ??
          (empty ? '' : makes !== '' ? makes : result.set.changes.length > 0 ? 'changed' : 'nothing new')}
      </Hint>
      <footer>
        <Button
          isDisabled={deviceIds.length === 0}
          onPress={() => {
            setText(writeTyped(network, deviceIds));
            setSaid(null);
          }}
        >
          Read back
        </Button>
        <Button $tone="primary" isDisabled={!ready} onPress={take}>
          {wrong.length > 0 && ready ? 'Take the good lines' : 'Take over'}
          <Keycap>Ctrl+Enter</Keycap>
        </Button>
      </footer>
    </Frame>
  );
}
