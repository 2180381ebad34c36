#!/usr/bin/env node
// Attacks a shop of its own on this machine, and nothing else: every endpoint, hostile files, addresses inside, forged
// events, guesses, slow connections. Options: --seed N (repeats the same choices), --only A1[,A3], --json.
import { checkNode, packagesToRun, prepareMachine } from './lib/install.mjs';
import { optionsOf } from './lib/options.mjs';
import { inOwnShop } from './lib/own-shop.mjs';
import { say } from './lib/say.mjs';

const { has, word, seed } = optionsOf(process.argv.slice(2));
const only = word('--only')?.split(',');
/** The application may grow by so much meanwhile, in megabytes. */
const mostGrowth = 700;
/** So long the rest of the shop may take to answer meanwhile, in milliseconds. */
const longestMs = 1_000;

checkNode();
await prepareMachine(packagesToRun);
await inOwnShop({
  settings: { port: 4380, marketsPort: 4480, databasePort: 23386, dataFolder: '.attack-data', readsLagMs: 2_500 },
  fill: ['tests/faults/prepare.ts', '6'],
  async work({ settings, processes }) {
    const { client, seeded, pause } = await import('../tests/support/drive.mjs');
    const { tokensOf } = await import('../tests/attack/people.mjs');
    const base = `http://127.0.0.1:${settings.port}`;
    const call = client(settings);
    const people = await tokensOf(settings, call);
    /** The rest of the shop, asked all the time: how long it takes to answer. */
    const probe = (() => {
      let [marked, going] = [0, true];
      const loop = (async () => {
        while (going) {
          const began = performance.now();
          await fetch(`${base}/api/v1/progress`, {
            headers: { authorization: `Bearer ${people.tokens.owner}`, connection: 'close' },
          })
            .then((answer) => answer.arrayBuffer())
            // Not answered at all is not quick.
            .catch(() => {
              marked = Number.POSITIVE_INFINITY;
            });
          const took = performance.now() - began;
          marked = Math.max(marked, took);
          await pause(250);
        }
      })();
      return {
        mark: () => {
          marked = 0;
        },
        /** Once what is asked at the moment is answered. */
        fresh: async () => {
          await pause(600);
          marked = 0;
        },
        since: () => marked,
        end: () => {
          going = false;
          return loop;
        },
      };
    })();
    const parts = { settings, processes, base, call, random: seeded(seed), probe, ...people };
    const { hostileFiles } = await import('../tests/faults/hostile-files.mjs');
    const { memoryOf } = await import('../tests/support/memory.mjs');
    const before = memoryOf(processes.pid('web'));
    const { attackEndpoints } = await import('../tests/attack/endpoints.mjs');
    const { insideAddresses } = await import('../tests/attack/inside.mjs');
    const { forgedWebhooks } = await import('../tests/attack/webhooks.mjs');
    const { pagesAndForgery } = await import('../tests/attack/pages.mjs');
    const { slowConnections } = await import('../tests/attack/connections.mjs');
    const { guessing } = await import('../tests/attack/guessing.mjs');
    const attacks = {
      A1: attackEndpoints,
      A2: hostileFiles,
      A3: insideAddresses,
      A4: forgedWebhooks,
      // Before the guesses, which make the same person wait.
      A7: pagesAndForgery,
      A6: slowConnections,
      A5: guessing,
    };
    say(`seed ${seed}`);
    const results = [];
    for (const [id, attack] of Object.entries(attacks)) {
      if (only && !only.includes(id)) continue;
      probe.mark();
      const one = { id, ...(await attack(parts)) };
      const waited = probe.since();
      if (waited > longestMs) one.ok = false;
      results.push(one);
      say(has('--json') ? JSON.stringify(one) : `${one.ok ? 'ok  ' : 'FAIL'} ${one.id}: ${one.text}`);
      for (const hole of one.holes ?? []) say(`       ${hole}`);
      say(
        `       the rest answered within ${waited === Number.POSITIVE_INFINITY ? 'no' : Math.round(waited)} ms meanwhile`,
      );
    }
    await probe.end();
    const growth = memoryOf(processes.pid('web')) - before;
    say(`The web process grew by ${Math.round(growth)} MB (${Math.round(before)} before).`);
    return results.length > 0 && results.every((one) => one.ok) && growth <= mostGrowth;
  },
});
