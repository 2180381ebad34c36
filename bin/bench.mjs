#!/usr/bin/env node
// Measures against the same work done raw on the same server. Options: --json, --items N[,N], --only P1[,P3] (load: P6, P7, P7b and P16; P9, P13 and P14 in the browser, LH for what another program says of five pages, growth for what several machines would carry, P14p --prints N beside it).
import { spawnSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import { checkNode, packagesToRun, packagesToTest, prepareMachine } from './lib/install.mjs';
import { say } from './lib/say.mjs';
import { readSettings, root } from './lib/settings.mjs';
import { runScript, startApplication, startGround, startScript } from './lib/stack.mjs';

const args = process.argv.slice(2);
const only = args.includes('--only') ? args[args.indexOf('--only') + 1].split(',') : null;
const isLoad = (id) => ['P6', 'P7', 'P7b', 'P16', 'load'].includes(id);
const isBrowser = (id) => ['P9', 'P13', 'P14'].includes(id);
const isJudged = (id) => id === 'LH';
const isPaper = (id) => id === 'growth';
const loadItems = args.includes('--load-items') ? args[args.indexOf('--load-items') + 1] : '1720';

checkNode();
await prepareMachine(only && !only.some((id) => isBrowser(id) || isJudged(id)) ? packagesToRun : packagesToTest);
let code = 0;

/** A stack of its own for each part: what one leaves behind does not weigh on the other. */
async function part(work) {
  const settings = readSettings({ port: 4350, marketsPort: 4450, databasePort: 23356, dataFolder: '.bench-data' });
  rmSync(settings.dataFolder, { recursive: true, force: true });
  const { processes, env } = await startGround(settings);
  try {
    await work(processes, env, settings);
  } catch (error) {
    console.error(error.message);
    code = 1;
  }
  await processes.stopAll();
}

/** One figure, or a word in between. */
const tell = (one) => {
  if (typeof one === 'string') return args.includes('--json') || say(one);
  if (args.includes('--json')) return say(JSON.stringify(one));
  const against = one.ratio === null ? '' : `, ${one.ratio.toFixed(2)} × (${one.baseline.toFixed(1)})`;
  say(`${one.ok ? 'ok  ' : 'FAIL'} ${one.id}: ${Number(one.value.toFixed(2))} ${one.unit}${against}, goal ${one.goal}`);
};

if (!only || only.some((id) => !isLoad(id) && !isBrowser(id) && !isJudged(id) && !isPaper(id)))
  await part(async (_processes, env) => runScript('tests/bench/bench.ts', env, args));

if (!only || only.some(isLoad))
  await part(async (processes, env, settings) => {
    await runScript('tests/bench/prepare-load.ts', env, [loadItems]);
    await startApplication(processes, settings, env);
    const { runLoad } = await import('../tests/bench/load.mjs');
    const startWorker = (name) => startScript(processes, name, 'src/worker/main.ts');
    const parts = { processes, settings, say: tell, startWorker };
    const { idle } = await import('../tests/bench/idle.mjs');
    if (!only || only.includes('P16') || only.includes('load')) await idle(parts);
    const others = only ? only.filter((id) => isLoad(id) && id !== 'P16') : ['load'];
    if (others.length === 0) return;
    await runLoad({ ...parts, onlySales: others.every((id) => id.startsWith('P7')) });
  });
if (!only || only.some(isBrowser))
  await part(async (processes, env, settings) => {
    const size = args.includes('--items') ? args[args.indexOf('--items') + 1].split(',').at(-1) : '100000';
    await runScript('tests/bench/prepare-browser.ts', env, [size]);
    await startApplication(processes, settings, env);
    const { inBrowser } = await import('../tests/bench/browser.mjs');
    for (const one of await inBrowser({ settings, size, only })) tell(one);
  });
if (!only || only.includes('LH'))
  await part(async (processes, env, settings) => {
    await startApplication(processes, settings, env);
    await runScript('demo/seed.ts', env);
    const { judged } = await import('../tests/bench/lighthouse.mjs');
    for (const one of await judged({ base: `http://127.0.0.1:${settings.port}`, say: tell })) tell(one);
  });
if (!only || only.includes('growth'))
  await part(async (processes, env, settings) => {
    await runScript('tests/bench/prepare-load.ts', env, ['400']);
    await startApplication(processes, settings, env);
    const { costOfAChange } = await import('../tests/bench/cost-of-a-change.mjs');
    const cost = await costOfAChange({ processes, settings });
    tell(
      `  a change that is sent: ${Object.entries(cost.ms)
        .map(([name, ms]) => `${name} ${ms.toFixed(1)} ms`)
        .join(', ')}`,
    );
    const { status, stdout } = spawnSync(process.execPath, ['--import', 'tsx', 'tests/bench/growth.ts'], {
      cwd: root,
      input: JSON.stringify(cost),
      encoding: 'utf8',
    });
    if (status !== 0) throw new Error('the simulation failed');
    for (const one of stdout.trim().split('\n')) tell(JSON.parse(one));
  });
process.exit(code);
