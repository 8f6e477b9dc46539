/** What a server tells the process that does its jobs. */
export interface Order {
  run: string;
}

/** What that process tells its server. */
export type Report =
  | { type: 'told'; job: string; done: number; of: number }
  /** The row of the job holds what came of it. */
  | { type: 'ended'; job: string };

/** What servers on one database tell each other of a job. */
export interface JobNote {
  job: string;
  accountId: string;
  state: 'waiting' | 'running' | 'writing' | 'done' | 'failed' | 'cancelled';
  done: number;
  of: number;
}
export const jobChannel = 'visograph_jobs';
