/** A private database in a process of its own, for tests that end one of the two. */
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('../../../../', import.meta.url));

export interface HeldCluster {
  /** Whoever opened it; ended with SIGTERM it stops the database too. */
  holder: ChildProcess;
  url: string;
  /** The process of the database. */
  pid: number;
}

/** Opens the cluster of this name, or takes it over where it runs already. Careless, it forgets what it was told last. */
export async function holdCluster(name: string, { careless = false } = {}): Promise<HeldCluster> {
  const script = `import { openCluster } from ${JSON.stringify(join(root, 'scripts/postgres.mjs'))};
    const cluster = await openCluster(${JSON.stringify(name)}, { careless: ${String(careless)} });
    process.on('SIGTERM', () => void cluster.stop().then(() => process.exit(0)));
    process.on('message', () => process.send(cluster.pid()));
    console.log(JSON.stringify({ url: cluster.url('postgres'), pid: cluster.pid() }));
    setInterval(() => undefined, 1000);`;
  const holder = spawn(process.execPath, ['--input-type=module', '-e', script], {
    stdio: ['ignore', 'pipe', 'ignore', 'ipc'],
  });
  const told = await new Promise<string>((resolve, reject) => {
    holder.stdout?.on('data', (data: Buffer) => resolve(String(data)));
    holder.once('exit', (code) => reject(new Error(`it ended with ${code}`)));
  });
  return { holder, ...(JSON.parse(told) as { url: string; pid: number }) };
}

/** The process of the database at present: another one once it was started again. */
export async function clusterPid({ holder }: HeldCluster): Promise<number> {
  const answer = once(holder, 'message');
  holder.send('pid');
  const [pid] = (await answer) as [number];
  return pid;
}

export async function endCluster(name: string, held: readonly HeldCluster[]): Promise<void> {
  for (const { holder } of held) {
    if (holder.exitCode !== null || holder.signalCode !== null) continue;
    holder.kill('SIGTERM');
    await once(holder, 'exit');
  }
  await rm(join(root, '.visograph', name), { recursive: true, force: true });
}
