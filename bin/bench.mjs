#!/usr/bin/env node
// Measures against the same work done raw on the same server. Options: --json, --items N[,N], --only P1[,P3].
import { rmSync } from 'node:fs';
import { checkNode, installModules, installPackages, packagesToRun } from './lib/install.mjs';
import { readSettings } from './lib/settings.mjs';
import { endOnSignal, runScript, startGround } from './lib/stack.mjs';

checkNode();
installPackages(packagesToRun);
installModules();
const settings = readSettings({ port: 4350, marketsPort: 4450, databasePort: 43356, dataFolder: '.bench-data' });
rmSync(settings.dataFolder, { recursive: true, force: true });
const { processes, env } = await startGround(settings);
const end = endOnSignal(processes);
let code = 0;
try {
  runScript('tests/bench/bench.ts', env, process.argv.slice(2));
} catch (error) {
  console.error(error.message);
  code = 1;
}
await end(code);
