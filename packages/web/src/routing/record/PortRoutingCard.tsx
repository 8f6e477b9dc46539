import { addRedundancy, leaveRedundancy } from '@visograph/core/addressing';
import { editRow } from '@visograph/core/commands';
import { isArea, ospfNetworks, type Ospf, type Port } from '@visograph/core/model';
import { ospfCost } from '@visograph/core/routing';
import { useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { Choice } from '../../kit/choice.tsx';
import { Button, Field } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Tick } from '../../kit/Tick.tsx';
import { FactForm, FactLine, FactList, useActs } from '../../record/factList.tsx';
import { Card } from '../../record/parts.tsx';

const newOspf: Ospf = { area: '0', cost: null, passive: false, network: 'broadcast' };

/** How a port with addresses takes part in OSPF, and in groups that share an address. */
export function PortRoutingCard({ port }: { port: Port }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const { why, act } = useActs();
  const shared = network.find('redundanciesByPort', port.id);
  const shown = `${port.id} ${JSON.stringify(port.ospf)}`;
  const [from, setFrom] = useState(shown);
  const [area, setArea] = useState(port.ospf?.area ?? '');
  const [cost, setCost] = useState(port.ospf?.cost == null ? '' : String(port.ospf.cost));
  const [group, setGroup] = useState('');
  const [virtual, setVirtual] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  if (from !== shown) {
    setFrom(shown);
    setArea(port.ospf?.area ?? '');
    setCost(port.ospf?.cost == null ? '' : String(port.ospf.cost));
    setWrong(null);
  }
  if (network.countOf('addressesByPort', port.id) === 0 && port.ospf === null) return null;
  const set = (ospf: Ospf | null): void => void commit(editRow(network, 'port', port, { ospf }));
  const keep = (): void => {
    if (area.trim() === '') return set(null);
    if (!isArea(area.trim())) return setWrong(`Area “${area.trim()}” is neither a number nor like 0.0.0.1.`);
    const number = cost.trim() === '' ? null : Number(cost);
    if (number !== null && (!Number.isInteger(number) || number < 1 || number > 65535))
      return setWrong(`Cost “${cost.trim()}” is not a number from 1 to 65535.`);
    setWrong(null);
    set({ ...(port.ospf ?? newOspf), area: area.trim(), cost: number });
  };
  const touched =
    area.trim() !== (port.ospf?.area ?? '') ||
    cost.trim() !== (port.ospf?.cost == null ? '' : String(port.ospf.cost));
  const { ospf } = port;
  return (
    <Card title="Routing">
      <FactForm
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <Field readOnly={!canEdit} label="OSPF area" mono width={80} value={area} onChange={setArea} />
        <Field
          readOnly={!canEdit}
          label={`Cost${ospf === null ? '' : `, now ${ospfCost(network, port)}`}`}
          mono
          width={96}
          value={cost}
          onChange={setCost}
        />
        {canEdit && touched && (
          <Button type="submit" $tone="primary">
            Keep
          </Button>
        )}
      </FactForm>
      {ospf !== null && (
        <>
          <Tick
            isSelected={ospf.passive}
            isDisabled={!canEdit}
            onChange={(passive) => set({ ...ospf, passive })}
          >
            Passive: tells the subnet, has no neighbours
          </Tick>
          <Choice
            label="Network type"
            width={150}
            value={ospf.network}
            options={ospfNetworks.map((id) => ({ id, text: id, disabled: !canEdit }))}
            onChange={(id) =>
              set({ ...ospf, network: ospfNetworks.find((one) => one === id) ?? 'broadcast' })
            }
          />
        </>
      )}
      <FactList aria-label="Shared addresses">
        {shared.map((part) => (
          <FactLine
            key={part.id}
            label={`Leave group ${part.group}`}
            onRemove={canEdit ? () => act(leaveRedundancy(network, part)) : null}
          >
            {part.virtual} <small>{`shared, group ${part.group}, priority ${part.priority}`}</small>
          </FactLine>
        ))}
      </FactList>
      {canEdit && (
        <FactForm
          onSubmit={(event) => {
            event.preventDefault();
            act(addRedundancy(network, port, { group: Number(group), virtual }), () => {
              setGroup('');
              setVirtual('');
            });
          }}
        >
          <Field readOnly={!canEdit} label="VRRP group" mono width={80} value={group} onChange={setGroup} />
          <Field
            readOnly={!canEdit}
            label="Shared address"
            mono
            width={124}
            value={virtual}
            onChange={setVirtual}
          />
          <Button type="submit" isDisabled={group === '' || virtual === ''}>
            Add to group
          </Button>
        </FactForm>
      )}
      {(wrong ?? why) !== null && <Hint role="alert">{wrong ?? why}</Hint>}
    </Card>
  );
}
