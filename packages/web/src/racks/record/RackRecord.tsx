import { spanText } from '@visograph/core/change';
import { editRow, type Attempt } from '@visograph/core/commands';
import { grouped, placePath, type Rack, usualRackWidths } from '@visograph/core/model';
import { deleteRack } from '@visograph/core/places';
import { fillBlanks, rackCapacity, rackContents, rackUse, overText } from '@visograph/core/racks';
import { Fragment, useMemo, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { useShown } from '../../data/shown.ts';
import { useWhereabouts } from '../../data/location.ts';
import { useWorkspace } from '../../data/workspace.tsx';
import { Button } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { mono } from '../../theme/mono.ts';
import { Card, ChosenFact, EditableFact, Facts, Goto, Head } from '../../record/parts.tsx';
import { FeedsCard } from './FeedsCard.tsx';
import { PlaceFact } from '../../places/record/PlaceFact.tsx';
import { KeepKit } from '../../catalogue/record/KeepKit.tsx';
import { ToPartsList } from '../../purchase/ToPartsList.tsx';
import { RowHistory } from '../../record/RowHistory.tsx';

const Contents = styled.table`
  width: 100%;
  border-collapse: collapse;
  ${mono}
  font-size: 12.5px;
  td,
  th {
    padding: 3px 6px 3px 0;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
    text-align: left;
  }
  th {
    font-weight: 400;
    color: ${({ theme }) => theme.inkSoft};
  }
  td:first-child {
    white-space: nowrap;
    width: 58px;
  }
`;
const Figures = styled(Facts)`
  dd {
    font-size: 12px;
  }
`;
const Over = styled.p`
  color: ${({ theme }) => theme.bad};
  margin-top: 6px;
`;

export function RackRecord({ rack }: { rack: Rack }): ReactNode {
  const { view, canEdit, commit, sync } = useProject();
  const { network } = view;
  const { select } = useWhereabouts();
  const { setDock } = useWorkspace();
  const use = rackUse(network, rack);
  const shown = useShown();
  const capacity = useMemo(() => rackCapacity(shown, rack), [shown, rack]);
  const keep = (attempt: Attempt): void => {
    if (attempt.ok) commit(attempt.set);
    else sync.announce({ tone: 'bad', text: attempt.why });
  };
  const devices = rackContents(network, rack);
  return (
    <>
      <Head>
        <h2>{rack.name}</h2>
        <p>{`rack · ${placePath(network, rack.placeId).replaceAll('/', ' › ')}`}</p>
        {canEdit && (
          <div>
            <Button onPress={() => setDock({ form: 'addDevice', rackId: rack.id, unit: null })}>
              Add device
            </Button>
            <Button onPress={() => keep(fillBlanks(network, rack))}>Fill blanks</Button>
            <KeepKit racks={[rack]} />
            {devices.length > 0 && <ToPartsList deviceIds={devices.map(({ id }) => id)} />}
            {devices.length === 0 && (
              <Button
                onPress={() => {
                  if (commit(deleteRack(network, rack)).ok) select({ kind: 'place', id: rack.placeId });
                }}
              >
                Delete rack
              </Button>
            )}
          </div>
        )}
      </Head>
      <Card title="Capacity">
        <Figures>
          <dt>Units</dt>
          <dd>{`${use.used} of ${use.units} used, ${use.free} free`}</dd>
          <dt>Mass</dt>
          <dd>{`${grouped(capacity.massKg)} kg${rack.massLimitKg === null ? '' : ` of ${rack.massLimitKg}`}`}</dd>
          <dt>Draws</dt>
          <dd>{`${grouped(capacity.draw.typicalW)} W typical, up to ${grouped(capacity.draw.maxW)} W`}</dd>
          {capacity.feeds.map((feed) => (
            <Fragment key={feed.feed}>
              <dt>{`Feed ${feed.feed}`}</dt>
              <dd>{`${grouped(feed.typicalW)} to ${grouped(feed.maxW)} W of ${grouped(feed.usableW)}; alone ${grouped(feed.aloneW)}`}</dd>
            </Fragment>
          ))}
          <dt>Heat</dt>
          <dd>{`${grouped(capacity.btuPerHour)} BTU/h`}</dd>
        </Figures>
        {capacity.over
          .map((over) => overText(network, over))
          .map((text) => (
            <Over key={text}>{text}</Over>
          ))}
      </Card>
      <Card title="Facts">
        <Facts>
          <EditableFact kind="rack" row={rack} field="name" optional={false} />
          <EditableFact kind="rack" row={rack} field="units" numeric optional={false} />
          <PlaceFact
            placeId={rack.placeId}
            onMove={(placeId) => void commit(editRow(network, 'rack', rack, { placeId }))}
          />
          <ChosenFact kind="rack" row={rack} field="numbering" options={['up', 'down']} />
          <EditableFact kind="rack" row={rack} field="position" numeric optional={false} />
          <EditableFact
            kind="rack"
            row={rack}
            field="widthMm"
            numeric
            optional={false}
            offers={usualRackWidths.map(({ mm, of }) => ({ value: String(mm), text: of }))}
          />
          <EditableFact kind="rack" row={rack} field="depthMm" numeric />
          <ChosenFact kind="rack" row={rack} field="posts" options={[2, 4]} />
          <ChosenFact
            kind="rack"
            row={rack}
            field="facing"
            options={[null, 'north', 'east', 'south', 'west']}
          />
          <EditableFact kind="rack" row={rack} field="massLimitKg" numeric />
        </Facts>
      </Card>
      <FeedsCard rack={rack} />
      <Card title="Contents">
        {devices.length === 0 && <Hint>Nothing yet. Choose a free unit to add a device.</Hint>}
        <Contents hidden={devices.length === 0}>
          <thead>
            <tr>
              <th scope="col">U</th>
              <th scope="col">Device</th>
            </tr>
          </thead>
          <tbody>
            {devices.map((device) => (
              <tr key={device.id}>
                <td>{device.unit === null ? 'side' : spanText(device).slice(1).replace('–U', '–')}</td>
                <td>
                  <Goto to={{ kind: 'device', id: device.id }}>{device.name}</Goto>
                </td>
              </tr>
            ))}
          </tbody>
        </Contents>
      </Card>
      <RowHistory rowId={rack.id} />
    </>
  );
}
