import { allItems, client, control, drained, moveClock, pause, seeded, theirs } from '../support/drive.mjs';
import { compare, verdict } from './compare.mjs';
import { hostileFiles } from './hostile-files.mjs';
import { twoPeople } from './two-people.mjs';
import { killer, trouble } from './weather.mjs';

const onOneMachine = ['worker', 'web', 'database', 'tasks', 'worker'];

/** Some marketplaces take few new listings a day; what is beyond would wait until tomorrow. */
const mostOn = { lanesend: 18, glintfeed: 22, wallfolk: 7 };

/**
 * R1 to R6: everything is killed, marketplaces misbehave, events come twice and late, the last piece is sold everywhere, bad files come.
 * @param victims the names of what is killed
 * @param onlyKills R1 alone
 */
export async function runFaults({ processes, settings, seed, say, victims = onOneMachine, onlyKills = false }) {
  const random = seeded(seed);
  const call = client(settings);
  const drive = control(settings);
  const accounts = (await call('GET', '/accounts')).body.accounts;
  const ids = accounts.map((one) => one.id);
  const markets = [...new Set(accounts.map((one) => one.market))];
  const results = [];
  const items = await allItems(call);
  const third = Math.ceil(items.length / 3);
  const parts = [items.slice(0, third), items.slice(third, 2 * third), items.slice(2 * third)];
  const selected = (some) => ({ kind: 'items', ids: some.map((one) => one.id) });
  const knots = [];
  const taken = new Map();
  const publish = async (some) => {
    const { body: plan } = await call('POST', '/publish/plan', { selection: selected(some), accounts: ids });
    const marketOf = (id) => accounts.find((one) => one.id === id).market;
    const without = [];
    const go = plan.knots.filter((knot) => {
      if (knot.action !== 'create') return false;
      const market = marketOf(knot.accountId);
      const room = (mostOn[market] ?? Number.POSITIVE_INFINITY) > (taken.get(market) ?? 0);
      if (room) taken.set(market, (taken.get(market) ?? 0) + 1);
      else without.push({ itemId: knot.itemId, accountId: knot.accountId });
      return room;
    });
    // A request that was answered is on disk; one that was not may be, and is asked again: nothing to send then.
    const answer = await call('POST', '/publish', { selection: selected(some), accounts: ids, without });
    if (answer.status < 300 || answer.status === 409) knots.push(...go);
    return go.length;
  };
  const reprice = (some, basisPoints) =>
    call('POST', '/edits', {
      selection: selected(some),
      steps: [{ field: 'price', do: { verb: 'percent', basisPoints, rounding: 'none', floor: null } }],
      send: true,
    });

  // R1: publishing and changing while everything is killed, again and again.
  const endKilling = killer(processes, random, victims);
  let made = 0;
  for (let at = 0; at < parts[0].length; at += 4) {
    made += await publish(parts[0].slice(at, at + 4));
    await pause(random() * 500);
  }
  await reprice(parts[0], -700);
  for (let round = 0; round < 14; round++) {
    await pause(random() * 2_500);
    await reprice(parts[0].slice(0, 1 + Math.floor(random() * parts[0].length)), -100 - Math.floor(random() * 300));
  }
  const kills = await endKilling();
  const first = await drained(call);
  results.push(
    verdict(
      'R1 kills',
      await compare(settings, call, accounts, knots),
      `${made} listings made and re-priced on ${markets.length} marketplaces, ${kills} × kill -9, ${first.retried} rounds of retries by hand`,
      // A run in which nothing was made or nobody was killed has shown nothing.
      made > 0 && kills > 0,
    ),
  );
  say(results.at(-1));
  if (onlyKills) return results;

  // R2: dropped connections before and after the work, 500s, 429s, slow answers, an account that is locked, the clock moved.
  const endTrouble = trouble(drive, markets, random);
  let more = 0;
  for (let at = 0; at < parts[1].length; at += 4) more += await publish(parts[1].slice(at, at + 4));
  await drive('hallowick', 'lock', { seller: 'grainhouse', minutes: 0.1 });
  await reprice([...parts[0], ...parts[1]], -500);
  await moveClock(settings, 3_600_000);
  await pause(4_000);
  const faults = await endTrouble();
  const second = await drained(call);
  results.push(
    verdict(
      'R2 misbehaviour',
      await compare(settings, call, accounts, knots),
      `${more} more listings, all re-priced, ${faults} faults, a locked account, the clock an hour on, ${second.retried} rounds of retries by hand`,
      more > 0 && faults > 0,
    ),
  );
  say(results.at(-1));

  // R3: sales told twice, late and out of order; events that nobody signed.
  for (const market of markets) await drive(market, 'webhooks', { double: true, reorder: true, delayMs: 200 });
  await publish(parts[2]);
  await drained(call);
  const before = await allItems(call);
  const orders = [];
  for (const item of before.filter((one) => one.quantity >= 4).slice(0, 12)) {
    const places = knots
      .filter((knot) => knot.itemId === item.id)
      .map((knot) => accounts.find((one) => one.id === knot.accountId));
    for (const place of places.slice(0, 2)) {
      const answer = await drive(place.market, 'buy', { reference: item.sku, quantity: 1 });
      if (answer.order) orders.push({ itemId: item.id, order: answer.order });
    }
  }
  const forged = await fetch(`http://127.0.0.1:${settings.port}/api/webhooks/${accounts[0].id}`, {
    method: 'POST',
    headers: {
      'content-type': 'application/json',
      'webhook-id': 'msg_x',
      'webhook-timestamp': '1',
      'webhook-signature': 'v1,x',
    },
    body: JSON.stringify({ type: 'sale', data: { order: orders[0]?.order, listing: 'x' } }),
  });
  const wanted = (item) => item.quantity - orders.filter((one) => one.itemId === item.id).length;
  const settled = await waitFor(async () => {
    const now = await allItems(call);
    return before.every((item) => now.find((one) => one.id === item.id)?.quantity === wanted(item));
  }, 60_000);
  await drained(call);
  results.push(
    verdict(
      'R3 doubled, late and reordered sales',
      await compare(settings, call, accounts, knots),
      `${orders.length} sales, stock ${settled ? 'right' : 'WRONG'}, a forged event was answered ${forged.status}`,
      settled && orders.length > 0 && forged.status >= 400,
    ),
  );
  say(results.at(-1));

  // R4: the last piece of each is sold on every marketplace that shows it, at the same moment.
  for (const market of markets) await drive(market, 'calm');
  const last = (await allItems(call)).slice(0, 20);
  for (const item of last) await call('POST', `/items/${item.id}/stock`, { how: 'set', units: 1 });
  await drained(call);
  const lastOrders = (
    await Promise.all(
      last.flatMap((item) =>
        knots
          .filter((knot) => knot.itemId === item.id)
          .map((knot) => accounts.find((one) => one.id === knot.accountId))
          .filter((place) => !['glintfeed', 'wallfolk'].includes(place.market))
          .map(async (place) => (await drive(place.market, 'buy', { reference: item.sku, quantity: 1 })).order),
      ),
    )
  ).filter(Boolean);
  const sales = () => call('GET', '/sales?limit=200').then(({ body }) => body.sales);
  const heard = await waitFor(async () => {
    const seen = new Set((await sales()).map((one) => one.orderId));
    return lastOrders.every((order) => seen.has(order));
  }, 90_000);
  await drained(call);
  const own = (await sales()).filter((one) => lastOrders.includes(one.orderId));
  const surplus = own.filter((one) => one.oversold).length;
  const sold = new Set(own.map((one) => one.sku)).size;
  const lists = await Promise.all(markets.map((market) => theirs(settings, market)));
  const left = lists
    .flat()
    .filter((one) => one.state === 'live' && last.some((item) => item.sku === one.summary.reference)).length;
  results.push({
    id: 'R4 the last piece sold everywhere at once',
    ok:
      heard &&
      lastOrders.length > sold &&
      own.length === lastOrders.length &&
      surplus === own.length - sold &&
      left === 0,
    text: `${lastOrders.length} orders of ${sold} last pieces, ${own.length} recorded, ${surplus} shown as surplus, ${left} listings left live`,
  });
  say(results.at(-1));

  results.push(await twoPeople(call, (await allItems(call)).slice(-20)));
  say(results.at(-1));
  results.push(await hostileFiles({ processes, settings, call, random }));
  say(results.at(-1));
  return results;
}

async function waitFor(fits, ms) {
  const end = Date.now() + ms;
  while (Date.now() < end) {
    if (await fits()) return true;
    await pause(300);
  }
  return false;
}
