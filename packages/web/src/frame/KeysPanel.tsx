import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useWorkspace } from '../data/workspace.tsx';
import { PanelDialog } from '../kit/panel/panelDialog.tsx';
import { setSingleKeys, singleKeysOn } from '../kit/singleKeys.ts';
import { Tick } from '../kit/Tick.tsx';
import { mono } from '../theme/mono.ts';

const keys: readonly [string, string][] = [
  ['/  or  Ctrl+K', 'Command line: find or do'],
  ['C', 'Connect the selected device or port; on a sheet, ask what it is joined to'],
  ['M', 'Models to be put on a sheet: drag, stamp, or Enter'],
  ['T', 'Trace the run of the selected port or cable'],
  ['E', 'Edit the name of what is selected, where it is drawn'],
  ['D', 'Edit the facts of what is chosen on a sheet: model, place, address, ports, VLANs'],
  ['Ctrl+Z  Ctrl+Shift+Z', 'Undo and redo your own steps'],
  ['\\', 'Show or hide the record'],
  ['=', 'Show or hide the data strip below a drawing'],
  ['0  and  F', 'Fit the whole sheet, or what is selected'],
  ['.', 'Choose what a sheet or rack shows'],
  [
    'Ctrl+D',
    'On a sheet, duplicate what is chosen; in a grid, fill down: names, ports and addresses are counted on',
  ],
  ['Alt+0 … Alt+9, Alt+P', 'Sections, from Start to Parts'],
  ['Enter', 'Connect, and step both ends on'],
  ['Esc', 'Close the dock'],
];

const List = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 7px 24px;
  margin: 14px 0 18px;
  dt {
    ${mono}
    font-size: 12px;
  }
`;

/** All keys, from the ? key or the person's menu. */
export function KeysPanel(): ReactNode {
  const { keysOpen, setKeysOpen } = useWorkspace();
  const [on, setOn] = useState(singleKeysOn);
  return (
    <PanelDialog title="All keys" open={keysOpen} onOpenChange={setKeysOpen}>
      <List>
        {keys.map(([key, what]) => (
          <div key={key} style={{ display: 'contents' }}>
            <dt>{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </List>
      <Tick
        isSelected={on}
        onChange={(next) => {
          setSingleKeys(next);
          setOn(next);
        }}
      >
        Keys that stand alone act (Ctrl+K, Ctrl+Z and Alt+0 … do in any case)
      </Tick>
    </PanelDialog>
  );
}
