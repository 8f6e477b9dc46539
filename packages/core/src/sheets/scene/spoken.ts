import type { GraphLink } from '../graph/sheetGraph.ts';

const joined = (parts: readonly string[]): string => parts.filter((part) => part !== '').join(' ');

/**
 * A link as a screen reader says it: what is written on it, and from where to where. Made from what is drawn alone, so
 * that nothing hidden is said.
 */
export function spokenLink(
  link: Pick<GraphLink, 'a' | 'b' | 'aPort' | 'bPort' | 'text' | 'cables'>,
  nameOf: (nodeId: string) => string,
): string {
  const [from, to] = [joined([nameOf(link.a), link.aPort]), joined([nameOf(link.b), link.bPort])];
  const count = link.cables.length;
  const what = link.text || (count > 1 ? `${count} links` : 'link');
  if (from === '' && to === '') return what;
  return `${what} from ${from || 'one end'} to ${to || 'the other'}`;
}
