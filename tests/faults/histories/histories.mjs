import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { startScript } from '../../../bin/lib/stack.mjs';
import { client } from '../../support/drive.mjs';
import { anyCommand } from './commands.mjs';
import { Shop } from './shop.mjs';

/** A post there names no quantity: it stands, or it does not. */
const silent = new Set(['glintfeed']);

const freshModel = (accounts) => ({
  accounts,
  items: [],
  orders: [],
  runs: [],
  reserves: new Map(),
  done: [],
});

/** Where the model, the ledger, the sheet and the marketplaces' own lists do not agree. */
async function disagreements(shop, model) {
  const wrong = [];
  const missing = await shop.heard(model.orders);
  for (const { order } of missing) wrong.push(`order ${order} is not recorded as it stands there`);
  await shop.drain(model.accounts);
  const { gone } = (await shop.call('GET', '/gone')).body;
  const asked = new Set(gone.map((one) => `${one.itemId} ${one.accountId}`));
  for (const item of model.items) {
    const { item: now, columns } = (await shop.call('GET', `/items/${item.id}`)).body;
    const stock = (await shop.call('GET', `/items/${item.id}/stock`)).body;
    const ledger = stock.movements.reduce((sum, one) => sum + one.delta, 0);
    const units = item.varied ? now.variations.reduce((sum, one) => sum + one.quantity, 0) : now.quantity;
    if (ledger !== units) wrong.push(`${item.sku}: ${units} in the table, ${ledger} in the ledger`);
    if (!item.unsure)
      for (const [key, expected] of item.stock) {
        const seen = item.varied ? now.variations.find((one) => one.values[0] === key)?.quantity : now.quantity;
        if (seen !== expected) wrong.push(`${item.sku} ${key}: ${seen} in stock, ${expected} by what happened`);
      }
    for (const account of model.accounts) {
      const column = columns.find((one) => one.accountId === account.id);
      const there = await shop.live(account, item.sku);
      const name = `${item.sku} on ${account.name}`;
      const offered = column?.fields.find((one) => one.field === 'quantity')?.value;
      const wanted = item.wanted.get(account.id);
      if (there.length > 1) wrong.push(`${name}: ${there.length} listings`);
      if (there.length && wanted !== 'live') wrong.push(`${name}: live, and not wanted there`);
      if (there.length && !(offered > 0)) wrong.push(`${name}: live with nothing to offer`);
      const shown = there[0]?.summary.quantity;
      if (there.length && offered > 0 && shown !== offered && !silent.has(account.market))
        wrong.push(`${name}: ${shown} offered, ${offered} to offer`);
      // Taken down or sold out there: whether it shall be there again is a person's to say, and the person is asked.
      const mayBeGone =
        (item.free.has(account.id) || item.out.has(account.id) || item.unsure) &&
        // Sold out before it was ever there: a draft again.
        (asked.has(`${item.id} ${account.id}`) || column?.state === 'draft');
      const isReady = column?.ready !== false;
      if (wanted === 'live' && offered > 0 && isReady && there.length === 0 && !mayBeGone)
        wrong.push(`${name}: wanted, ${offered} to offer, and not there (${column?.state})`);
    }
  }
  // Nobody is asked about a history that is over.
  const own = gone.filter((one) => model.items.some((item) => item.id === one.itemId)).map((one) => one.listingId);
  if (own.length) await shop.call('POST', '/gone/settle', { listings: own, how: 'end' });
  return wrong;
}

/** A photo and a roll of film that is ready on every marketplace, from the shop itself. */
async function exampleOf(call, settings) {
  const { items } = (await call('GET', '/items?limit=1')).body;
  const { item } = (await call('GET', `/items/${items[0].id}`)).body;
  const there = await fetch(`http://127.0.0.1:${settings.port}/api/photos/${item.photos[0].hash}-market`, {
    headers: { authorization: `Bearer ${settings.token}` },
  });
  if (!there.ok) throw new Error(`the shop’s own photo was answered with ${there.status}`);
  const photo = Buffer.from(await there.arrayBuffer());
  const film = JSON.parse(readFileSync(join(settings.dataFolder, 'film.json'), 'utf8'));
  return { photo, film };
}

/**
 * Random histories on real parts, each ended by letting all settle and comparing. A history that fails is made shorter
 * as long as it still fails.
 */
export async function runHistories({ count, length, seed, say, limitMs, processes, settings }) {
  const token = readFileSync(join(settings.dataFolder, 'demo-api-token'), 'utf8').trim();
  const here = { ...settings, token, run: Date.now().toString(36) };
  const call = client(here);
  const { accounts } = (await call('GET', '/accounts')).body;
  const example = await exampleOf(call, here);
  let second = null;
  const shop = new Shop({
    processes,
    settings: here,
    accounts,
    ...example,
    startWorker: async () => {
      second ??= startScript(processes, 'worker-2', 'src/worker/main.ts');
    },
    stopWorker: async () => {
      if (!second) return;
      second = null;
      await processes.stop('worker-2');
    },
  });
  await shop.openWide();
  // The next one reads the rules anew.
  await shop.endPolitely('worker');
  const tried = { histories: 0, commands: 0 };
  const least = Math.floor(length * 0.6);
  let hasFailed = false;
  const property = fc.asyncProperty(
    fc.commands([anyCommand], { maxCommands: length, size: 'max' }),
    fc.uniqueArray(fc.nat(shop.accounts.length - 1), { minLength: 3, maxLength: shop.accounts.length }),
    async (commands, places) => {
      // Only what has failed is made shorter.
      fc.pre(hasFailed || [...commands].length >= least);
      const model = freshModel(places.map((at) => shop.account(at)));
      const began = Date.now();
      let wrong = [];
      try {
        await fc.asyncModelRun(() => ({ model, real: shop }), commands);
        await shop.settle(model.accounts, model.items);
        wrong = await disagreements(shop, model);
      } catch (error) {
        hasFailed = true;
        throw error;
      } finally {
        for (const account of model.accounts)
          if (model.reserves.get(account.id)) await shop.call('PUT', `/accounts/${account.id}/pace`, { reserve: 0 });
      }
      tried.histories++;
      tried.commands += model.done.length;
      const names = model.accounts.map((one) => one.name).join(', ');
      say(
        `  history ${tried.histories}: ${model.done.length} commands on ${names}, ${Math.round((Date.now() - began) / 1000)} s${wrong.length ? `, WRONG: ${wrong.join('; ')}` : ''}`,
      );
      if (wrong.length) hasFailed = true;
      if (wrong.length) throw new Error(`${wrong.join('\n')}\n${model.done.join('\n')}`);
    },
  );
  const result = await fc.check(property, {
    numRuns: count,
    seed,
    endOnFailure: false,
    // Long ones from the beginning on.
    unbiased: true,
    maxSkipsPerRun: 1_000,
    verbose: 1,
    interruptAfterTimeLimit: limitMs,
  });
  return {
    id: 'R8 random histories',
    // One that was stopped before anything was played has shown nothing.
    ok: !result.failed && tried.histories > 0,
    text: `${tried.histories} histories of ${count} asked for, ${tried.commands} commands, seed ${seed}${result.failed ? `\n${result.errorInstance?.message}\n${result.counterexamplePath}` : ', 0 violations'}`,
  };
}
