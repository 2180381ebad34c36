import { client, control, drained, lanesOf, openJobs, pause, theirs } from '../support/drive.mjs';

const line = (id, value, unit, baseline, ratio, goal, ok) => ({ id, value, unit, baseline, ratio, goal, ok });
const percentile = (numbers, part) =>
  [...numbers].sort((a, b) => a - b)[Math.min(numbers.length - 1, Math.ceil(numbers.length * part) - 1)];

async function until(fits, ms, every = 40) {
  const end = Date.now() + ms;
  while (Date.now() < end) {
    if (await fits()) return true;
    await pause(every);
  }
  return false;
}

async function idsOf(call) {
  const ids = [];
  for (let after = ''; ; ) {
    const { body } = await call('GET', `/items?limit=500&sort=sku&dir=asc${after}`);
    ids.push(...body.items.map(({ id, sku }) => ({ id, sku })));
    if (!body.next) return ids;
    after = `&after=${encodeURIComponent(body.next)}`;
  }
}

const live = (list) => list.filter((one) => one.state === 'live');

/** How much is done so far, by account. */
async function done(call) {
  let count = 0;
  const { body } = await call('GET', '/runs');
  for (const run of body.runs) count += run.done;
  return count;
}

/** What was sent to the marketplaces: no listing twice there, and how many. */
async function doubled(settings, markets, accounts) {
  let twice = 0;
  let all = 0;
  for (const market of markets) {
    const seen = new Map();
    const sellers = accounts.filter((one) => one.market === market).map((one) => one.remoteName);
    for (const one of live(await theirs(settings, market))) {
      if (!sellers.includes(one.seller)) continue;
      const key = `${one.seller}/${one.summary.reference}`;
      seen.set(key, (seen.get(key) ?? 0) + 1);
      all++;
    }
    twice += [...seen.values()].filter((count) => count > 1).length;
  }
  return { twice, all };
}

/** Pieces that are sold while one thing is measured. */
const perSale = 20;

const isUnderWay = async (call, id) => {
  const { tasks } = (await call('GET', '/tasks')).body;
  return tasks.some((one) => one.id === id && (one.state === 'waiting' || one.state === 'running'));
};

/** Changes the price and the title of all items by turns, one change after the other, until it is ended. */
function changing(call, selection) {
  const steps = [
    { field: 'price', do: { verb: 'percent', basisPoints: 100, rounding: 'none', floor: null } },
    { field: 'title', do: { verb: 'before', text: '! ' } },
    { field: 'price', do: { verb: 'percent', basisPoints: -100, rounding: 'none', floor: null } },
  ];
  let going = true;
  let begun = 0;
  const loop = (async () => {
    while (going) {
      const { status, body } = await call('POST', '/edits', {
        selection,
        steps: [steps[begun % steps.length]],
        send: true,
      });
      // A change that is refused changes nothing: then nothing would be measured.
      if (status >= 400) throw new Error(`a change of all was answered with ${status}`);
      begun++;
      while (going && (await isUnderWay(call, body.taskId))) await pause(50);
    }
  })();
  return {
    async end() {
      going = false;
      await loop;
      return begun;
    },
  };
}

/** From the buyer's click until no other marketplace shows the piece, one piece after the other. */
async function timeSales({ settings, call, drive, places, tell, say, probes, id, goal }) {
  const selling = places.filter((one) => !['Lotbarn', 'Lanesend', 'Selasar', 'Glintfeed'].includes(one.name));
  const stays = async (sku, market) => live(await theirs(settings, market, sku)).length > 0;
  const times = [];
  const slowest = new Map();
  let missed = 0;
  for (const [index, { sku }] of probes.entries()) {
    const place = selling[index % selling.length];
    const others = places.filter((one) => one.id !== place.id);
    const waitingNow = openJobs(await lanesOf(call));
    const bought = await drive(place.market, 'buy', { reference: sku, quantity: 1 });
    if (!bought.order) {
      missed++;
      continue;
    }
    const at = Date.now();
    // Only those are asked that still show it, so that the asking does not weigh on what is measured.
    let open = others;
    const ended = await until(
      async () => {
        const shown = await Promise.all(open.map((one) => stays(sku, one.market)));
        const left = open.filter((_, at) => shown[at]);
        if (left.length === 0) slowest.set(open[0].name, (slowest.get(open[0].name) ?? 0) + 1);
        open = left;
        return open.length === 0;
      },
      30_000,
      100,
    );
    if (ended) times.push((Date.now() - at) / 1000);
    else missed++;
    if (index === 0 || index === probes.length - 1) say(`  ${waitingNow} other jobs open at sale ${index + 1}`);
    await pause(150);
  }
  const p95 = percentile(times, 0.95);
  const last = [...slowest].map(([name, count]) => `${name} ${count} ×`).join(', ');
  say(
    `  median ${percentile(times, 0.5)?.toFixed(2)} s, longest ${Math.max(...times).toFixed(2)} s; the last one: ${last}`,
  );
  tell(
    line(
      `${id} sale → ended on the other ${places.length - 1} of ${places.length} accounts, ${times.length} sales, ${missed} missed`,
      p95,
      's (p95)',
      null,
      null,
      goal,
      missed === 0 && times.length > 0 && places.length >= 10 && p95 <= goal,
    ),
  );
}

/**
 * With the whole stack: restarting with thousands of jobs waiting, a sale that is heard of everywhere meanwhile, a
 * thousand changes under a marketplace's rate, and several workers on one database.
 * @param during what else is the case while the sales are timed
 */
export async function runLoad({
  processes,
  settings,
  say,
  startWorker,
  onlySales = false,
  killed = ['worker', 'web', 'database'],
  during = (sales) => sales(),
  goals = { P7: 1.5, P7b: 2 },
}) {
  const call = client(settings);
  const drive = control(settings);
  const { accounts } = (await call('GET', '/accounts')).body;
  const named = (names) => accounts.filter((one) => names.includes(one.name));
  const items = await idsOf(call);
  const probes = items.slice(0, 2 * perSale);
  const rest = items.slice(2 * perSale);
  const all = { kind: 'items', ids: rest.map((one) => one.id) };
  const results = [];
  const tell = (one) => {
    results.push(one);
    say(one);
  };

  // The pieces whose sale is timed: live on ten accounts before anything else waits.
  const ten = accounts.filter((one) => !['Wallfolk', 'Pippet finds'].includes(one.name));
  const plan = (
    await call('POST', '/publish/plan', {
      selection: { kind: 'items', ids: probes.map((one) => one.id) },
      accounts: ten.map((one) => one.id),
    })
  ).body;
  for (const cause of plan.causes)
    say(`  ${accounts.find((one) => one.id === cause.accountId)?.name}: ${cause.count} not ready: ${cause.message}`);
  const places = ten.filter((account) => plan.accounts.find((one) => one.accountId === account.id)?.create > 0);
  await call('POST', '/publish', {
    selection: { kind: 'items', ids: probes.map((one) => one.id) },
    accounts: places.map((one) => one.id),
  });
  await drained(call);
  const stays = async (sku, market) => live(await theirs(settings, market, sku)).length > 0;
  for (const { sku } of probes) for (const place of places) await until(() => stays(sku, place.market), 60_000);

  // Thousands of jobs wait; everything is killed at once and comes back.
  const big = named(['Hallowick', 'Oakhand', 'Shopfront']);
  await call('POST', '/publish', { selection: all, accounts: big.map((one) => one.id) });
  const waiting = openJobs(await lanesOf(call));
  const before = await done(call);
  const killedAt = Date.now();
  for (const name of killed) process.kill(-processes.pid(name), 'SIGKILL');
  await until(async () => (await done(call)) > before, 60_000);
  const resumed = (Date.now() - killedAt) / 1000;
  tell(
    line(
      `Restart with ${waiting} jobs waiting: until the next one is done`,
      resumed,
      's',
      null,
      null,
      10,
      waiting >= 5_000 && resumed <= 10,
    ),
  );

  // Sales meanwhile; then, of other pieces, while everything is changed again and again.
  const parts = { settings, call, drive, places, tell, say };
  await during(() => timeSales({ ...parts, probes: probes.slice(0, perSale), id: 'P7', goal: goals.P7 }));
  const changes = changing(call, { kind: 'items', ids: items.map((one) => one.id) });
  await timeSales({ ...parts, probes: probes.slice(perSale), id: 'P7b', goal: goals.P7b });
  say(`  ${await changes.end()} changes of price or title of all ${items.length} items were begun meanwhile`);
  if (onlySales) return results;
  await drained(call, 900_000);
  const once = await doubled(
    settings,
    big.map((one) => one.market),
    big,
  );
  tell(
    line(
      `Sent twice after the restart, of ${once.all} listings`,
      once.twice,
      'listings',
      null,
      null,
      0,
      once.all > 0 && once.twice === 0,
    ),
  );

  // A thousand changes on one account.
  const [hallowick] = named(['Hallowick']);
  const count = Math.min(1_000, rest.length);
  const some = { kind: 'items', ids: rest.slice(0, count).map((one) => one.id) };
  const { perMinute } = hallowick.pacing;
  const others = big.filter((one) => one.id !== hallowick.id).map((one) => one.id);
  await call('POST', '/accounts/hold', { accounts: others, stopped: true });
  const pricesOn = async (market) =>
    new Map(live(await theirs(settings, market)).map((one) => [one.summary.reference, one.summary.price]));
  /** How many listings show another price than before: a change that nobody sees was not sent. */
  const arrived = (before, after) => [...after].filter(([sku, price]) => before.get(sku) !== price).length;
  const dear = await pricesOn(hallowick.market);
  const begun = Date.now();
  await call('POST', '/edits', {
    selection: some,
    steps: [{ field: 'price', do: { verb: 'percent', basisPoints: -500, rounding: 'none', floor: null } }],
    send: true,
  });
  const lane = async () => (await lanesOf(call)).find((one) => one.accountId === hallowick.id);
  await until(async () => {
    const { waiting: left, running } = await lane();
    return left + running === 0;
  }, 600_000);
  const took = (Date.now() - begun) / 1000;
  const came = arrived(dear, await pricesOn(hallowick.market));
  const least = (count * 60) / perMinute;
  const ratio = took / least;
  tell(
    line(
      `P6 ${count} changes at ${perMinute} a minute`,
      took,
      's',
      least,
      ratio,
      1.05,
      came === count && ratio <= 1.05,
    ),
  );
  await call('POST', '/accounts/hold', { accounts: others, stopped: false });
  await drained(call, 900_000);

  // Two, then four workers on the same database.
  let there = 1;
  for (const workers of [2, 4]) {
    while (there < workers) startWorker(`worker-${++there}`);
    await pause(7_000);
    const earlier = await Promise.all(big.map((one) => pricesOn(one.market)));
    const start = Date.now();
    await call('POST', '/edits', {
      selection: some,
      steps: [{ field: 'price', do: { verb: 'percent', basisPoints: -100, rounding: 'none', floor: null } }],
      send: true,
    });
    await drained(call, 900_000);
    const seconds = (Date.now() - start) / 1000;
    const later = await Promise.all(big.map((one) => pricesOn(one.market)));
    const changed = later.reduce((sum, now, at) => sum + arrived(earlier[at], now), 0);
    let wrong = 0;
    const prices = new Map();
    for (const market of big.map((one) => one.market))
      for (const one of live(await theirs(settings, market))) {
        const known = prices.get(one.summary.reference) ?? one.summary.price;
        if (known !== one.summary.price) wrong++;
        prices.set(one.summary.reference, known);
      }
    const twice = await doubled(
      settings,
      big.map((one) => one.market),
      big,
    );
    tell(
      line(
        `${workers} workers: ${count * big.length} changes shared; doubled or differing`,
        twice.twice + wrong,
        `(${seconds.toFixed(1)} s)`,
        null,
        null,
        0,
        changed === count * big.length && twice.twice + wrong === 0,
      ),
    );
  }
  return results;
}
