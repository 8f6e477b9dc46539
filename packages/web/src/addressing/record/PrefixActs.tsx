import { planIpv6, renumber, retirePrefix } from '@visograph/core/addressing';
import { type Prefix } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { ActPanel } from '../../kit/panel/ActPanel.tsx';
import { Button, Field } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Preview } from '../../kit/panel/Preview.tsx';

/** Renumbers a prefix after showing every fact that changes with it; retires it; gives IPv6 by VLAN number. */
export function PrefixActs({ row }: { row: Prefix }): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const [open, setOpen] = useState(false);
  const [target, setTarget] = useState('');
  const [why, setWhy] = useState<string | null>(null);
  const moved = open && target.trim() !== '' ? renumber(network, row, target) : null;
  const refusal = moved === null ? null : !moved.ok ? moved.why : moved.attempt.ok ? null : moved.attempt.why;
  const ready = moved?.ok === true && moved.attempt.ok ? moved.attempt : null;
  const sixPool = row.role === 'pool' && row.prefix.includes(':') && row.placeId !== null;
  const act = (attempt: ReturnType<typeof retirePrefix>): void => {
    setWhy(attempt.ok ? null : attempt.why);
    if (attempt.ok) commit(attempt.set);
  };
  return (
    <>
      <Button onPress={() => setOpen(true)}>Renumber …</Button>
      {row.status !== 'retired' && row.role !== 'pool' && (
        <Button onPress={() => act(retirePrefix(network, row))}>Retire</Button>
      )}
      {sixPool && <Button onPress={() => act(planIpv6(network, row))}>IPv6 by VLAN</Button>}
      {why !== null && <Hint role="alert">{why}</Hint>}
      <ActPanel
        title={`Renumber ${row.prefix}`}
        open={open}
        onOpenChange={setOpen}
        trouble={refusal}
        action={moved?.ok === true ? `Change ${moved.list.length} facts` : 'Renumber'}
        onAct={ready === null ? null : () => commit(ready.set).ok}
        fields={<Field label="To" mono width={220} value={target} onChange={setTarget} autoFocus />}
      >
        {moved?.ok === true && (
          <Preview>
            <table aria-label="What changes">
              <thead>
                <tr>
                  <th scope="col">What</th>
                  <th scope="col">From</th>
                  <th scope="col">To</th>
                </tr>
              </thead>
              <tbody>
                {moved.list.map(({ what, from, to }, at) => (
                  <tr key={at}>
                    <td>{what}</td>
                    <td className="mono">{from}</td>
                    <td className="mono">{to}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Preview>
        )}
      </ActPanel>
    </>
  );
}
