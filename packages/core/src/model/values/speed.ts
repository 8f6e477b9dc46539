/** "10G", "2.5G", "100M". */
export const speedText = (bps: number): string =>
  bps >= 1e9 ? `${Math.round(bps / 1e8) / 10}G` : `${Math.round(bps / 1e6)}M`;

const written = /^(\d+(?:[.,]\d+)?)\s*([gmk])(?:bit\/s|bps|b\/s)?$/i;
const units: Readonly<Record<string, number>> = { g: 1e9, m: 1e6, k: 1e3 };

/** A speed as people write it ("10G", "2.5 Gbit/s", "100M"), in bit/s; null where it is none. */
export function readSpeed(text: string): number | null {
  const [, amount, unit] = written.exec(text.trim()) ?? [];
  const factor = units[unit?.toLowerCase() ?? ''];
  const bps = factor === undefined ? 0 : Math.round(Number(amount?.replace(',', '.')) * factor);
  return bps > 0 ? bps : null;
}
