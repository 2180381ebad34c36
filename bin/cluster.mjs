#!/usr/bin/env node
// Starts the shop on three database servers, two web processes and three workers, all on loopback, with the demo data.
// Options: --empty (no demo data).
import { existsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { clusterSettings, startCluster } from './lib/cluster.mjs';
import { checkNode, packagesOfCluster, prepareMachine } from './lib/install.mjs';
import { say } from './lib/say.mjs';
import { endOnSignal, runScript } from './lib/stack.mjs';

const isEmpty = process.argv.includes('--empty');
checkNode();
const settings = clusterSettings();
await prepareMachine(packagesOfCluster);
const { processes, env, startApplication } = await startCluster(settings);
const end = endOnSignal(processes);
try {
  await startApplication();
  const filled = join(settings.dataFolder, 'filled');
  if (!existsSync(filled)) {
    await runScript(isEmpty ? 'demo/fill-elsewhere.ts' : 'demo/seed.ts', env);
    writeFileSync(filled, isEmpty ? 'empty' : 'demo');
  }
  say(`\nNetting is ready:       http://127.0.0.1:${settings.port}`);
  say(`The marketplaces are at http://127.0.0.1:${settings.marketsPort}/control`);
  if (!isEmpty) say('Sign in as              owner@grainhouse.example with harbour-light-35');
  say('Ctrl-C ends everything.');
} catch (error) {
  console.error(`\n${error.message}\nThe logs are in ${settings.dataFolder}.`);
  await end(1);
}
