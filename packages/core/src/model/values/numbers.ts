/** A figure as it is written everywhere: thousands apart by a space, a point before decimals (ISO 80000-1). */
export function grouped(value: number | bigint, decimals = 0): string {
  const text = typeof value === 'bigint' ? value.toString() : value.toFixed(decimals);
  const [whole = '', rest] = text.split('.');
  const parts = whole.replace(/\B(?=(\d{3})+(?!\d))/g, ' ');
  return rest === undefined ? parts : `${parts}.${rest}`;
}
