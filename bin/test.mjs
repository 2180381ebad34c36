#!/usr/bin/env node
// Runs every test: style, types, core, then everything against a stack of its own. Options: --unit, --integration, --browser [filter].
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { checkNode, installModules, installPackages, packagesToTest } from './lib/install.mjs';
import { say } from './lib/say.mjs';
import { readSettings, root } from './lib/settings.mjs';
import { endOnSignal, runScript, startApplication, startGround } from './lib/stack.mjs';

const args = process.argv.slice(2);
const only = ['--unit', '--integration', '--browser'].filter((name) => args.includes(name));
const wants = (name) => only.length === 0 || only.includes(name);
const filter = args.filter((arg) => !arg.startsWith('--'));
const out = join(root, 'tests', '.out');

let passed = 0;
let failed = 0;
const tool = (name, ...rest) => [join(root, 'node_modules', '.bin', name), ...rest];

let child = null;

/** Not the blocking kind, so that Ctrl-C is heard while a tool runs. */
function run(title, [program, ...rest], env = process.env) {
  say(`\n── ${title}`);
  return new Promise((resolve) => {
    child = spawn(program, rest, { cwd: root, env, stdio: 'inherit' });
    child.once('error', () => resolve(false));
    child.once('exit', (code) => resolve(code === 0));
  });
}

async function check(title, command) {
  if (await run(title, command)) passed++;
  else failed++;
}

async function jest(title, project, env) {
  const file = join(out, `${project}.json`);
  const alone = project === 'integration' ? ['--runInBand', '--testTimeout=180000'] : [];
  const fine = await run(
    title,
    tool('jest', '--selectProjects', project, ...alone, '--json', `--outputFile=${file}`, ...filter),
    env,
  );
  const result = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : { numPassedTests: 0, numFailedTests: 1 };
  passed += result.numPassedTests;
  failed += result.numFailedTests + (fine || result.numFailedTests ? 0 : 1);
}

async function browser(env) {
  const file = join(out, 'browser.json');
  const fine = await run('Browser', tool('playwright', 'test', ...filter), {
    ...env,
    PLAYWRIGHT_JSON_OUTPUT_NAME: file,
  });
  const stats = existsSync(file)
    ? JSON.parse(readFileSync(file, 'utf8')).stats
    : { expected: 0, unexpected: 1, flaky: 0 };
  if (stats.flaky > 0)
    say(`${stats.flaky} of the browser tests passed only at a second try; the list above names them.`);
  passed += stats.expected + stats.flaky;
  failed += stats.unexpected + (fine || stats.unexpected ? 0 : 1);
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => child?.kill('SIGTERM'));

checkNode();
installPackages(packagesToTest);
installModules();
rmSync(out, { recursive: true, force: true });
mkdirSync(out, { recursive: true });

if (wants('--unit')) {
  await check('Style', tool('biome', 'check', '.'));
  await check('Types', tool('tsc', '--noEmit'));
  await jest('Core and structure', 'unit', process.env);
}
if (wants('--integration') || wants('--browser')) {
  const settings = readSettings({ port: 4310, marketsPort: 4410, databasePort: 43316, dataFolder: '.test-data' });
  rmSync(settings.dataFolder, { recursive: true, force: true });
  const { processes, env } = await startGround(settings);
  endOnSignal(processes);
  try {
    await startApplication(processes, settings, env);
    runScript('demo/seed.ts', env);
    const testEnv = { ...env, NODE_ENV: 'test' };
    if (wants('--integration')) await jest('Against MariaDB, the worker and the marketplaces', 'integration', testEnv);
    if (wants('--browser')) await browser(testEnv);
  } catch (error) {
    console.error(error.message);
    failed++;
  } finally {
    await processes.stopAll();
  }
}
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
