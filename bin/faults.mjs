#!/usr/bin/env node
// Breaks things while work is under way, then compares every marketplace's own list with Netting's.
// Options: --seed N (repeats the same choices), --items N, --json; --histories N [--commands N] [--minutes N] for random
// histories; --ordinary [--minutes N] for ordinary life, an hour when nothing is said; --files for bad files alone;
// --cluster [--histories N] [--load-items N] for nodes, workers, web processes and the store of photos that go away.
import { checkNode, packagesOfCluster, packagesToRun, prepareMachine } from './lib/install.mjs';
import { optionsOf } from './lib/options.mjs';
import { inOwnShop } from './lib/own-shop.mjs';
import { say } from './lib/say.mjs';

const { has, word, number, seed } = optionsOf(process.argv.slice(2));
const items = number('--items', 75);
const histories = number('--histories', 0);
const isOrdinary = has('--ordinary');

checkNode();
await prepareMachine(has('--cluster') ? packagesOfCluster : packagesToRun);
const tell = (one) => {
  say(has('--json') ? JSON.stringify(one) : `${one.ok ? 'ok  ' : 'FAIL'} ${one.id}: ${one.text}`);
  return one.ok;
};
if (has('--cluster')) {
  const { clusterFaults } = await import('../tests/faults/on-cluster.mjs');
  const sizes = {
    items,
    histories: histories || 10,
    length: number('--commands', 100),
    load: number('--load-items', 1_720),
  };
  process.exit((await clusterFaults({ seed, only: word('--only'), ...sizes, tell })) ? 0 : 1);
}

/** What the shop is put through: one of these. */
async function work({ settings, processes }) {
  const parts = { settings, processes, seed, say };
  say(`seed ${seed}`);
  if (has('--files')) {
    const { client, seeded } = await import('../tests/support/drive.mjs');
    const { hostileFiles } = await import('../tests/faults/hostile-files.mjs');
    return tell(await hostileFiles({ ...parts, call: client(settings), random: seeded(seed) }));
  }
  if (isOrdinary) {
    const { ordinaryLife } = await import('../tests/faults/ordinary.mjs');
    return tell(await ordinaryLife({ ...parts, minutes: number('--minutes', 60) }));
  }
  if (histories) {
    const { runHistories } = await import('../tests/faults/histories/histories.mjs');
    const length = number('--commands', 100);
    const limitMs = number('--minutes', 24 * 60) * 60_000;
    return tell(await runHistories({ ...parts, count: histories, length, limitMs }));
  }
  const { runFaults } = await import('../tests/faults/faults.mjs');
  const results = await runFaults({ ...parts, say: tell });
  return results.every((one) => one.ok);
}

await inOwnShop({
  settings: { port: 4330, marketsPort: 4430, databasePort: 23336, dataFolder: '.fault-data', readsLagMs: 4_000 },
  fill: ['tests/faults/prepare.ts', String(histories ? 1 : isOrdinary ? 40 : items)],
  work,
});
