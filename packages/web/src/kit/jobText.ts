import type { JobProgress } from '../data/jobs.ts';

/** What is said of a job that waits for its turn. */
export const waitsText = ({ ahead }: Pick<JobProgress, 'ahead'>): string =>
  ahead === 1 ? 'Waits for one other piece of work …' : `Waits for ${ahead} other pieces of work …`;
