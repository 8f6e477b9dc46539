/** Part of npm run bench: clouds of 200 networks with 5,000 subnets, 48,000 instances and 20,400 rules; a sheet of 300. */
import { rules } from '@visograph/core/check';
import {
  accountDifferences,
  documentedAccount,
  effectiveRoutes,
  letPassTogether,
  networksIn,
  type ObservedAccount,
} from '@visograph/core/cloud';
import { blankSheet, newId, type Network } from '@visograph/core/model';
import { planOf, sceneOf } from '@visograph/core/sheets';
import { measureText } from '@visograph/drawing';
import { cloudOfMany } from '../../core/src/testing/testCloudOfMany.ts';
import { simulateAccount } from '../../field/src/simulatedAccount.ts';
import { readAccount } from '../src/field/accountReader.ts';
import { Report, time } from './figures.ts';

const report = new Report();
const size = { networks: 200, zones: 5, tiers: 5, instances: 12, rules: 24 };
/** The same rows in another network: nothing that was worked out is known of it. */
const afresh = (): Network => cloudOfMany(size);
const cloud = afresh();
const counted = (kind: 'cloudSubnet' | 'device' | 'trafficRule'): string =>
  cloud.count(kind).toLocaleString('en');

const cloudRules = rules.filter(({ key }) => key.startsWith('cloud-'));
const [found, checksMs] = await time(() => cloudRules.flatMap((rule) => rule.findings(cloud)));
report.note(
  `all ${cloudRules.length} checks of clouds: ${counted('cloudSubnet')} subnets, ${counted('device')} devices, ${counted('trafficRule')} rules, ${found.length} findings`,
  checksMs / 1000,
  's',
  2,
);

const other = afresh();
const ports = [...other.all('ruleSetUse')];
const [, rulesMs] = await time(() => {
  for (const { portId } of ports)
    for (const direction of ['in', 'out'] as const)
      letPassTogether(
        other,
        other.find('ruleSetUsesByPort', portId).map(({ setId }) => setId),
        direction,
      );
});
report.note('effective rules of an interface, both directions', rulesMs / ports.length, 'ms', 5);
const subnets = [...other.all('cloudSubnet')];
const [, routesMs] = await time(() => subnets.map((subnet) => effectiveRoutes(other, subnet).routes.length));
report.note('effective routes of a subnet', routesMs / subnets.length, 'ms', null);

const account = [...cloud.all('place')].find(({ kind }) => kind === 'account');
if (account === undefined) throw new Error('the cloud has no account');
const client = 'bench';
const secret = 'ferry-lamp-seven';
const simulated = await simulateAccount({
  account: documentedAccount(cloud, account.id),
  ...{ client, secret, port: 0 },
});
const [observed, readMs] = await time((): Promise<ObservedAccount> =>
  readAccount({ url: simulated.url, client, secret }, { tell: () => undefined }),
);
await simulated.stop();
const [differences, comparedMs] = await time(() => accountDifferences(cloud, account.id, observed));
if (differences.length > 0) throw new Error('what was told of the cloud is not what it is');
report.note(
  `an account of ${observed.instances.length.toLocaleString('en')} instances read and compared`,
  (readMs + comparedMs) / 1000,
  's',
  20,
);
report.note('  read', readMs / 1000, 's', null);

const small = cloudOfMany({ networks: 1, zones: 5, tiers: 5, instances: 15, rules: 4 });
const [place] = networksIn(small, null);
for (const [unfolded, arrows, words] of [
  [true as const, 'none', 'every instance a plate'],
  [true as const, 'rules', 'every instance a plate, with calls as arrows'],
  [[], 'routes', 'folded, with routes as arrows'],
  [[], 'rules', 'folded, with calls as arrows'],
] as const) {
  const sheet = {
    ...blankSheet,
    ...{ id: newId(), name: 'Cloud', projection: 'cloud' as const, scopeId: place?.id ?? null },
    reading: { ...blankSheet.reading, unfolded: unfolded === true ? unfolded : [...unfolded], arrows },
  };
  const [scene, ms] = await time(() =>
    sceneOf(planOf(small, sheet, { today: '2026-01-01' }), { measure: measureText }),
  );
  report.note(
    `sheet of a network of 300 instances, ${words}: ${scene.plates.length} plates, ${scene.links.length} links`,
    ms,
    'ms',
    2000,
  );
}
report.finish();
