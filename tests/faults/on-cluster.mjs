import { rmSync } from 'node:fs';
import { clusterSettings, startCluster } from '../../bin/lib/cluster.mjs';
import { say } from '../../bin/lib/say.mjs';
import { endOnSignal, runScript } from '../../bin/lib/stack.mjs';
import { runLoad } from '../bench/load.mjs';
import { seeded } from '../support/drive.mjs';
import { asOneMachine, withoutNode } from './cluster.mjs';
import { runFaults } from './faults.mjs';
import { runHistories } from './histories/histories.mjs';
import { killer } from './weather.mjs';

const victims = ['worker', 'web', 'database', 'store', 'database', 'tasks', 'worker'];

/** One thing on a cluster of its own, from nothing; in the end everything adds up there, too. */
async function onCluster(prepare, work) {
  const settings = clusterSettings({ dataFolder: '.cluster-fault-data', readsLagMs: 4_000 });
  rmSync(settings.dataFolder, { recursive: true, force: true });
  const stack = await startCluster(settings);
  endOnSignal(stack.processes);
  try {
    await stack.startApplication();
    await runScript(prepare[0], stack.env, prepare.slice(1));
    const fine = await work({ ...stack, settings });
    await runScript('src/worker/audit-once.ts', stack.env);
    return fine;
  } catch (error) {
    console.error(error.message);
    return false;
  } finally {
    await stack.processes.stopAll();
  }
}

/** Publishing and changing, and random histories, while nodes, workers, web processes and the store of photos are killed. */
const killed = ({ seed, items, histories, length, wants, tell }) =>
  onCluster(['tests/faults/prepare.ts', String(items)], async ({ processes, nodes, settings }) => {
    const names = asOneMachine(processes, nodes, seeded(seed));
    const results = [];
    if (wants('R1'))
      results.push(...(await runFaults({ processes: names, settings, seed, say: tell, victims, onlyKills: true })));
    if (wants('R8')) {
      const endKilling = killer(names, seeded(seed + 1), victims, 8_000);
      const limitMs = 3_600_000;
      const one = await runHistories({ processes: names, settings, seed, count: histories, length, limitMs, say });
      const kills = await endKilling();
      const told = {
        ...one,
        ok: one.ok && kills > 0,
        text: `${one.text}; ${kills} × kill -9 besides those of the histories`,
      };
      tell(told);
      results.push(told);
    }
    names.end();
    return results.every((one) => one.ok);
  });

/** Sales while the node that was written to is away. */
const withNodeAway = ({ load, tell }) =>
  onCluster(['tests/bench/prepare-load.ts', String(load)], async (stack) => {
    const results = await runLoad({
      processes: stack.processes,
      settings: stack.settings,
      say: (one) =>
        typeof one === 'string'
          ? say(one)
          : tell({ ...one, text: `${Number(one.value.toFixed(2))} ${one.unit}, goal ${one.goal}` }),
      startWorker: () => {},
      onlySales: true,
      killed: ['worker-1', 'web-1', 'tasks'],
      during: (sales) =>
        withoutNode(stack, (name) => {
          say(`  ${name}, to which all connections went, is away`);
          return sales();
        }),
      goals: { P7: 4, P7b: 4 },
    });
    return results.every((one) => one.ok);
  });

/**
 * What becomes of a cluster whose parts go away.
 * @param only one of R1, R8 and P7; null for all
 */
export async function clusterFaults(parts) {
  const wants = (id) => !parts.only || parts.only === id;
  say(`seed ${parts.seed}`);
  let fine = true;
  if (wants('R1') || wants('R8')) fine = await killed({ ...parts, wants });
  if (wants('P7')) fine = (await withNodeAway(parts)) && fine;
  return fine;
}
