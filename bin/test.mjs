#!/usr/bin/env node
// Runs every test: style, types, order, core, then everything against stacks of its own, two lanes side by side.
// Options: --unit, --integration, --browser [filter]; --changed for a first answer on what has changed.
import { cpSync, mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { checkNode, installModules, installPackages, packagesToTest } from './lib/install.mjs';
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

/** Browser files that run after the integration tests in the first lane, so that both lanes end at about the same time. */
const besideIntegration = ['preview', 'connecting', 'variations', 'syncing'];
const settingsOf = (lane) =>
  readSettings({
    port: 4310 + lane * 10,
    marketsPort: 4410 + lane * 10,
    databasePort: 43316 + lane * 10,
    dataFolder: lane === 0 ? '.test-data' : '.test-data-2',
    redoMegabytes: 64,
    readsLagMs: 2_500,
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

/** A stack with the demo shop in it; the second lane gets a copy of what the first one has recorded. */
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

async function live() {
  const [first, second] = [settingsOf(0), settingsOf(1)];
  const both = wants('--integration') && wants('--browser') && filter.length === 0;
  const { processes, env } = await prepare(first);
  if (!both) {
    const testEnv = { ...env, NODE_ENV: 'test' };
    if (wants('--integration'))
      await tools.jest('Against MariaDB, the worker and the marketplaces', 'integration', testEnv, filter);
    if (wants('--browser')) await tools.browser('Browser', testEnv, filter);
    return;
  }
  await processes.stopAll();
  rmSync(second.dataFolder, { recursive: true, force: true });
  cpSync(first.dataFolder, second.dataFolder, { recursive: true });
  const [one, two] = [await start(first), await start(second)];
  await runScript('tests/support/move.ts', two, [String(first.marketsPort)]);
  const files = tools.browserFiles();
  const isBeside = (name) => besideIntegration.includes(name);
  const lane = async () => {
    await tools.jest('Against MariaDB, the worker and the marketplaces', 'integration', one);
    await tools.browser('Browser, first lane', one, files.filter(isBeside));
  };
  await Promise.all([
    lane(),
    tools.browser(
      'Browser, second lane',
      two,
      files.filter((name) => !isBeside(name)),
    ),
  ]);
}

const stacks = [];
endOnSignal({
  async stopAll() {
    tools.stop();
    await Promise.all(stacks.map((one) => one.stopAll()));
  },
});

checkNode();
installPackages(packagesToTest);
installModules();
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
