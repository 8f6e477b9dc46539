import { spanText } from '@visograph/core/change';
import { placePath, placesWithin, racksIn } from '@visograph/core/model';
import { readNeed, whereFits } from '@visograph/core/racks';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Choice } from '../kit/choice.tsx';
import { Field } from '../kit/controls.tsx';
import { ClosingHead, DockColumn, DockFrame } from '../kit/panel/dock.tsx';
import { Hint, Mono, StateMark } from '../kit/panel/panels.tsx';

const Rows = styled.ol`
  overflow: auto;
  min-height: 0;
  button {
    font: inherit;
    width: 100%;
    display: grid;
    grid-template-columns: 16px 90px 92px minmax(0, 1fr) minmax(0, 1.2fr);
    gap: 8px;
    align-items: center;
    text-align: left;
    border: 0;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
    background: none;
    color: ${({ theme }) => theme.ink};
    padding: 3px 2px;
  }
  button:hover {
    background: ${({ theme }) => theme.accentWash};
  }
  span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;
const mostShown = 60;

/** "4 units, 28 kg, 900 W": every rack ranked, with the figure that decides. */
export function WherePanel({
  nearPlaceId,
  onClose,
}: {
  nearPlaceId: string | null;
  onClose: () => void;
}): ReactNode {
  const { view } = useProject();
  const { network } = view;
  const { go } = useWhereabouts();
  const [text, setText] = useState('4 units, 28 kg, 900 W');
  const [near, setNear] = useState(nearPlaceId);
  const need = readNeed(text);
  const ranked = useMemo(
    () =>
      need === null
        ? []
        : whereFits(network, racksIn(network, placesWithin(network, null)), { ...need, nearPlaceId: near }),
    // The text says all there is in the need.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [network, text, near],
  );
  const fitting = ranked.filter((one) => one.fits).length;
  return (
    <DockFrame aria-label="Where does it fit">
      <DockColumn $grow={0.8}>
        <h2>What is to be put somewhere</h2>
        <Field
          label="Units, mass, power"
          value={text}
          onChange={setText}
          autoFocus
          error={need === null ? 'Write figures such as “4 units, 28 kg, 900 W”.' : null}
        />
        <Choice
          label="Near"
          value={near ?? 'anywhere'}
          options={[
            { id: 'anywhere', text: 'Anywhere' },
            ...[...network.all('place')]
              .filter((place) => network.countOf('racksByPlace', place.id) > 0)
              .map((place) => ({ id: place.id, text: placePath(network, place.id).replaceAll('/', ' › ') })),
          ]}
          onChange={(next) => setNear(next === 'anywhere' ? null : next)}
        />
      </DockColumn>
      <DockColumn $grow={2}>
        <ClosingHead onClose={onClose}>{`It fits into ${fitting} of ${ranked.length} racks`}</ClosingHead>
        <Rows aria-label="Racks, best first">
          {ranked.slice(0, mostShown).map((one) => (
            <li key={one.rack.id}>
              <button
                type="button"
                onClick={() => go({ rackId: one.rack.id, selection: { kind: 'rack', id: one.rack.id } })}
              >
                <StateMark state={one.fits ? 'ok' : 'bad'} />
                <Mono>{one.rack.name}</Mono>
                <Mono>{one.unit === null ? '–' : spanText({ unit: one.unit, units: need?.units ?? 1 })}</Mono>
                <span>{one.limit}</span>
                <Hint>{placePath(network, one.rack.placeId).replaceAll('/', ' › ')}</Hint>
              </button>
            </li>
          ))}
        </Rows>
      </DockColumn>
    </DockFrame>
  );
}
