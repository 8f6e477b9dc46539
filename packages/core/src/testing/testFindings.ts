import type { ToldFinding } from '../check/told.ts';
import { checkNetwork } from '../check/told.ts';
import type { Network } from '../model/network/network.ts';

/** The day on which tests look. */
export const testDay = '2026-11-30';

/** What is found in a network on that day, in words. */
export const foundIn = (network: Network): ToldFinding[] => checkNetwork(network, testDay);
