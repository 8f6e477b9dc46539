import {
  blankOptics,
  connectorNames,
  connectors,
  formatVids,
  isCage,
  media,
  readVids,
  type CatalogueModel,
  type Optics,
} from '@visograph/core/model';
import type { ReactNode } from 'react';
import { Choice } from '../../kit/choice.tsx';
import { Fields, numberList, ParsedField } from './CableTypeEditor.tsx';

const speeds = [1e8, 1e9, 1e10, 2.5e10, 4e10, 1e11];
const positive = (text: string): number | null => {
  const [value] = numberList(text) ?? [];
  return value !== undefined && value > 0 ? value : null;
};
/** dBm, or empty where the data sheet states none. */
const level = (text: string): { dbm: number | null } | null => {
  if (text.trim() === '') return { dbm: null };
  const [dbm] = numberList(text) ?? [];
  return dbm === undefined ? null : { dbm };
};

/** Strands of an array plug, as numbers and ranges; null where the text is none. */
const strandList = (text: string): { opticStrands: number[] | null } | null => {
  const read = readVids(text);
  if (!read.ok || read.vids === 'all' || read.vids.some((strand) => strand > 24)) return null;
  return { opticStrands: read.vids.length === 0 ? null : [...read.vids] };
};

/** What a transceiver is: its form and connector, speed, reach, light sent and needed. */
export function OpticsEditor({
  model,
  onChange,
}: {
  model: CatalogueModel;
  onChange: (change: Partial<CatalogueModel>) => void;
}): ReactNode {
  const optics = model.optics ?? blankOptics;
  const set = (change: Partial<Optics>): void => onChange({ optics: { ...optics, ...change } });
  const light = (field: 'launchMinDbm' | 'launchMaxDbm' | 'sensitivityDbm', label: string): ReactNode => (
    <ParsedField
      label={label}
      start={optics[field] === null ? '' : String(optics[field])}
      parse={level}
      onChange={({ dbm }) => set({ [field]: dbm })}
      width={120}
      help="dBm"
    />
  );
  return (
    <>
      <h2>Optics</h2>
      <Fields>
        <Choice
          label="Form"
          width={110}
          value={optics.formFactor}
          options={connectorNames.filter((name) => isCage(name)).map((name) => ({ id: name, text: name }))}
          onChange={(next) => set({ formFactor: connectorNames.find((name) => name === next) ?? 'SFP+' })}
        />
        <Choice
          label="Speed"
          width={90}
          value={String(optics.speedBps)}
          options={speeds.map((bps) => ({
            id: String(bps),
            text: bps >= 1e9 ? `${bps / 1e9}G` : `${bps / 1e6}M`,
          }))}
          onChange={(next) => set({ speedBps: Number(next) })}
        />
        <Choice
          label="Connector"
          width={120}
          value={optics.connector}
          options={connectorNames
            .filter((name) => connectors[name].family === 'fibre' || name === 'RJ45')
            .map((name) => ({ id: name, text: connectors[name].label }))}
          onChange={(next) => set({ connector: connectorNames.find((name) => name === next) ?? 'LC' })}
        />
        <Choice
          label="Made for"
          width={110}
          value={model.medium}
          options={media.map((medium) => ({ id: medium, text: medium }))}
          onChange={(next) => onChange({ medium: media.find((medium) => medium === next) ?? null })}
        />
        <ParsedField
          label="Reach, m"
          start={String(optics.reachM)}
          parse={positive}
          onChange={(reachM) => set({ reachM })}
          width={90}
          help="at most"
        />
        <ParsedField
          label="Wavelengths, nm"
          start={optics.wavelengthsNm.join('; ')}
          parse={numberList}
          onChange={(wavelengthsNm) => set({ wavelengthsNm })}
          width={150}
          help="sent; received if another"
        />
        {connectors[optics.connector].family === 'fibre' && (
          <ParsedField
            label="Strands it lights"
            start={model.opticStrands === null ? '' : formatVids(model.opticStrands)}
            parse={strandList}
            onChange={({ opticStrands }) => onChange({ opticStrands })}
            width={130}
            help="1-4,9-12; all where empty"
          />
        )}
        {light('launchMinDbm', 'Sent at least')}
        {light('launchMaxDbm', 'Sent at most')}
        {light('sensitivityDbm', 'Needed at least')}
      </Fields>
    </>
  );
}
