#!/usr/bin/env node
// Breaks things while work is under way, then compares every marketplace's own list with Netting's.
// Options: --seed N (repeats the same choices), --items N, --json; --histories N [--commands N] [--minutes N] for random
// histories; --ordinary [--minutes N] for ordinary life, an hour when nothing is said; --files for bad files alone;
// --cluster [--histories N] [--load-items N] for nodes, workers, web processes and the store of photos that go away.
import { rmSync } from 'node:fs';
import { checkNode, installModules, installPackages, packagesOfCluster, packagesToRun } from './lib/install.mjs';
import { say } from './lib/say.mjs';
import { readSettings } from './lib/settings.mjs';
import { endOnSignal, runScript, startApplication, startGround } from './lib/stack.mjs';

const args = process.argv.slice(2);
const option = (name, fallback) => (args.includes(name) ? Number(args[args.indexOf(name) + 1]) : fallback);
const seed = option('--seed', Date.now() % 1_000_000);
const items = option('--items', 75);
const histories = option('--histories', 0);
const isOrdinary = args.includes('--ordinary');

checkNode();
installPackages(args.includes('--cluster') ? packagesOfCluster : packagesToRun);
installModules();
const tell = (one) =>
  say(args.includes('--json') ? JSON.stringify(one) : `${one.ok ? 'ok  ' : 'FAIL'} ${one.id}: ${one.text}`);
if (args.includes('--cluster')) {
  const { clusterFaults } = await import('../tests/faults/on-cluster.mjs');
  const only = args.includes('--only') ? args[args.indexOf('--only') + 1] : null;
  const sizes = {
    items,
    histories: histories || 10,
    length: option('--commands', 100),
    load: option('--load-items', 1_720),
  };
  process.exit((await clusterFaults({ seed, only, ...sizes, tell })) ? 0 : 1);
}
const settings = readSettings({
  port: 4330,
  marketsPort: 4430,
  databasePort: 23336,
  dataFolder: '.fault-data',
  readsLagMs: 4_000,
});
rmSync(settings.dataFolder, { recursive: true, force: true });
const { processes, env } = await startGround(settings);
const end = endOnSignal(processes);
let code = 1;
try {
  await startApplication(processes, settings, env);
  await runScript('tests/faults/prepare.ts', env, [String(histories ? 1 : isOrdinary ? 40 : items)]);
  say(`seed ${seed}`);
  const { runFaults } = await import('../tests/faults/faults.mjs');
  const { runHistories } = await import('../tests/faults/histories/histories.mjs');
  if (args.includes('--files')) {
    const { client, seeded } = await import('../tests/support/drive.mjs');
    const { hostileFiles } = await import('../tests/faults/hostile-files.mjs');
    const one = await hostileFiles({ processes, settings, call: client(settings), random: seeded(seed) });
    tell(one);
    code = one.ok ? 0 : 1;
  } else if (isOrdinary) {
    const { ordinaryLife } = await import('../tests/faults/ordinary.mjs');
    const one = await ordinaryLife({ processes, settings, seed, minutes: option('--minutes', 60), say });
    tell(one);
    code = one.ok ? 0 : 1;
  } else if (histories) {
    const length = option('--commands', 100);
    const limitMs = option('--minutes', 24 * 60) * 60_000;
    const one = await runHistories({ processes, settings, seed, count: histories, length, limitMs, say });
    tell(one);
    code = one.ok ? 0 : 1;
  } else {
    const results = await runFaults({ processes, settings, seed, say: tell });
    code = results.every((one) => one.ok) ? 0 : 1;
  }
  // Whatever was broken meanwhile: in the end everything adds up.
  try {
    await runScript('src/worker/audit-once.ts', env);
  } catch (error) {
    console.error(error.message);
    code = 1;
  }
} catch (error) {
  console.error(error);
}
await end(code);
