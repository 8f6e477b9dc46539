import { applyChanges } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import { moneyText, readMoney, type Device } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { Button } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Card, DateFact, EditableFact, Facts, TypedFact } from '../../record/parts.tsx';

const fields = [
  'assetNumber',
  'responsible',
  'supplier',
  'orderNumber',
  'boughtOn',
  'priceMinor',
  'warrantyUntil',
  'contract',
  'supportUntil',
  'softwareVersion',
] as const;
const days = new Set<string>(['boughtOn', 'warrantyUntil', 'supportUntil']);

/** What was paid: an amount with its currency. */
function PriceFact({ device }: { device: Device }): ReactNode {
  const { view, commit } = useProject();
  const keep = (text: string): string | null => {
    const paid = text.trim() === '' ? { priceMinor: null, currency: null } : readMoney(text, device.currency);
    if (paid === null) return `“${text.trim()}” is not an amount such as 1250.00 EUR.`;
    const set = editRow(view.network, 'device', device, paid);
    const tried = applyChanges(view.network, set.changes);
    if (!tried.ok)
      return paid.currency === null
        ? 'Say the currency too, as in 1250.00 EUR.'
        : (tried.problems[0]?.message ?? 'Not allowed.');
    commit({
      ...set,
      sentence: `Set price paid for ${device.name} to ${moneyText(paid) || 'nothing'}`,
    });
    return null;
  };
  return <TypedFact label="Price paid" shown={moneyText(device)} keep={keep} />;
}

/** What an owner is asked for. Facts that are not known stand behind a button, so that the record stays short. */
export function InventoryCard({ device }: { device: Device }): ReactNode {
  const { canEdit } = useProject();
  const [all, setAll] = useState(false);
  const known = fields.filter((field) => device[field] !== null);
  const listed = all ? fields : known;
  if (!canEdit && known.length === 0) return null;
  return (
    <Card title="Inventory">
      {listed.length === 0 && <Hint>Nothing is noted of purchase, warranty and support.</Hint>}
      <Facts>
        {listed.map((field) =>
          field === 'priceMinor' ? (
            <PriceFact key={field} device={device} />
          ) : days.has(field) ? (
            <DateFact key={field} kind="device" row={device} field={field} />
          ) : (
            <EditableFact key={field} kind="device" row={device} field={field} />
          ),
        )}
      </Facts>
      {canEdit && known.length < fields.length && (
        <Button $tone="quiet" aria-expanded={all} onPress={() => setAll(!all)}>
          {all ? 'Only what is known' : `Add facts (${fields.length - known.length} empty)`}
        </Button>
      )}
    </Card>
  );
}
