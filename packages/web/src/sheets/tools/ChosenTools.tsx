import { hasChoice, nameField, type Sheet } from '@visograph/core/model';
import { groupOnSheet, type Container, type Plate } from '@visograph/core/sheets';
import type { ReactNode } from 'react';
import { DialogTrigger, MenuItem, MenuTrigger, Button as AriaButton, Dialog } from 'react-aria-components';
import { styled } from 'styled-components';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useRecordShown } from '../../data/recordShown.ts';
import { Button, Floating, Keycap } from '../../kit/controls.tsx';
import { TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { MenuList, ToolLine } from '../../kit/tools.tsx';
import type { SheetActs } from '../useSheetActs.ts';
import { DuplicateAsk } from './DuplicateAsk.tsx';

const Ask = styled(Dialog)`
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 10px 12px;
  width: 280px;
  outline: none;
  div {
    display: flex;
    gap: 6px;
  }
`;

const arrangements: readonly { id: Parameters<SheetActs['arrange']>[0]; text: string; least: number }[] = [
  { id: 'left', text: 'Align left edges', least: 2 },
  { id: 'centre', text: 'Align centres in a column', least: 2 },
  { id: 'right', text: 'Align right edges', least: 2 },
  { id: 'top', text: 'Align top edges', least: 2 },
  { id: 'middle', text: 'Align middles in a row', least: 2 },
  { id: 'bottom', text: 'Align bottom edges', least: 2 },
  { id: 'spreadX', text: 'Same gaps across', least: 3 },
  { id: 'spreadY', text: 'Same gaps down', least: 3 },
  { id: 'mirrorX', text: 'Mirror left to right', least: 2 },
  { id: 'mirrorY', text: 'Mirror top to bottom', least: 2 },
  { id: 'sameSize', text: 'Same size', least: 2 },
  { id: 'straighten', text: 'Straighten the link between them', least: 2 },
];

const newGroup = z.object({ name: trimmed(nameField('Name of the group', 60)) });

/** What a group is to be called. */
function GroupAsk({ onName }: { onName: (name: string) => void }): ReactNode {
  const form = useSchemaForm(newGroup, { name: '' });
  return (
    <Ask aria-label="Group">
      {({ close }) => (
        <Form
          label="Group"
          form={form}
          action="Group"
          onSend={({ name }) => {
            onName(name);
            close();
          }}
        >
          <TextIn name="name" autoFocus />
        </Form>
      )}
    </Ask>
  );
}

/** The outermost place that holds these plates and no others. */
function wholeOf(containers: readonly Container[], plates: readonly Plate[]): Container | null {
  const ids = new Set(plates.map(({ id }) => id));
  return (
    containers.find(
      ({ form, plateIds }) =>
        form === 'place' && plateIds.length === ids.size && plateIds.every((id) => ids.has(id)),
    ) ?? null
  );
}

interface Props {
  sheet: Sheet;
  containers: readonly Container[];
  plates: readonly Plate[];
  markIds: readonly string[];
  acts: SheetActs;
  /** Lays the chosen plates out afresh. */
  onTidy: () => void;
  onDelete: () => void;
  /** Chooses all members of a group. */
  onGroup: (members: readonly string[]) => void;
  /** Draws the chosen devices on a sheet of their own. */
  onApart: () => void;
  /** Whether it is asked how often what is chosen is to be there. */
  duplicating: boolean;
  onDuplicating: (open: boolean) => void;
  /** Devices were copied: they are what is chosen then. */
  onCopied: (deviceIds: string[]) => void;
  /** Opens the facts of the chosen devices: their model above all. */
  onFacts: () => void;
  /** Asks what the chosen devices are to be joined to; null: nothing can be joined. */
  onJoin: (() => void) | null;
}

/** What can be done with what is chosen on the sheet, over the drawing so that nothing below moves. */
export function ChosenTools({
  sheet,
  containers,
  plates,
  markIds,
  acts,
  onTidy,
  onDelete,
  onGroup,
  onApart,
  duplicating,
  onDuplicating,
  onCopied,
  onFacts,
  onJoin,
}: Props): ReactNode {
  const { view } = useProject();
  const record = useRecordShown();
  const count = plates.length + markIds.length;
  const [only] = plates;
  if (count === 0) return null;
  const fold = count === 1 && only?.form === 'fold' ? only : null;
  /** Devices of one role, which can be drawn as "n of these". */
  const alike =
    plates.length > 1 &&
    markIds.length === 0 &&
    plates.every(({ form, role }) => (form === 'device' || form === 'fold') && role === only?.role) &&
    hasChoice(sheet.projection, 'endDevices');
  const copyable = plates.some(({ form, deviceIds }) => form !== 'place' && deviceIds.length > 0);
  const locked =
    plates.every((plate) => plate.locked) &&
    markIds.every((id) => view.network.get('mark', id)?.locked === true);
  const first = plates[0]?.subjects[0] ?? markIds[0] ?? '';
  const group = sheet.groups.find((one) => one.members.includes(first));
  const place =
    count === 1 && only?.form === 'place' && hasChoice(sheet.projection, 'closedPlaces') ? only : null;
  /** The place of which all plates are chosen, and nothing else. */
  const whole =
    hasChoice(sheet.projection, 'closedPlaces') && plates.length > 1 && markIds.length === 0
      ? wholeOf(containers, plates)
      : null;
  return (
    <ToolLine role="group" aria-label="Chosen on the sheet">
      <span>
        {count === 1 ? (only?.name ?? view.network.get('mark', markIds[0] ?? null)?.form) : `${count} chosen`}
      </span>
      {record.drawer && <Button onPress={record.show}>Record</Button>}
      {onJoin !== null && (
        <Button onPress={onJoin}>
          Connect<Keycap>C</Keycap>
        </Button>
      )}
      {plates.some((plate) => plate.deviceIds.length > 0 && plate.form !== 'place') && (
        <Button onPress={onFacts}>
          Facts<Keycap>D</Keycap>
        </Button>
      )}
      {count > 1 && (
        <MenuTrigger>
          <Button as={AriaButton}>Arrange</Button>
          <Floating>
            <MenuList
              aria-label="Arrange"
              onAction={(key) => {
                const chosen = arrangements.find(({ id }) => id === key);
                if (chosen !== undefined) acts.arrange(chosen.id, plates, markIds);
              }}
            >
              {arrangements
                .filter(({ id, least }) => count >= least && (id !== 'straighten' || plates.length === 2))
                .map(({ id, text }) => (
                  <MenuItem key={id} id={id}>
                    {text}
                  </MenuItem>
                ))}
            </MenuList>
          </Floating>
        </MenuTrigger>
      )}
      {group !== undefined && count < group.members.length && (
        <Button onPress={() => onGroup(group.members)}>{`All of ${group.name}`}</Button>
      )}
      {fold !== null && <Button onPress={() => acts.scatter(fold)}>One by one</Button>}
      {alike && <Button onPress={() => acts.gather(plates)}>As one plate</Button>}
      {whole !== null && (
        <Button onPress={() => acts.collapse(whole.id, true)}>{`${whole.title} as one plate`}</Button>
      )}
      {place !== null && (
        <Button onPress={() => acts.collapse(place.subjects[0] ?? '', false)}>Open up</Button>
      )}
      {plates.length > 0 && <Button onPress={onTidy}>Tidy</Button>}
      <Button onPress={() => acts.lock(plates, markIds, !locked)}>{locked ? 'Unlock' : 'Lock'}</Button>
      {count > 1 && (
        <DialogTrigger>
          <Button as={AriaButton}>Group</Button>
          <Floating>
            <GroupAsk
              onName={(name) =>
                acts.commit(
                  groupOnSheet(sheet, name, [...plates.flatMap((plate) => plate.subjects), ...markIds]),
                )
              }
            />
          </Floating>
        </DialogTrigger>
      )}
      <Button onPress={() => acts.copy(plates, markIds)}>Copy</Button>
      {copyable && (
        <DialogTrigger isOpen={duplicating} onOpenChange={onDuplicating}>
          <Button as={AriaButton}>
            Duplicate<Keycap>Ctrl D</Keycap>
          </Button>
          <Floating>
            <DuplicateAsk plates={plates} acts={acts} onDone={onCopied} />
          </Floating>
        </DialogTrigger>
      )}
      {plates.length > 1 && <Button onPress={onApart}>Own sheet</Button>}
      <Button onPress={onDelete}>Delete …</Button>
    </ToolLine>
  );
}
