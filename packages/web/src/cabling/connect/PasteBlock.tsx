import { readCableList } from '@visograph/core/cabling';
import { csvRows, type ListRow } from '@visograph/core/exchange';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Button } from '../../kit/controls.tsx';
import { ClosingHead, DockColumn, DockFrame, Trouble } from '../../kit/panel/dock.tsx';
import { Hint, StateMark } from '../../kit/panel/panels.tsx';
import { mono } from '../../theme/mono.ts';

const Text = styled.textarea`
  flex: 1;
  min-height: 80px;
  resize: none;
  padding: 6px 8px;
  ${mono}
  font-size: 12px;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  background: ${({ theme }) => theme.surface};
  color: ${({ theme }) => theme.ink};
`;
const Rows = styled.ul`
  flex: 1;
  overflow: auto;
  font-size: 12px;
  li {
    display: grid;
    grid-template-columns: 14px 74px 1fr;
    gap: 6px;
    padding: 2px 0;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
  }
  b {
    ${mono}
    font-weight: 400;
  }
`;
const shown = 200;
const does: Record<ListRow['does'], string> = {
  new: 'new',
  same: 'is there already',
  changes: 'changes',
  cannot: 'left out:',
};

/** Cables from rows copied out of a spreadsheet: every row told before anything is written. */
export function PasteBlock({ onBack, onClose }: { onBack: () => void; onClose: () => void }): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const [text, setText] = useState('');
  const read = useMemo(
    () => (text.trim() === '' ? null : readCableList(network, csvRows(text))),
    [network, text],
  );
  const good = read?.results.filter((row) => row.does === 'new' || row.does === 'changes').length ?? 0;
  const wrong = read?.results.filter((row) => row.does === 'cannot').length ?? 0;
  return (
    <DockFrame aria-label="Connect from a list" onKeyDown={(event) => event.key === 'Escape' && onClose()}>
      <DockColumn>
        <h2>Rows from a spreadsheet</h2>
        <Text
          aria-label="Rows"
          value={text}
          autoFocus
          onChange={(event) => setText(event.target.value)}
          placeholder={'kq-acc-1:gi1/1\tKQ-A1-PP1:F1\nkq-acc-1:gi1/2\tKQ-A1-PP1:F2'}
        />
        <div>
          <Button onPress={onBack}>Back to ports</Button>
        </div>
      </DockColumn>
      <DockColumn $shaded $grow={1.6}>
        <ClosingHead onClose={onClose}>
          {read === null ? 'What they come to' : `${good} to connect, ${wrong} left out`}
        </ClosingHead>
        {read === null && (
          <Hint>
            Paste two columns with the ends, as device:port or a panel position; label, type, length, status
            and notes beside them if known. Missing labels are given.
          </Hint>
        )}
        {read?.problem != null && <Trouble role="alert">{read.problem}</Trouble>}
        {read !== null && (
          <Rows aria-label="What each row comes to">
            {read.results.slice(0, shown).map((row) => (
              <li key={row.row}>
                <StateMark state={row.does === 'cannot' ? 'bad' : 'ok'} />
                <b>{row.label}</b>
                <span>{`${does[row.does]} ${row.detail}`}</span>
              </li>
            ))}
          </Rows>
        )}
        <div>
          <Button
            $tone="primary"
            isDisabled={good === 0 || read?.problem != null}
            onPress={() => {
              if (read !== null && commit(read.set).ok) setText('');
            }}
          >
            {wrong === 0 ? `Connect ${good}` : `Connect ${good} good ${good === 1 ? 'row' : 'rows'}`}
          </Button>
        </div>
      </DockColumn>
    </DockFrame>
  );
}
