import { bundleManners, type BundleManner, type Sheet } from '@visograph/core/model';
import { setBundle, type Scene, type SceneBundle, type SceneLink } from '@visograph/core/sheets';
import type { ReactNode } from 'react';
import { Button as AriaButton, MenuItem, MenuTrigger } from 'react-aria-components';
import { useProject } from '../../data/project.tsx';
import { Button, Floating, Keycap } from '../../kit/controls.tsx';
import { MenuList, ToolLine } from '../../kit/tools.tsx';

const words: Record<BundleManner, string> = {
  closed: 'Always as one line',
  open: 'Always in lanes',
  never: 'Always each by itself',
};

interface Props {
  sheet: Sheet;
  scene: Scene;
  bundle: SceneBundle;
  open: boolean;
  /** At this zoom all are open: it cannot be closed. */
  allOpen: boolean;
  canEdit: boolean;
  onToggle: () => void;
  onPick: (link: SceneLink) => void;
}

/** What can be done with the bundle that is chosen: look into it, choose one of its links, or have it drawn otherwise. */
export function BundleTools({
  sheet,
  scene,
  bundle,
  open,
  allOpen,
  canEdit,
  onToggle,
  onPick,
}: Props): ReactNode {
  const { commit } = useProject();
  const hub = scene.plates.find(({ id }) => id === bundle.hubId);
  const links = scene.links.filter(({ id }) => bundle.linkIds.includes(id));
  const [deviceId] = hub?.subjects ?? [];
  const { title, purpose } = bundle;
  const all = `${links.length} links of ${hub?.name ?? 'one plate'}`;
  return (
    <ToolLine role="group" aria-label="Chosen bundle">
      <span>{[`${all}: ${title}`, bundle.told].filter((part) => part !== '').join(' · ')}</span>
      <Button isDisabled={allOpen} onPress={onToggle}>
        {open ? 'As one line' : 'In lanes'}
        <Keycap>Enter</Keycap>
      </Button>
      <MenuTrigger>
        <Button as={AriaButton}>{`Links (${links.length})`}</Button>
        <Floating>
          <MenuList
            aria-label={`Links of the bundle`}
            onAction={(key) => {
              const link = links.find(({ id }) => id === key);
              if (link !== undefined) onPick(link);
            }}
          >
            {links.map((link) => (
              <MenuItem key={link.id} id={link.id}>
                {link.spoken}
              </MenuItem>
            ))}
          </MenuList>
        </Floating>
      </MenuTrigger>
      {canEdit && deviceId !== undefined && (
        <MenuTrigger>
          <Button as={AriaButton}>Draw</Button>
          <Floating>
            <MenuList
              aria-label="Draw this bundle"
              onAction={(key) => {
                const drawn = bundleManners.find((one) => one === key);
                if (drawn !== undefined) commit(setBundle(sheet, { deviceId, purpose, title }, drawn));
              }}
            >
              {bundleManners.map((one) => (
                <MenuItem key={one} id={one}>
                  {words[one]}
                </MenuItem>
              ))}
            </MenuList>
          </Floating>
        </MenuTrigger>
      )}
    </ToolLine>
  );
}
