import { hostsFile, zoneFile, zoneNames, zoneSerial } from '@visograph/core/addressing';
import type { ReactNode } from 'react';
import { addressOf } from '../data/api.ts';
import { useProject } from '../data/project.tsx';
import { useMeantQuery } from '../data/shown.ts';
import { Button } from '../kit/controls.tsx';
import { PanelDialog } from '../kit/panel/panelDialog.tsx';
import { Hint } from '../kit/panel/panels.tsx';
import { PanelBody, Preview } from '../kit/panel/Preview.tsx';
import { saveFile } from '../kit/saveFile.ts';

const plain = 'text/plain';

/** Zone files of all named addresses, forward and reverse, a hosts file, and the ranges of DHCP. */
export function ZoneFiles({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}): ReactNode {
  const { view, project } = useProject();
  const meant = useMeantQuery();
  const { network } = view;
  const zones = open ? zoneNames(network) : [];
  return (
    <PanelDialog title="Names and DHCP as files" open={open} onOpenChange={onOpenChange}>
      <PanelBody>
        {zones.length === 0 ? (
          <Hint>No address has a DNS name yet. Give names in the list of addresses.</Hint>
        ) : (
          <Preview>
            <table aria-label="Zones">
              <tbody>
                {zones.map((zone) => (
                  <tr key={zone}>
                    <td className="mono">{zone}</td>
                    <td>{zone.endsWith('.arpa') ? 'reverse' : 'forward'}</td>
                    <td>
                      <Button
                        aria-label={`Save zone ${zone}`}
                        onPress={() =>
                          saveFile(
                            `${zone}.zone`,
                            zoneFile(network, zone, zoneSerial(Date.now())) ?? '',
                            plain,
                          )
                        }
                      >
                        Save
                      </Button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Preview>
        )}
        <div className="fields">
          <Button
            isDisabled={zones.length === 0}
            onPress={() => saveFile('hosts', hostsFile(network), plain)}
          >
            Save hosts file
          </Button>
          <Button
            onPress={() =>
              window.location.assign(
                addressOf('GET /projects/:project/reports/:report', {
                  params: { project: project.id, report: 'dhcp' },
                  query: { ...meant, format: 'csv' },
                }),
              )
            }
          >
            Save DHCP ranges
          </Button>
        </div>
      </PanelBody>
    </PanelDialog>
  );
}
