#!/usr/bin/env node
// A seller's week in an hour: a script at the screen, while buyers buy, marketplaces misbehave and programs are killed.
// Options: --seed N (repeats the same choices), --minutes N (an hour when nothing is said), --from N (begins with the
// Nth day), --json.
import { checkNode, packagesToTest, prepareMachine } from './lib/install.mjs';
import { optionsOf } from './lib/options.mjs';
import { inOwnShop } from './lib/own-shop.mjs';
import { say } from './lib/say.mjs';

const { has, number, seed } = optionsOf(process.argv.slice(2));

checkNode();
await prepareMachine(packagesToTest);
await inOwnShop({
  settings: { port: 4390, marketsPort: 4490, databasePort: 23396, dataFolder: '.week-data', readsLagMs: 2_500 },
  fill: ['demo/seed.ts'],
  async work(shop) {
    say(`seed ${seed}`);
    const { week } = await import('../tests/week/week.mjs');
    const one = await week({ ...shop, seed, minutes: number('--minutes', 60), from: number('--from', 1), say });
    say(has('--json') ? JSON.stringify(one) : `${one.ok ? 'ok  ' : 'FAIL'} ${one.id}: ${one.text}`);
    return one.ok;
  },
});
