import { moneyText, titleOf, type Network, type PartsList } from '@visograph/core/model';
import { giveBack, reserveInStock, type PartLine } from '@visograph/core/purchase';
import { Fragment, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { Button } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Facts } from '../../record/parts.tsx';
import { Aside, Pair } from '../layout.tsx';
import { useDo } from '../../data/useDo.ts';

const mostNamed = 60;

/** One line of a list: how its counts come about, and the things it stands for. */
export function LineFacts({
  line,
  list,
  network,
  onClose,
}: {
  line: PartLine;
  list: PartsList;
  network: Network;
  onClose: () => void;
}): ReactNode {
  const { view, canEdit } = useProject();
  const { select } = useWhereabouts();
  const act = useDo();
  const { part, offer } = line;
  const model = network.get('model', part.modelId);
  const unit = part.unit === 'm' ? ' m' : '';
  const each =
    offer === null ? 'no price known' : moneyText({ priceMinor: offer.unitMinor, currency: offer.currency });
  const packs = offer !== null && offer.pack > 1 ? `, packs of ${offer.pack}` : '';
  const facts: Record<string, string | null> = {
    Planned: `${line.planned}${unit}`,
    'In place': `${line.inPlace}${unit}`,
    Spares: `${line.spares}${unit}`,
    Reserved: line.reserved === 0 ? null : `${line.reserved}${unit}`,
    'Held free': line.held === 0 ? null : String(line.held),
    'To buy': `${line.toBuy}${unit}`,
    Ordered: `${line.order}${unit}${packs}`,
    Each: each,
    From: offer === null ? null : (offer.list ?? (part.modelId === null ? 'this list' : 'the catalogue')),
  };
  return (
    <Aside aria-label={part.what}>
      <h3>{part.what}</h3>
      <Facts>
        {Object.entries(facts).map(([label, value]) =>
          value === null ? null : (
            <Fragment key={label}>
              <dt>{label}</dt>
              <dd>{value}</dd>
            </Fragment>
          ),
        )}
      </Facts>
      <Pair>
        {model !== null && <Button onPress={() => select({ kind: 'model', id: model.id })}>Its model</Button>}
        {canEdit && line.toBuy > 0 && line.inStock > 0 && (
          <Button onPress={() => act(reserveInStock(view.network, list, [line]))}>
            {`Reserve ${Math.min(line.toBuy, line.inStock)} of ${line.inStock} in stock`}
          </Button>
        )}
        {canEdit && line.reserved > 0 && (
          <Button onPress={() => act(giveBack(view.network, list, line))}>Give back</Button>
        )}
        <Button onPress={onClose}>Close</Button>
      </Pair>
      <h3>{line.things.length === 0 ? 'It stands for nothing in the network' : 'It stands for'}</h3>
      <Pair as="nav" aria-label="What it stands for">
        {line.things.slice(0, mostNamed).map(({ kind, id }) => (
          <Button key={`${kind}:${id}`} $tone="quiet" onPress={() => select({ kind, id })}>
            {titleOf(network, kind, id)}
          </Button>
        ))}
        {line.things.length > mostNamed && <Hint>{`and ${line.things.length - mostNamed} more`}</Hint>}
      </Pair>
    </Aside>
  );
}
