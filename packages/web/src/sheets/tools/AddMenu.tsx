import {
  byName,
  racksIn,
  placesWithin,
  type MarkForm,
  type Mark,
  isOneOf,
  markForms,
} from '@visograph/core/model';
import { type Point } from '@visograph/core/sheets';
import { useReactFlow, useStore } from '@xyflow/react';
import { useRef, type ReactNode } from 'react';
import { Button as AriaButton, MenuItem, MenuTrigger } from 'react-aria-components';
import { useProject } from '../../data/project.tsx';
import { Button, Floating } from '../../kit/controls.tsx';
import { MenuList } from '../../kit/tools.tsx';
import { FileInput } from '../../kit/FileInput.tsx';
import { readPicture } from '../../catalogue/pictures.ts';

const forms: readonly { form: MarkForm; text: string }[] = [
  { form: 'note', text: 'Note' },
  { form: 'callout', text: 'Callout for the chosen device' },
  { form: 'line', text: 'Line' },
  { form: 'arrow', text: 'Arrow' },
  { form: 'rectangle', text: 'Rectangle' },
  { form: 'ellipse', text: 'Ellipse' },
  { form: 'polygon', text: 'Polygon' },
  { form: 'enclosure', text: 'Enclosure around what is chosen' },
  { form: 'dimension', text: 'Distance of two racks' },
  { form: 'schedule', text: 'Schedule as a table' },
  { form: 'picture', text: 'Picture …' },
];

/** Corners of shapes as they begin, from their own corner. */
const corners: Partial<Record<MarkForm, Point[]>> = {
  line: [
    { x: 0, y: 0 },
    { x: 160, y: 0 },
  ],
  arrow: [
    { x: 0, y: 0 },
    { x: 160, y: 0 },
  ],
  polygon: [
    { x: 40, y: 0 },
    { x: 120, y: 0 },
    { x: 160, y: 64 },
    { x: 120, y: 128 },
    { x: 40, y: 128 },
    { x: 0, y: 64 },
  ],
};

/** Files beyond this are not even read. */
const mostBytes = 8_000_000;

interface Props {
  scopeId: string | null;
  /** The room that the chosen plates take; null when nothing is chosen. */
  around: { x: number; y: number; width: number; height: number } | null;
  deviceId: string | null;
  onInsert: (form: MarkForm, at: Point, fields?: Partial<Mark>) => void;
}

/** Notes, shapes, lines and pictures, put into the middle of what is in view. */
export function AddMenu({ scopeId, around, deviceId, onInsert }: Props): ReactNode {
  const { view, sync } = useProject();
  const flow = useReactFlow();
  const width = useStore((state) => state.width);
  const height = useStore((state) => state.height);
  const input = useRef<HTMLInputElement>(null);
  const middle = (): Point => {
    const { x, y, zoom } = flow.getViewport();
    const snap = (value: number): number => Math.round(value / 8) * 8;
    return { x: snap((width / 2 - x) / zoom - 80), y: snap((height / 2 - y) / zoom - 40) };
  };
  const racks = racksIn(view.network, placesWithin(view.network, scopeId)).sort(byName);
  const insert = (form: MarkForm): void => {
    if (form === 'picture') return input.current?.click();
    const at = middle();
    if (form === 'enclosure' && around !== null)
      return onInsert(
        form,
        { x: around.x - 40, y: around.y - 56 },
        {
          width: around.width + 80,
          height: around.height + 96,
          text: 'Enclosure',
          tone: 'accent',
          filled: true,
        },
      );
    if (form === 'enclosure')
      return onInsert(form, at, { width: 320, height: 200, text: 'Enclosure', tone: 'accent', filled: true });
    if (form === 'dimension')
      return onInsert(form, at, {
        width: 220,
        height: 32,
        aRackId: racks[0]?.id ?? null,
        bRackId: racks.at(-1)?.id ?? null,
      });
    if (form === 'schedule') {
      const [first] = [...view.network.all('schedule')].sort(byName);
      if (first === undefined)
        return sync.announce({
          tone: 'bad',
          text: 'This project has no schedule of its own yet. Open Schedules and keep one: then it can stand on a sheet.',
        });
      return onInsert(form, at, { width: 240, height: 400, scheduleId: first.id });
    }
    if (form === 'note' || form === 'callout')
      return onInsert(form, at, { text: 'Write here', width: 200, height: 48, deviceId });
    return onInsert(form, at, { points: corners[form] ?? [] });
  };
  const take = async (file: File): Promise<void> => {
    if (file.size > mostBytes) {
      const megabytes = Math.round(file.size / 1e6);
      sync.announce({
        tone: 'bad',
        text: `${file.name} has ${megabytes} MB: pictures of a sheet may have at most 1.1 MB. Make it smaller first.`,
      });
      return;
    }
    const read = await readPicture(file, 'sheet');
    if (!read.ok) return sync.announce({ tone: 'bad', text: `${file.name}: ${read.why}` });
    const bitmap = await createImageBitmap(file).catch(() => null);
    const shape =
      bitmap === null ? { width: 480, height: 320 } : { width: bitmap.width, height: bitmap.height };
    const scale = Math.min(1, 960 / Math.max(shape.width, shape.height));
    onInsert('picture', middle(), {
      picture: read.picture,
      width: Math.max(24, Math.round(shape.width * scale)),
      height: Math.max(24, Math.round(shape.height * scale)),
      text: file.name,
    });
    if (read.removed)
      sync.announce({ tone: 'ok', text: 'Scripts and links to elsewhere were taken out of the picture.' });
  };
  return (
    <>
      <MenuTrigger>
        <Button as={AriaButton}>Add</Button>
        <Floating>
          <MenuList
            aria-label="Add to the sheet"
            onAction={(key) => isOneOf(markForms, key) && insert(key)}
            disabledKeys={[
              ...(deviceId === null ? ['callout'] : []),
              ...(racks.length < 2 ? ['dimension'] : []),
            ]}
          >
            {forms.map(({ form, text }) => (
              <MenuItem key={form} id={form}>
                {text}
              </MenuItem>
            ))}
          </MenuList>
        </Floating>
      </MenuTrigger>
      <FileInput
        input={input}
        label="Picture for the sheet"
        accept=".png,.svg,image/png,image/svg+xml"
        onFile={(file) => void take(file)}
      />
    </>
  );
}
