import { readFileSync } from 'node:fs';
import { allItems, client, control, drained, pause, seeded } from '../support/drive.mjs';
import { memoryOf } from '../support/memory.mjs';

const names = ['worker', 'tasks', 'web', 'database', 'marketplaces'];
const everyMs = 60_000;
/** A process that takes so much more at the end than after its first quarter is not flat. */
const mostGrowth = 0.25;

/** R10: ordinary life for a while: a sale every few seconds, a change of many a minute, pages that are open. */
export async function ordinaryLife({ processes, settings, seed, minutes, say }) {
  const call = client(settings);
  const drive = control(settings);
  const random = seeded(seed);
  const { accounts } = (await call('GET', '/accounts')).body;
  const places = accounts.filter((one) => ['hallowick', 'oakhand', 'shopfront', 'pippet'].includes(one.market));
  const items = await allItems(call);
  const selection = { kind: 'items', ids: items.map((one) => one.id) };
  for (const item of items) await call('POST', `/items/${item.id}/stock`, { how: 'set', units: 5_000 });
  await call('POST', '/publish', { selection, accounts: places.map((one) => one.id) });
  await drained(call);
  const samples = [];
  let sales = 0;
  let changes = 0;
  const end = Date.now() + minutes * 60_000;
  const pages = new AbortController();
  const open = fetch(`http://127.0.0.1:${settings.port}/api/v1/live`, {
    headers: { authorization: `Bearer ${readFileSync(`${settings.dataFolder}/demo-api-token`, 'utf8').trim()}` },
    signal: pages.signal,
  })
    .then(async (answer) => {
      for await (const _part of answer.body);
    })
    .catch(() => undefined);
  for (let next = Date.now(); Date.now() < end; ) {
    if (Date.now() >= next) {
      next += everyMs;
      const memory = Object.fromEntries(names.map((name) => [name, Math.round(memoryOf(processes.pid(name)) ?? 0)]));
      samples.push(memory);
      if (samples.length % 5 === 1)
        say(`  minute ${samples.length}: ${names.map((name) => `${name} ${memory[name]} MB`).join(', ')}`);
      const basisPoints = random() < 0.5 ? 100 : -100;
      await call('POST', '/edits', {
        selection,
        steps: [{ field: 'price', do: { verb: 'percent', basisPoints, rounding: 'none', floor: null } }],
        send: true,
      });
      changes++;
    }
    const item = items[Math.floor(random() * items.length)];
    const place = places[Math.floor(random() * places.length)];
    const bought = await drive(place.market, 'buy', { reference: item.sku, quantity: 1 });
    if (bought.order) sales++;
    await call('GET', '/items?limit=100');
    await call('GET', '/sales');
    await pause(2_000 + random() * 3_000);
  }
  pages.abort();
  await open;
  await drained(call, 600_000);
  const quarter = samples[Math.floor(samples.length / 4)];
  const last = samples.at(-1);
  const grown = names.filter((name) => last[name] > quarter[name] * (1 + mostGrowth) + 20);
  return {
    id: 'R10 ordinary life',
    ok: sales > 0 && changes > 0 && grown.length === 0,
    text: `${minutes} minutes, ${sales} sales, ${changes} changes of ${items.length} items; memory after a quarter and at the end: ${names.map((name) => `${name} ${quarter[name]} and ${last[name]} MB`).join(', ')}`,
  };
}
