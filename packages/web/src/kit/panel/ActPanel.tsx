import type { ReactNode } from 'react';
import { Button } from '../controls.tsx';
import { PanelDialog } from './panelDialog.tsx';
import { Hint } from './panels.tsx';
import { PanelBody } from './Preview.tsx';

interface Props {
  title: string;
  /** For tables of several columns. */
  wide?: boolean;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  /** What is asked for, beside each other. */
  fields: ReactNode;
  /** What to know or to do before anything can be shown. */
  note?: string | null;
  /** Why it cannot be done as asked. */
  trouble?: string | null;
  /** Everything that would be made, before it is. */
  children?: ReactNode;
  /** What the one button says, such as "Number 5 links". */
  action: string;
  /** Does it, and says whether it was done; null while there is nothing to do. */
  onAct: (() => boolean) | null;
}

/** A panel of fields, what they come to, and one button that does it and closes the panel. */
export function ActPanel({
  title,
  wide = false,
  open,
  onOpenChange,
  fields,
  note = null,
  trouble = null,
  children,
  action,
  onAct,
}: Props): ReactNode {
  return (
    <PanelDialog title={title} wide={wide} open={open} onOpenChange={onOpenChange}>
      <PanelBody
        as="form"
        $wide={wide}
        onSubmit={(event) => {
          event.preventDefault();
          event.stopPropagation();
          if (onAct?.() === true) onOpenChange(false);
        }}
      >
        <div className="fields">{fields}</div>
        {note !== null && <Hint>{note}</Hint>}
        {trouble !== null && <Hint role="alert">{trouble}</Hint>}
        {children}
        <div>
          <Button type="submit" $tone="primary" isDisabled={onAct === null}>
            {action}
          </Button>
        </div>
      </PanelBody>
    </PanelDialog>
  );
}
