/** A route table by its VRF (null: the global one) and address family, as one key. */
export const tableKey = (vrfId: string | null, family: 4 | 6): string => `${vrfId ?? ''}/${family}`;

export function vrfAndFamily(key: string): [vrfId: string | null, family: 4 | 6] {
  const [vrfId = '', family] = key.split('/');
  return [vrfId === '' ? null : vrfId, family === '6' ? 6 : 4];
}
