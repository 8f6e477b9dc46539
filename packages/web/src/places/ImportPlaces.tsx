import { readPlaceRows } from '@visograph/core/places';
import type { ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { ImportRows } from '../kit/ImportRows.tsx';

/** A list of places and racks from a spreadsheet. */
export function ImportPlaces({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}): ReactNode {
  const { view } = useProject();
  return (
    <ImportRows
      title="Import places and racks"
      help="A spreadsheet (.xlsx or .csv) with headings in its first row: Path, and as far as known Kind, Code, Address, Latitude, Longitude, Contacts, Rack, Units, Position, Mass limit, Notes. A row with a rack puts it into the place of its path."
      read={(rows) => readPlaceRows(view.network, rows)}
      open={open}
      onOpenChange={onOpenChange}
    />
  );
}
