import { grouped, type Device, type Rack } from '@visograph/core/model';
import { feedFailure } from '@visograph/core/racks';
import { useEffect, useMemo, type ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { useShown } from '../data/shown.ts';
import { Choice } from '../kit/choice.tsx';
import { DeviceChips } from '../kit/DeviceChips.tsx';
import { ClosingHead, DockColumn, DockFrame, Trouble } from '../kit/panel/dock.tsx';
import { Hint } from '../kit/panel/panels.tsx';
import { useBench } from './bench/bench.tsx';

const Listed = ({ devices, none }: { devices: readonly Device[]; none: string }): ReactNode =>
  devices.length === 0 ? <Hint>{none}</Hint> : <DeviceChips devices={devices} />;

/** What stops, what goes on from a battery, and which feeds are then overloaded, when one feed fails. */
export function FeedPanel({ racks }: { racks: readonly Rack[] }): ReactNode {
  const { view } = useProject();
  const { network } = view;
  const shown = useShown();
  const { deadFeed, setDeadFeed, setPanel, setColour } = useBench();
  const names = useMemo(
    () => [...new Set(racks.flatMap((rack) => rack.feeds.map((feed) => feed.name)))].sort(),
    [racks],
  );
  const feed = deadFeed ?? names[0] ?? null;
  useEffect(() => {
    setDeadFeed(feed);
    setColour('feedState');
    return () => {
      setDeadFeed(null);
      setColour('role');
    };
  }, [feed, setDeadFeed, setColour]);
  const failure = useMemo(
    () => (feed === null ? null : feedFailure(shown, racks, feed)),
    [shown, racks, feed],
  );
  return (
    <DockFrame aria-label="If a feed fails">
      <DockColumn $grow={0.7}>
        <h2>Feed that fails</h2>
        {names.length === 0 ? (
          <Hint>No feed is stated for these racks. Add feeds in the record of a rack.</Hint>
        ) : (
          <Choice
            label="Feed"
            value={feed}
            options={names.map((name) => ({ id: name, text: `Feed ${name}` }))}
            onChange={setDeadFeed}
            width={120}
          />
        )}
        {failure?.overloaded.map((one) => (
          <Trouble key={`${one.rackId}${one.feed}`}>
            {`Then feed ${one.feed} of ${network.get('rack', one.rackId)?.name ?? ''} carries up to ${grouped(one.maxW)} W of ${grouped(one.usableW)} W.`}
          </Trouble>
        ))}
        {failure !== null && failure.overloaded.length === 0 && (
          <Hint>No other feed is overloaded then.</Hint>
        )}
      </DockColumn>
      <DockColumn>
        <h2>{`Goes dark · ${failure?.dark.length ?? 0}`}</h2>
        <Listed devices={failure?.dark ?? []} none="Nothing: every device has another way to power." />
      </DockColumn>
      <DockColumn $shaded>
        <h2>{`On battery · ${failure?.onBattery.length ?? 0}`}</h2>
        <Listed devices={failure?.onBattery ?? []} none="Nothing." />
      </DockColumn>
      <DockColumn>
        <ClosingHead
          onClose={() => setPanel(null)}
        >{`Power not documented · ${failure?.undocumented.length ?? 0}`}</ClosingHead>
        <Listed devices={failure?.undocumented ?? []} none="Nothing: every inlet is cabled or on a feed." />
      </DockColumn>
    </DockFrame>
  );
}
