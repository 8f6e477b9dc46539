import { inForce, type Network } from '@visograph/core';
import type { Call } from './route.ts';

/** All of the network, or what is built today alone where the query says `built=1`. */
export async function shownNetwork(call: Call<unknown>): Promise<Network> {
  const { network } = await call.services.store.read(call.projectId);
  return call.query('built') === '1' ? inForce(network, { planned: false }) : network;
}
