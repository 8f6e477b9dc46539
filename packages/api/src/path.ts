type Names<P extends string> = P extends `${string}:${infer N}/${infer Rest}`
  ? N | Names<`/${Rest}`>
  : P extends `${string}:${infer N}`
    ? N
    : never;
/** The names of the parts of a path that a caller fills in. */
export type ParamName<K extends string> = Names<K extends `${string} ${infer P}` ? P : never>;

type Needed<K extends string> = [ParamName<K>] extends [never]
  ? { params?: undefined }
  : { params: { readonly [N in ParamName<K>]: string } };
export type PathWish<K extends string> = Needed<K> & {
  query?: { readonly [name: string]: string | undefined } | undefined;
};

/** The path of a call below /api/v1 with what it is about filled in: `GET /a/:b` and `{ b: '1' }` give `/a/1`. */
export function pathTo<K extends string>(name: K, wish: PathWish<K>): string {
  const params: { readonly [part: string]: string } = wish.params ?? {};
  const path = name
    .slice(name.indexOf(' ') + 1)
    .replaceAll(/:(\w+)/g, (_, part: string) => encodeURIComponent(params[part] ?? ''));
  const query = new URLSearchParams();
  for (const [key, value] of Object.entries(wish.query ?? {})) if (value !== undefined) query.set(key, value);
  return query.size === 0 ? path : `${path}?${query.toString()}`;
}
