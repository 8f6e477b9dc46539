import { defaultCablingRules, type CablingRules } from '../model/kinds/sites/project.ts';
import type { Network } from '../model/network/network.ts';

/** What the project assumes about slack, trays, losses and labels. */
export const cablingRules = (network: Network): Required<CablingRules> => ({
  ...defaultCablingRules,
  ...[...network.all('project')][0]?.cabling,
});
