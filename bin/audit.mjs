#!/usr/bin/env node
// Looks whether everything of a running system adds up. Options: --json. The exit code is 0 only when nothing was found.
import { spawnSync } from 'node:child_process';
import { checkNode, prepareMachine } from './lib/install.mjs';
import { portIsFree } from './lib/processes.mjs';
import { fail } from './lib/say.mjs';
import { environmentOf, readSettings, root } from './lib/settings.mjs';

checkNode();
await prepareMachine({});
const settings = readSettings();
if (await portIsFree(settings.databasePort))
  fail('Netting is not running. Start it with npm start, then ask again in another terminal.');
const { status } = spawnSync(
  process.execPath,
  ['--import', 'tsx', 'src/worker/audit-once.ts', ...process.argv.slice(2)],
  { cwd: root, env: environmentOf(settings), stdio: 'inherit' },
);
process.exit(status ?? 1);
