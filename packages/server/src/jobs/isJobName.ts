import { contract, type Endpoint, type JobName, type Name } from '@visograph/api';

const calls: Readonly<Record<Name, Endpoint>> = contract;
const isName = (name: string): name is Name => Object.hasOwn(contract, name);

/** Whether a call of the contract is done as a job. */
export const isJobName = (name: string): name is JobName => isName(name) && calls[name].job !== undefined;
