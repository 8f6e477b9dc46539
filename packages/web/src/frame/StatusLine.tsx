import { inForce } from '@visograph/core/lens';
import { devicesInScope, devicesNotPlaced, placesWithin, isFree, titleOf } from '@visograph/core/model';
import { useDeferredValue, useMemo, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useFindings } from '../data/findings.ts';
import { useNetwork } from '../data/project.tsx';
import { useShown } from '../data/shown.ts';
import { useWhereabouts } from '../data/location.ts';
import { Button } from '../kit/controls.tsx';
import { mono } from '../theme/mono.ts';

const Line = styled.footer`
  grid-area: foot;
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 0 12px;
  font-size: 12px;
  color: ${({ theme }) => theme.inkSoft};
  background: ${({ theme }) => theme.band};
  border-top: 1px solid ${({ theme }) => theme.rule};
  ${mono}
  font-family: inherit;
`;

const Found = styled(Button)`
  height: 20px;
  padding: 0 4px;
  font-size: 12px;
  color: ${({ theme }) => theme.ink};
  text-decoration: underline;
  text-decoration-color: ${({ theme }) => theme.rule};
  text-underline-offset: 3px;
`;

/** What there is in the scope, in numbers, and what is selected. */
export function StatusLine(): ReactNode {
  const newest = useNetwork();
  /** The counts follow an edit a moment later: they go over every port of the scope. */
  const network = useDeferredValue(inForce(useShown()));
  const { scopeId, selection, go } = useWhereabouts();
  const judged = useFindings();
  const findings = judged?.review.open.length ?? null;
  const text = useMemo(() => {
    const devices = devicesInScope(network, scopeId);
    let ports = 0;
    let used = 0;
    for (const device of devices) {
      for (const port of network.find('portsByDevice', device.id)) {
        ports++;
        if (!isFree(network, port.id)) used++;
      }
    }
    const racks = [...placesWithin(network, scopeId)].reduce(
      (sum, id) => sum + network.countOf('racksByPlace', id),
      0,
    );
    const some = (count: number, one: string): string => `${count} ${count === 1 ? one : `${one}s`}`;
    const open = scopeId === null ? devicesNotPlaced(network).length : 0;
    const placed =
      open === 0
        ? ''
        : ` · ${open === devices.length ? 'nothing' : open} ${open === devices.length ? 'placed yet' : 'not placed yet'}`;
    return `${some(devices.length, 'device')} · ${some(racks, 'rack')} · ${used} ports used of ${ports}${placed}`;
  }, [network, scopeId]);
  const found =
    findings === null
      ? 'checking …'
      : findings === 0
        ? 'no findings'
        : `${findings} ${findings === 1 ? 'finding' : 'findings'} in the project`;
  const chosen = selection === null ? '' : titleOf(newest, selection.kind, selection.id);
  return (
    <Line>
      <span>
        {`${text} · `}
        {findings === null || findings === 0 ? (
          found
        ) : (
          <Found $tone="quiet" onPress={() => go({ section: 'review', scopeId: null })}>
            {found}
          </Found>
        )}
      </span>
      <span>{chosen === '' ? '' : `selected: ${chosen}`}</span>
    </Line>
  );
}
