#!/usr/bin/env node
// Takes the pictures of docs/screenshots anew, from a demo shop of its own. Options: --only inventory[,outbox].
import { checkNode, packagesToTest, prepareMachine } from './lib/install.mjs';
import { optionsOf } from './lib/options.mjs';
import { inOwnShop } from './lib/own-shop.mjs';
import { say } from './lib/say.mjs';
import { runScript } from './lib/stack.mjs';

const { word } = optionsOf(process.argv.slice(2));

checkNode();
await prepareMachine(packagesToTest);
await inOwnShop({
  settings: { port: 4395, marketsPort: 4495, databasePort: 23397, dataFolder: '.pictures-data', readsLagMs: 2_500 },
  fill: ['demo/seed.ts'],
  async work({ settings, env }) {
    const { takePictures } = await import('../tests/pictures/pictures.mjs');
    const elsewhere = () => runScript('tests/pictures/elsewhere.ts', env);
    return takePictures({ settings, only: word('--only')?.split(',') ?? null, say, elsewhere });
  },
});
