import { networkPicture, type GatewayDevice, type Nature, type PictureSubnet } from '@visograph/core/cloud';
import type { Device, Place } from '@visograph/core/model';
import { useMemo, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useWhereabouts } from '../data/location.ts';
import { useShown } from '../data/shown.ts';
import { Empty, RoleMark } from '../kit/panel/panels.tsx';
import { mono } from '../theme/mono.ts';

const Page = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 18px 20px 28px;
`;
/** The network itself; its gateways stand on the line. */
const Border = styled.section`
  position: relative;
  margin: 16px 0 18px;
  padding: 28px 16px 20px;
  border: 1.5px solid ${({ theme }) => theme.inkSoft};
  border-radius: 4px;
  background: ${({ theme }) => theme.surface};
`;
const OnLine = styled.div<{ $side: 'top' | 'bottom' }>`
  position: absolute;
  left: 16px;
  right: 16px;
  ${({ $side }) => $side}: -14px;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  justify-content: center;
`;
const Columns = styled.div<{ $count: number }>`
  display: grid;
  grid-template-columns: 62px repeat(${({ $count }) => Math.max(1, $count)}, minmax(180px, 1fr));
  gap: 10px;
  align-items: stretch;
  h3 {
    font-size: 12px;
    font-weight: 600;
    color: ${({ theme }) => theme.inkSoft};
    padding: 0 2px;
  }
`;
const TierName = styled.div`
  display: flex;
  flex-direction: column;
  justify-content: center;
  overflow-wrap: anywhere;
  small {
    color: ${({ theme }) => theme.inkSoft};
    font-size: 12px;
  }
`;
const Cell = styled.div<{ $wide: boolean }>`
  display: flex;
  flex-direction: column;
  gap: 8px;
  ${({ $wide }) => ($wide ? 'grid-column: 2 / -1;' : '')}
`;
/** Open, outward only and closed are told apart by the line: dotted, dashed, a double one; by a word as well. */
const lines: Record<Nature, string> = {
  open: '2px dotted',
  'outward only': '1.5px dashed',
  closed: '4px double',
  unknown: '1px solid',
};
const SubnetFrame = styled.div<{ $nature: Nature; $chosen: boolean }>`
  flex: 1;
  border: ${({ $nature }) => lines[$nature]} ${({ theme }) => theme.ink};
  border-color: ${({ theme, $nature }) => ($nature === 'unknown' ? theme.bad : theme.ink)};
  border-radius: 3px;
  background: ${({ theme, $chosen }) => ($chosen ? theme.accentWash : theme.ground)};
  padding: 7px 9px 9px;
  min-height: 74px;
`;
const SubnetHead = styled.button`
  display: block;
  width: 100%;
  border: 0;
  padding: 0;
  font: inherit;
  color: inherit;
  background: none;
  text-align: left;
  overflow-wrap: anywhere;
  strong {
    font-weight: 600;
  }
  em {
    font-style: normal;
    float: right;
    color: ${({ theme }) => theme.inkSoft};
    font-size: 12px;
  }
  code {
    ${mono}
    display: block;
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
  }
  &:focus-visible {
    outline: 2px solid ${({ theme }) => theme.accent};
    outline-offset: 2px;
  }
`;
const Chips = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  margin-top: 7px;
`;
const ChipFrame = styled.button<{ $chosen: boolean }>`
  display: inline-flex;
  align-items: center;
  gap: 5px;
  max-width: 100%;
  padding: 2px 7px 2px 4px;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  font: inherit;
  font-size: 12.5px;
  color: inherit;
  background: ${({ theme, $chosen }) => ($chosen ? theme.accentWash : theme.surface)};
  border-color: ${({ theme, $chosen }) => ($chosen ? theme.accent : theme.rule)};
  span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    ${mono}
    font-size: 11px;
    color: ${({ theme }) => theme.inkSoft};
  }
  &:focus-visible {
    outline: 2px solid ${({ theme }) => theme.accent};
    outline-offset: 1px;
  }
`;
const Legend = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  color: ${({ theme }) => theme.inkSoft};
  font-size: 12px;
  align-items: center;
  i {
    display: inline-block;
    width: 26px;
    height: 12px;
    margin-right: 6px;
    vertical-align: -1px;
    border-radius: 2px;
  }
`;
const Sample = styled.i<{ $nature: Nature }>`
  border: ${({ $nature }) => lines[$nature]} ${({ theme }) => theme.ink};
`;
const Aside = styled.section`
  h3 {
    font-size: 12px;
    font-weight: 600;
    color: ${({ theme }) => theme.inkSoft};
  }
`;

/** How many chips of a subnet are drawn; the rest is counted. */
const mostChips = 24;

function Chip({ device, detail }: { device: Device; detail: string }): ReactNode {
  const { selection, select } = useWhereabouts();
  return (
    <ChipFrame
      type="button"
      $chosen={selection?.kind === 'device' && selection.id === device.id}
      onClick={() => select({ kind: 'device', id: device.id })}
    >
      <RoleMark role={device.role} />
      <span>{device.name}</span>
      {detail !== '' && <small>{detail}</small>}
    </ChipFrame>
  );
}

const sortText = ({ gateway }: GatewayDevice): string =>
  gateway.sort ??
  (gateway.direction === 'between'
    ? 'between networks'
    : gateway.translates
      ? 'translates'
      : gateway.direction);

function Subnet({ one }: { one: PictureSubnet }): ReactNode {
  const { selection, select } = useWhereabouts();
  const { subnet, nature, prefixes, seated } = one;
  const drawn = seated.slice(0, mostChips);
  return (
    <SubnetFrame
      role="group"
      aria-label={`${subnet.name}, ${nature}`}
      $nature={nature}
      $chosen={selection?.kind === 'cloudSubnet' && selection.id === subnet.id}
    >
      <SubnetHead type="button" onClick={() => select({ kind: 'cloudSubnet', id: subnet.id })}>
        <em>{nature === 'unknown' ? 'no route table' : nature}</em>
        <strong>{subnet.name}</strong>
        {prefixes.map((prefix) => (
          <code key={prefix}>{prefix}</code>
        ))}
      </SubnetHead>
      <Chips>
        {drawn.map(({ device, address }) => (
          <Chip key={device.id} device={device} detail={address.includes(':') ? '' : lastOf(address)} />
        ))}
        {seated.length > drawn.length && <small>{`and ${seated.length - drawn.length} more`}</small>}
      </Chips>
    </SubnetFrame>
  );
}

/** The part of an address that tells hosts of a subnet apart. */
const lastOf = (address: string): string => `.${address.split('.').at(-1) ?? ''}`;

/** A virtual network as a picture: zones side by side, tiers below each other, gateways on its border. */
export function NetworkPictureView({ place }: { place: Place }): ReactNode {
  const network = useShown();
  const picture = useMemo(() => networkPicture(network, place.id), [network, place.id]);
  const { zones, tiers, outer, between, loose } = picture;
  return (
    <Page>
      {tiers.length === 0 && loose.length === 0 ? (
        <Empty title="No subnets yet">
          The network has no subnets. Add one under Subnets, or delete the network and propose one by need.
        </Empty>
      ) : (
        <>
          <Border aria-label={`Virtual network ${place.name}`}>
            <OnLine $side="top">
              {outer.map((one) => (
                <Chip key={one.device.id} device={one.device} detail={sortText(one)} />
              ))}
            </OnLine>
            <Columns $count={zones.length}>
              <span />
              {zones.map((zone) => (
                <h3 key={zone.id}>{zone.name}</h3>
              ))}
              {zones.length === 0 && <h3>Region</h3>}
              {tiers.map((tier) => (
                <Tier key={tier.name} {...tier} />
              ))}
            </Columns>
            <OnLine $side="bottom">
              {between.map((one) => (
                <Chip key={one.device.id} device={one.device} detail={sortText(one)} />
              ))}
            </OnLine>
          </Border>
          {loose.length > 0 && (
            <Aside>
              <h3>In the network, in no subnet</h3>
              <Chips>
                {loose.map((device) => (
                  <Chip key={device.id} device={device} detail="" />
                ))}
              </Chips>
            </Aside>
          )}
          <Legend>
            {(['open', 'outward only', 'closed'] as const).map((nature) => (
              <span key={nature}>
                <Sample $nature={nature} />
                {nature}
              </span>
            ))}
            <span>Worked out from where the routes of each subnet lead</span>
          </Legend>
        </>
      )}
    </Page>
  );
}

function Tier({
  name,
  zones,
  regional,
}: {
  name: string;
  zones: readonly PictureSubnet[][];
  regional: readonly PictureSubnet[];
}): ReactNode {
  const inZones = zones.some((column) => column.length > 0);
  return (
    <>
      <TierName>
        <span>{name}</span>
      </TierName>
      {inZones &&
        zones.map((column, at) => (
          <Cell key={at} $wide={false}>
            {column.map((one) => (
              <Subnet key={one.subnet.id} one={one} />
            ))}
          </Cell>
        ))}
      {regional.length > 0 && (
        <Cell $wide>
          {regional.map((one) => (
            <Subnet key={one.subnet.id} one={one} />
          ))}
        </Cell>
      )}
    </>
  );
}
