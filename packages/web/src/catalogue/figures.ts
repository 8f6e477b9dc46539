import { expandPortPattern, grouped, roles, type CatalogueModel } from '@visograph/core/model';

const speed = (bps: number): string => (bps >= 1e9 ? `${bps / 1e9}G` : `${bps / 1e6}M`);

/** How many ports a group has; 0 where its pattern cannot be read. */
export const portCount = (pattern: string): number => {
  const names = expandPortPattern(pattern);
  return names.ok ? names.names.length : 0;
};

/** "48 × RJ45 1G PoE, 4 × SFP+ 10G": the ports that carry data. */
export function portText(model: CatalogueModel): string {
  return model.portGroups
    .filter((group) => !['powerIn', 'management', 'console'].includes(group.role))
    .map((group) =>
      [
        `${portCount(group.pattern)} × ${group.connector}`,
        group.speedBps === null ? '' : speed(group.speedBps),
        group.poeClass === null ? '' : 'PoE',
      ]
        .filter((part) => part !== '')
        .join(' '),
    )
    .join(', ');
}

/** What a model is, in one word. */
export const kindText = (model: CatalogueModel): string =>
  model.form === 'cable'
    ? 'cable type'
    : model.form === 'transceiver'
      ? 'transceiver'
      : model.form === 'module'
        ? 'module'
        : model.part !== null
          ? { blank: 'blank panel', shelf: 'shelf', manager: 'cable manager', tray: 'tray' }[model.part]
          : roles[model.role ?? 'XX'].label;

/** Height, mass, power: the figures that decide whether it fits. */
export function sizeText(model: CatalogueModel): string {
  if (model.form === 'cable')
    return model.stockLengthsM.length === 0
      ? ''
      : `${model.stockLengthsM[0] ?? ''} to ${model.stockLengthsM.at(-1) ?? ''} m`;
  if (model.optics !== null)
    return `${speed(model.optics.speedBps)} · ${model.optics.reachM >= 1000 ? `${model.optics.reachM / 1000} km` : `${model.optics.reachM} m`}`;
  const height =
    model.form === 'module' ? '' : model.halfWidth ? `${model.units} U half` : `${model.units} U`;
  return [
    height,
    model.massKg === null ? '' : `${model.massKg} kg`,
    model.maxPowerW === null ? '' : `${grouped(model.maxPowerW)} W`,
    model.capacityW === null ? '' : `passes ${grouped(model.capacityW)} W`,
  ]
    .filter((part) => part !== '')
    .join(' · ');
}
