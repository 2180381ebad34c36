import { readFileSync } from 'node:fs';
import { join } from 'node:path';

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const markets = ['hallowick', 'pippet', 'oakhand'];

function seeded(seed) {
  let state = (seed % 2147483646) + 1;
  return () => {
    state = (state * 48271) % 2147483647;
    return state / 2147483647;
  };
}

/** Netting over HTTP, patient while it is down: the same call again until there is an answer. */
function client(settings) {
  const token = readFileSync(join(settings.dataFolder, 'demo-api-token'), 'utf8').trim();
  return async (method, path, body, patient = true) => {
    for (let tries = 0; ; tries++) {
      try {
        const answer = await fetch(`http://127.0.0.1:${settings.port}/api/v1${path}`, {
          method,
          headers: { authorization: `Bearer ${token}`, ...(body ? { 'content-type': 'application/json' } : {}) },
          body: body ? JSON.stringify(body) : undefined,
          signal: AbortSignal.timeout(20_000),
        });
        if (answer.status < 500 || answer.status === 502) return { status: answer.status, body: await answer.json() };
      } catch {
        // Down for the moment.
      }
      if (!patient || tries > 400) throw new Error(`${method} ${path} was never answered`);
      await pause(150);
    }
  };
}

const control =
  (settings) =>
  async (market, action, body = {}) =>
    (
      await fetch(`http://127.0.0.1:${settings.marketsPort}/control/api/${market}/${action}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      })
    ).json();

const theirs = async (settings, market) =>
  (await fetch(`http://127.0.0.1:${settings.marketsPort}/control/api/${market}/listings`)).json();

/** Waits until nothing waits or runs; what gave up is sent again as a person would, a bounded number of times. */
async function drained(call, ms = 240_000) {
  const end = Date.now() + ms;
  let retried = 0;
  while (Date.now() < end) {
    const { body } = await call('GET', '/progress');
    const busy = body.lanes.reduce((sum, lane) => sum + lane.waiting + lane.running, 0);
    if (busy === 0) {
      const { body: failed } = await call('GET', '/jobs?state=failed&limit=200');
      const { body: causes } = await call('GET', '/causes');
      const open = causes.causes.filter((cause) => cause.errorCode === 'market-unreachable');
      if (open.length === 0 || retried > 20) return { retried, failed: failed.jobs.length };
      for (const cause of open) await call('POST', '/jobs/retry', { account: cause.accountId, message: cause.message });
      retried++;
    }
    await pause(200);
  }
  throw new Error('the outbox did not empty in time');
}

/** Netting's listings against each marketplace's own list. */
async function compare(settings, accounts, items, expectLive) {
  const problems = { lost: [], doubled: [], wrong: [] };
  for (const account of accounts) {
    const list = (await theirs(settings, account.market)).filter(
      (one) => one.seller === account.remoteName && one.state === 'live',
    );
    for (const item of items) {
      const there = list.filter((one) => one.summary.reference === item.sku);
      if (there.length > 1) problems.doubled.push(`${item.sku} on ${account.name}`);
      if (there.length === 0 && expectLive) problems.lost.push(`${item.sku} on ${account.name}`);
      const quantity = account.market === 'pippet' ? Math.min(1, item.quantity) : item.quantity;
      if (there.length === 1 && (there[0].summary.price !== item.price || there[0].summary.quantity !== quantity)) {
        problems.wrong.push(
          `${item.sku} on ${account.name}: ${there[0].summary.price}/${there[0].summary.quantity} instead of ${item.price}/${quantity}`,
        );
      }
    }
    const strangers = list.filter((one) => !items.some((item) => item.sku === one.summary.reference));
    for (const one of strangers) problems.doubled.push(`unknown ${one.id} on ${account.name}`);
  }
  return problems;
}

const line = (id, problems, more) => ({
  id,
  ok: problems.lost.length + problems.doubled.length + problems.wrong.length === 0,
  lost: problems.lost.length,
  doubled: problems.doubled.length,
  wrong: problems.wrong.length,
  text: `${problems.lost.length} lost, ${problems.doubled.length} doubled, ${problems.wrong.length} wrong${more}${[
    ...problems.lost,
    ...problems.doubled,
    ...problems.wrong,
  ]
    .slice(0, 5)
    .map((one) => `\n       ${one}`)
    .join('')}`,
});

async function allItems(call) {
  const { body } = await call('GET', '/items?limit=500&sort=sku&dir=asc');
  return body.items;
}

/** R1 in small: worker, web and database killed while listings are made and changed. R2 in small: the marketplaces misbehave. */
export async function runFaults({ processes, settings, seed }) {
  const random = seeded(seed);
  const call = client(settings);
  const drive = control(settings);
  const accounts = (await call('GET', '/accounts')).body.accounts.filter((one) => one.name !== 'Pippet finds');
  const ids = accounts.map((one) => one.id);
  let items = await allItems(call);
  const results = [];
  const half = Math.ceil(items.length / 2);
  const publish = (some) =>
    call('POST', '/publish', { selection: { kind: 'items', ids: some.map((one) => one.id) }, accounts: ids });

  // R1: publishing while everything is killed, again and again.
  let kills = 0;
  let running = true;
  const killer = (async () => {
    const victims = ['worker', 'web', 'database', 'worker'];
    while (running && kills < 12) {
      await pause(300 + random() * 1_400);
      if (!running) break;
      const name = victims[Math.floor(random() * victims.length)];
      const pid = processes.pid(name);
      if (!pid) continue;
      try {
        process.kill(-pid, 'SIGKILL');
        kills++;
      } catch {
        // It was on its way down.
      }
    }
  })();
  for (let at = 0; at < half; at += 5) {
    await publish(items.slice(at, Math.min(half, at + 5)));
    await pause(random() * 600);
  }
  await call('POST', '/edits', {
    selection: { kind: 'items', ids: items.slice(0, half).map((one) => one.id) },
    steps: [{ op: 'price-percent', basisPoints: -700, rounding: 'none', floor: null }],
    send: true,
  });
  await Promise.race([killer, pause(15_000)]);
  running = false;
  await killer;
  const first = await drained(call);
  items = await allItems(call);
  const published = half * ids.length;
  results.push(
    line(
      'R1 kills',
      await compare(settings, accounts, items.slice(0, half), true),
      ` of ${published} listings made and re-priced, ${kills} × kill -9, ${first.retried} rounds of retries by hand`,
    ),
  );

  // R2: dropped connections before and after the work, 500s, 429s, slow answers.
  const kinds = ['drop-after', 'drop-before', 'error-500', 'busy-429', 'slow', 'drop-after'];
  let faults = 0;
  let misbehaving = true;
  const trouble = (async () => {
    while (misbehaving && faults < 60) {
      await drive(markets[Math.floor(random() * markets.length)], 'fault', {
        kind: kinds[Math.floor(random() * kinds.length)],
        times: 1,
        ms: 500 + random() * 1_000,
        method: 'POST',
      });
      faults++;
      await pause(60 + random() * 200);
    }
  })();
  await publish(items.slice(half));
  await trouble;
  misbehaving = false;
  for (const market of markets) await drive(market, 'calm');
  const second = await drained(call);
  items = await allItems(call);
  results.push(
    line(
      'R2 misbehaviour',
      await compare(settings, accounts, items, true),
      ` of ${items.length * ids.length} listings, ${faults} faults, ${second.retried} rounds of retries by hand`,
    ),
  );

  // R3 in small: sales told twice and out of order.
  for (const market of markets) await drive(market, 'webhooks', { double: true, reorder: true, delayMs: 0 });
  let sold = 0;
  for (const item of items.slice(0, 6)) {
    for (const market of ['hallowick', 'oakhand']) {
      const answer = await drive(market, 'buy', { reference: item.sku, quantity: 1 });
      if (answer.order) sold++;
    }
  }
  const before = items;
  const until = Date.now() + 30_000;
  do {
    await pause(300);
    items = await allItems(call);
  } while (
    Date.now() < until &&
    items.slice(0, 6).some((item) => item.quantity !== (before.find((one) => one.id === item.id)?.quantity ?? 0) - 2)
  );
  await drained(call);
  items = await allItems(call);
  const right = items
    .slice(0, 6)
    .every((item) => item.quantity === (before.find((one) => one.id === item.id)?.quantity ?? 0) - 2);
  const third = line(
    'R3 doubled and reordered sales',
    await compare(settings, accounts, items, true),
    `, ${sold} sales, stock ${right ? 'right' : 'WRONG'}`,
  );
  results.push({ ...third, ok: third.ok && right });
  return results;
}
