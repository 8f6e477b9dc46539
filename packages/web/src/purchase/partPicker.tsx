import { metresText, modelTitle, placePath, type CatalogueModel, type Network } from '@visograph/core/model';
import { useMemo, type ReactNode } from 'react';
import { Choice, Picker } from '../kit/choice.tsx';

const byText = (a: { text: string }, b: { text: string }): number => a.text.localeCompare(b.text, 'en');

/** A part of the catalogue, and of what is made in lengths its length. */
export function PartPicker({
  network,
  modelId,
  lengthM,
  among = () => true,
  onChange,
}: {
  network: Network;
  modelId: string | null;
  lengthM: number | null;
  among?: (model: CatalogueModel) => boolean;
  onChange: (modelId: string | null, lengthM: number | null) => void;
}): ReactNode {
  const options = useMemo(
    () =>
      [...network.all('model')]
        .filter(among)
        .map((model) => ({ id: model.id, text: modelTitle(model), detail: model.partNumber ?? undefined }))
        .map(({ detail, ...one }) => (detail === undefined ? one : { ...one, detail }))
        .sort(byText),
    [network, among],
  );
  const lengths = network.get('model', modelId)?.stockLengthsM ?? [];
  return (
    <>
      <Picker
        label="Part"
        width={280}
        autoFocus
        options={options}
        value={modelId}
        onChange={(id) => onChange(id, network.get('model', id)?.stockLengthsM[0] ?? null)}
      />
      {lengths.length > 0 && (
        <Choice
          label="Length"
          width={92}
          options={lengths.map((one) => ({ id: String(one), text: metresText(one) }))}
          value={lengthM === null ? null : String(lengthM)}
          onChange={(id) => onChange(modelId, Number(id))}
        />
      )}
    </>
  );
}

/** Places to choose from, by their paths. */
export const placeOptions = (network: Network): { id: string; text: string }[] =>
  [...network.all('place')].map(({ id }) => ({ id, text: placePath(network, id) })).sort(byText);
