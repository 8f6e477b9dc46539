/**
 * How often a property is tried: as given in every test run, many times as often in `npm run test:deep`, which sets
 * the factor. Read from the environment here alone.
 */
export const runs = (usual: number): number =>
  usual *
  Number(
    (globalThis as { process?: { env: Record<string, string | undefined> } }).process?.env.VISOGRAPH_DEEP ??
      1,
  );
