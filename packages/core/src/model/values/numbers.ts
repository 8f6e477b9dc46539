/** A figure as it is written everywhere: thousands apart by a space, a point before decimals (ISO 80000-1). */
export function grouped(value: number | bigint, decimals = 0): string {
  const text = typeof value === 'bigint' ? value.toString() : value.toFixed(decimals);
  const [whole = '', rest] = text.split('.');
  const parts = whole.replace(/\B(?=(\d{3})+(?!\d))/g, ' ');
  return rest === undefined ? parts : `${parts}.${rest}`;
}

/** "12.5 m", "1 250 m": a length as it is written everywhere, to the centimetre, without decimals that say nothing. */
export function metresText(metres: number): string {
  const rounded = Math.round(metres * 100) / 100;
  return `${grouped(rounded, String(rounded).split('.')[1]?.length ?? 0)} m`;
}
