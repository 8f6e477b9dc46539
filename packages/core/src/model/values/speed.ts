/** "10G", "2.5G", "100M". */
export const speedText = (bps: number): string =>
  bps >= 1e9 ? `${Math.round(bps / 1e8) / 10}G` : `${Math.round(bps / 1e6)}M`;
