#!/usr/bin/env node
// Runs every test: style, types, order, core, then everything against stacks of its own, three lanes side by side.
// Options: --unit, --integration, --browser [filter]; --changed for a first answer on what has changed.
import { cpSync, mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { checkNode, packagesToTest, prepareMachine } from './lib/install.mjs';
import { readSettings, root } from './lib/settings.mjs';
import { endOnSignal, runScript, startApplication, startGround } from './lib/stack.mjs';
import { Tools } from './lib/tools.mjs';

const args = process.argv.slice(2);
const only = ['--unit', '--integration', '--browser'].filter((name) => args.includes(name));
const wants = (name) => only.length === 0 || only.includes(name);
const filter = args.filter((arg) => !arg.startsWith('--'));
const out = join(root, 'tests', '.out');
const began = Date.now();
const tools = new Tools(out, began);

/**
 * What each lane does, one after the other, so that all end at about the same time: folders of the integration tests, then
 * files of the browser tests. What is named nowhere runs in the first lane, or the last.
 */
const lanes = [
  { without: ['outbox', 'sync', 'stock'], browser: ['preview', 'connecting', 'variations'] },
  { folders: ['outbox', 'sync', 'stock'], browser: ['syncing', 'saving', 'mouse', 'routines'] },
  { browser: null },
];
const settingsOf = (lane) =>
  readSettings({
    port: 4310 + lane * 10,
    marketsPort: 4410 + lane * 10,
    databasePort: 23316 + lane * 10,
    dataFolder: lane === 0 ? '.test-data' : `.test-data-${lane + 1}`,
    redoMegabytes: 64,
    readsLagMs: 2_500,
    environment: { NETTING_METRICS_KEY: 'looked-at-by-tests' },
  });

async function still() {
  await tools.check(
    'Style',
    'biome',
    'check',
    ...(args.includes('--changed') ? ['--changed', '--no-errors-on-unmatched'] : []),
    '.',
  );
  await tools.check('Types', 'typescript-native/bin/tsc', '--noEmit');
  await tools.check('Order of imports', 'depcruise', '--config', '.dependency-cruiser.mjs', 'src', 'marketplaces');
  if (args.includes('--changed')) return tools.jest('Core, what has changed', 'unit', process.env, ['--onlyChanged']);
  await tools.check('Dead code', 'knip');
  await tools.check('Dead exports', 'knip', '--production', '--exports', '--tags=-internal');
  await tools.jest('Core and structure', 'unit', process.env, filter);
}

/** A stack with the demo shop in it; the other lanes get a copy of what the first one has recorded. */
async function prepare(settings) {
  rmSync(settings.dataFolder, { recursive: true, force: true });
  const stack = await startGround(settings);
  stacks.push(stack.processes);
  await startApplication(stack.processes, settings, stack.env);
  await runScript('demo/seed.ts', stack.env);
  return stack;
}

async function start(settings) {
  const stack = await startGround(settings);
  stacks.push(stack.processes);
  await startApplication(stack.processes, settings, stack.env);
  return { ...stack.env, NODE_ENV: 'test' };
}

/** Which of the integration tests a lane runs, as Jest is told. */
function foldersOf({ folders, without }) {
  const among = (names) => `tests/integration/(${names.join('|')})/`;
  return folders
    ? ['--testPathPatterns', among(folders)]
    : ['--testPathIgnorePatterns', among(without), '/node_modules/'];
}

async function live() {
  const [first, ...others] = lanes.map((_, lane) => settingsOf(lane));
  const whole = wants('--integration') && wants('--browser') && filter.length === 0;
  const { processes, env } = await prepare(first);
  if (!whole) {
    const testEnv = { ...env, NODE_ENV: 'test' };
    if (wants('--integration'))
      await tools.jest('Against MariaDB, the worker and the marketplaces', 'integration', testEnv, filter);
    if (wants('--browser')) await tools.browser('Browser', testEnv, filter);
    return;
  }
  await processes.stopAll();
  for (const { dataFolder } of others) {
    rmSync(dataFolder, { recursive: true, force: true });
    cpSync(first.dataFolder, dataFolder, { recursive: true });
  }
  const envs = [];
  for (const settings of [first, ...others]) envs.push(await start(settings));
  await Promise.all(envs.slice(1).map((one) => runScript('tests/support/move.ts', one, [String(first.marketsPort)])));
  const named = new Set(lanes.flatMap((lane) => lane.browser ?? []));
  await Promise.all(
    lanes.map(async (lane, at) => {
      const which = `lane ${at + 1}`;
      if (lane.folders || lane.without)
        await tools.jest(
          `Against MariaDB, the worker and the marketplaces, ${which}`,
          'integration',
          envs[at],
          foldersOf(lane),
        );
      const files = tools
        .browserFiles()
        .filter((name) => (lane.browser ? lane.browser.includes(name) : !named.has(name)));
      await tools.browser(`Browser, ${which}`, envs[at], files);
    }),
  );
}

const stacks = [];
endOnSignal({
  async stopAll() {
    tools.stop();
    await Promise.all(stacks.map((one) => one.stopAll()));
  },
});

checkNode();
await prepareMachine(packagesToTest);
rmSync(out, { recursive: true, force: true });
mkdirSync(out, { recursive: true });
try {
  const isChanged = args.includes('--changed');
  // What needs no stack is tested while one is built and filled.
  await Promise.all([
    wants('--unit') || isChanged ? still() : null,
    !isChanged && (wants('--integration') || wants('--browser')) ? live() : null,
  ]);
} catch (error) {
  console.error(error.message);
  tools.failed++;
}
await Promise.all(stacks.map((one) => one.stopAll()));
console.log(`\n${tools.passed} passed, ${tools.failed} failed`);
process.exit(tools.failed === 0 ? 0 : 1);
