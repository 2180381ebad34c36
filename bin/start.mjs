#!/usr/bin/env node
// Installs what is missing and starts everything. Options: --empty (no demo data), --items N (a larger demo).
import { existsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { checkNode, packagesToRun, prepareMachine } from './lib/install.mjs';
import { fail, say } from './lib/say.mjs';
import { readSettings } from './lib/settings.mjs';
import { endOnSignal, runScript, startApplication, startGround } from './lib/stack.mjs';

const args = process.argv.slice(2);
const isEmpty = args.includes('--empty');
const itemsAt = args.indexOf('--items');
const items = itemsAt < 0 ? 0 : Number(args[itemsAt + 1]);
if (itemsAt >= 0 && !(Number.isInteger(items) && items >= 1 && items <= 100_000))
  fail('--items needs a number from 1 to 100000.');

checkNode();
const settings = readSettings();
await prepareMachine(packagesToRun);
const { processes, env } = await startGround(settings);
const end = endOnSignal(processes);
try {
  await startApplication(processes, settings, env);
  const filled = join(settings.dataFolder, 'filled');
  if (!existsSync(filled) && !isEmpty)
    await runScript('demo/seed.ts', env, ['--locked', ...(items ? ['--items', String(items)] : [])]);
  else if (items) await runScript('demo/seed.ts', env, ['--items', String(items)]);
  if (!existsSync(filled) && isEmpty) await runScript('demo/fill-elsewhere.ts', env);
  writeFileSync(filled, isEmpty ? 'empty' : 'demo');
  say(`\nNetting is ready:       http://127.0.0.1:${settings.port}`);
  say(`The marketplaces are at http://127.0.0.1:${settings.marketsPort}/control`);
  if (!isEmpty) say('Sign in as              owner@grainhouse.example with harbour-light-35');
  else
    say(
      'Set up your account there, then connect Hallowick, Pippet, Oakhand or Shopfront as grainhouse with shop-password: listings wait to be brought in.',
    );
  say('Ctrl-C ends everything.');
} catch (error) {
  console.error(`\n${error.message}\nThe logs are in ${settings.dataFolder}.`);
  await end(1);
}
