import {
  contract,
  type DoneByJob,
  type Endpoint,
  type JobName,
  type LargeName,
  type Lane,
  type Name,
} from '@visograph/api';

const calls: Readonly<Record<Name, Endpoint>> = contract;
const isName = (name: string): name is Name => Object.hasOwn(contract, name);

/** Whether a call of the contract is done as a job always. */
export const isJobName = (name: string): name is JobName => isName(name) && calls[name].job !== undefined;
/** Whether it becomes one where there is much to do. */
export const isLargeName = (name: string): name is LargeName =>
  isName(name) && calls[name].jobIfLarge !== undefined;
/** Whether it may be one. */
export const isDoneByJob = (name: string): name is DoneByJob => isJobName(name) || isLargeName(name);

export const laneOf = (name: DoneByJob): Lane => {
  const { job, jobIfLarge }: Endpoint = contract[name];
  return job ?? jobIfLarge ?? 'long';
};
