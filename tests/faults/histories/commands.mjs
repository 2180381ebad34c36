import fc from 'fast-check';
import { pause } from '../../support/drive.mjs';

const colours = ['Black', 'Tan'];

/** One thing that somebody does, or that happens; `act` changes the model by what really came of it. */
class Act {
  constructor(name, args, act, fits = () => true) {
    Object.assign(this, { name, args, act, fits });
  }
  check(model) {
    return this.fits(model, ...this.args);
  }
  async run(model, shop) {
    model.done.push(this.toString());
    await this.act(model, shop, ...this.args);
    noteOut(model);
  }
  toString() {
    return `${this.name}(${this.args.map((one) => JSON.stringify(one)).join(', ')})`;
  }
}

/** Where nothing was left to offer at some moment: there a listing ends, and is made again only when a person asks. */
function noteOut({ items, accounts, reserves }) {
  for (const item of items)
    for (const { id } of accounts) {
      const only = item.narrowed?.get(id);
      const units = only
        ? item.stock.get(only)
        : [...item.stock.values()].reduce((sum, one) => sum + Math.max(0, one), 0);
      if (units - (reserves.get(id) ?? 0) < 1) item.out.add(id);
    }
}

const some = (model) => model.items.length > 0;
const pick = (list, at) => list[at % list.length];
const keyOf = (item, colour) => (item.varied ? pick(colours, colour) : '');
const accountOf = (model, at) => pick(model.accounts, at);

async function publish(shop, item, accounts) {
  const selection = { kind: 'items', ids: [item.id] };
  const ids = accounts.map((one) => one.id);
  const { body: plan } = await shop.call('POST', '/publish/plan', { selection, accounts: ids });
  const { status } = await shop.call('POST', '/publish', { selection, accounts: ids });
  // A request whose answer was lost is asked again, and finds nothing to send then.
  if (status >= 300 && status !== 409) return;
  // Published again before its end was carried out it stays: the last wish holds.
  for (const knot of plan.knots ?? [])
    if (knot.action === 'create' || knot.action === 'update') item.wanted.set(knot.accountId, 'live');
}

const acts = {
  async record(model, shop, varied, quantity) {
    const made = await shop.record(varied, quantity);
    const stock = new Map(varied ? colours.map((one) => [one, quantity]) : [['', quantity]]);
    model.items.push({ ...made, varied, stock, wanted: new Map(), free: new Set(), out: new Set() });
  },
  async publish(model, shop, at, accounts) {
    await publish(
      shop,
      pick(model.items, at),
      accounts.map((one) => accountOf(model, one)),
    );
  },
  async end(model, shop, at, place) {
    const item = pick(model.items, at);
    const account = accountOf(model, place);
    const { status } = await shop.call('POST', '/listings/end', {
      selection: { kind: 'items', ids: [item.id] },
      accounts: [account.id],
    });
    if (status < 300 && item.wanted.has(account.id)) item.wanted.set(account.id, 'ended');
  },
  async changePrice(model, shop, at, amount) {
    await shop.call('POST', '/edits', {
      selection: { kind: 'items', ids: [pick(model.items, at).id] },
      steps: [{ field: 'price', do: { verb: 'set', value: amount } }],
      send: true,
    });
  },
  async changeMany(model, shop, basisPoints) {
    const { status, body } = await shop.call('POST', '/edits', {
      selection: { kind: 'items', ids: model.items.map((one) => one.id) },
      steps: [{ field: 'price', do: { verb: 'percent', basisPoints } }],
      send: true,
    });
    if (status < 300) model.runs.push(body.runId);
  },
  async undo(model, shop) {
    const run = model.runs.pop();
    await shop.call('POST', `/runs/${run}/undo`, { send: true });
  },
  async setStock(model, shop, at, colour, units) {
    const item = pick(model.items, at);
    const key = keyOf(item, colour);
    if (!item.varied) {
      const { status } = await shop.call('POST', `/items/${item.id}/stock`, { how: 'set', units });
      if (status < 300) await known(model, shop, item, key, units);
      return;
    }
    // Their table is saved with the version that was seen; somebody who sold meanwhile makes it stale.
    const seen = await shop.item(item.id);
    const variations = seen.variations.map((row) => ({
      ...row,
      quantity: row.values[0] === key ? units : row.quantity,
    }));
    const { status } = await shop.call('PATCH', `/items/${item.id}`, {
      baseVersion: seen.version,
      patch: { variations },
    });
    if (status < 300) await known(model, shop, item, key, units);
  },
  async sellHere(model, shop, at, colour) {
    const item = pick(model.items, at);
    const key = keyOf(item, colour);
    const body = { quantity: 1, unitPrice: 4_000, ...(item.varied ? { variation: [key] } : {}) };
    // Not asked again when its answer is lost: whether it was done is read from the sales.
    const { status } = await shop.call('POST', `/items/${item.id}/sold`, body, false).catch(() => ({ status: 0 }));
    if (status >= 200 && status < 300) item.stock.set(key, item.stock.get(key) - 1);
    if (status === 0 || status >= 500) item.unsure = true;
  },
  async sellThere(model, shop, at, place, colour) {
    const item = pick(model.items, at);
    const account = accountOf(model, place);
    const bought = await shop.buy(account, item.sku, 1, item.varied ? pick(colours, colour) : null);
    if (!bought) return;
    // The last that was offered there: it is made again only when a person asks.
    if ((await shop.live(account, item.sku)).length === 0) item.out.add(account.id);
    const { variant } = await shop.orderOf(bought);
    const key = item.varied ? (variant?.values[0] ?? item.narrowed?.get(account.id) ?? null) : '';
    model.orders.push({ ...bought, item, key, quantity: 1, cancelled: false });
    if (key !== null) item.stock.set(key, item.stock.get(key) - 1);
  },
  async cancel(model, shop, at) {
    const order = pick(model.orders, at);
    if (order.cancelled) return;
    const answer = await shop.drive(order.market, 'cancel', { order: order.order });
    if (answer.error) return;
    order.cancelled = true;
    if (order.key !== null) order.item.stock.set(order.key, order.item.stock.get(order.key) + order.quantity);
  },
  async narrow(model, shop, at, place, colour) {
    const item = pick(model.items, at);
    const account = accountOf(model, place);
    const value = pick(colours, colour);
    const { status } = await shop.call('PUT', `/items/${item.id}/listings/${account.id}`, {
      field: 'variations',
      value: { Colour: value },
    });
    if (status < 300) {
      item.narrowed ??= new Map();
      item.narrowed.set(account.id, value);
    }
  },
  async reserve(model, shop, place, units) {
    const account = accountOf(model, place);
    const { status } = await shop.call('PUT', `/accounts/${account.id}/pace`, { reserve: units });
    if (status < 300) model.reserves.set(account.id, units);
  },
  async offer(model, shop, at, place) {
    const account = accountOf(model, place);
    const [one] = await shop.live(account, pick(model.items, at).sku);
    if (one) await shop.drive(account.market, 'offer', { listing: one.id, amount: 1_000 });
  },
  async remove(model, shop, at, place) {
    const item = pick(model.items, at);
    const account = accountOf(model, place);
    const [one] = await shop.live(account, item.sku);
    if (!one) return;
    await shop.drive(account.market, 'remove', { listing: one.id });
    // Taken down there: whether it shall be there again is a person's to say.
    item.free.add(account.id);
  },
  async pauseThere(model, shop, at, place) {
    const item = pick(model.items, at);
    const account = accountOf(model, place);
    const [one] = await shop.live(account, item.sku);
    if (!one) return;
    await shop.drive(account.market, 'pause', { listing: one.id });
    await pause(100);
    await shop.drive(account.market, 'resume', { listing: one.id });
  },
  async renew(model, shop, at, place) {
    const item = pick(model.items, at);
    const account = accountOf(model, place);
    const { columns } = (await shop.call('GET', `/items/${item.id}`)).body;
    const column = columns.find((one) => one.accountId === account.id);
    if (column?.listingId && column.state === 'live')
      await shop.call('POST', '/renewals', { listings: [column.listingId] });
  },
  fault: (model, shop, place, kind, method) =>
    shop.drive(accountOf(model, place).market, 'fault', { kind, method, times: 1, ms: 900 }),
  slow: (model, shop, place) =>
    shop.drive(accountOf(model, place).market, 'fault', { kind: 'slow', method: 'POST', times: 1, ms: 10_000 }),
  async tokens(model, shop, place) {
    const { market } = accountOf(model, place);
    await shop.drive(market, 'fault', { kind: 'token-slow', times: 1, ms: 2_500 });
    await shop.drive(market, 'expire');
  },
  lock(model, shop, place) {
    const { market, remoteName } = accountOf(model, place);
    return shop.drive(market, 'lock', { seller: remoteName, minutes: 0.05 });
  },
  lag: (model, shop, place, lagMs) => shop.drive(accountOf(model, place).market, 'odd', { lagMs }),
  webhooks: (model, shop, place, double, reorder, delayMs) =>
    shop.drive(accountOf(model, place).market, 'webhooks', { double, reorder, delayMs }),
  clock: (_model, shop, minutes) => shop.clock(minutes * 60_000),
  kill: (_model, shop, name) => shop.kill(name),
  endWorker: (_model, shop) => shop.endPolitely('worker'),
  second: (_model, shop) => shop.startWorker(),
  one: (_model, shop) => shop.stopWorker(),
  wait: (_model, _shop, ms) => pause(ms),
};

/** What a person counted is what is there at that moment; orders that were not heard by then come off later. */
async function known(model, shop, item, key, units) {
  const pending = model.orders.filter((one) => one.item === item && one.key === key);
  const missing = new Set();
  const { sales } = (await shop.call('GET', `/sales?item=${item.id}&limit=200`)).body;
  const states = new Map(sales.map((one) => [one.orderId, one.state]));
  for (const one of pending) {
    const state = states.get(one.order);
    if (!one.cancelled && state === undefined) missing.add({ one, delta: -one.quantity });
    if (one.cancelled && state === 'paid') missing.add({ one, delta: one.quantity });
  }
  item.stock.set(
    key,
    [...missing].reduce((sum, { delta }) => sum + delta, units),
  );
  // Whether one was heard just before or just after cannot be told from outside.
  if (missing.size) item.unsure = true;
}

const at = fc.nat(20);
const make = (name, fits, ...args) => fc.tuple(...args).map((all) => new Act(name, all, acts[name], fits));
const weighted = (weight, arbitrary) => ({ weight, arbitrary });
const sold = (model) => model.orders.length > 0;
const isVaried = (model, one) => some(model) && pick(model.items, one).varied;

/** Everything that may happen, as often as it shall. */
export const anyCommand = fc.oneof(
  weighted(
    8,
    make('record', () => true, fc.boolean(), fc.integer({ min: 1, max: 4 })),
  ),
  weighted(14, make('publish', some, at, fc.array(at, { minLength: 1, maxLength: 4 }))),
  weighted(4, make('end', some, at, at)),
  weighted(4, make('changePrice', some, at, fc.integer({ min: 3_000, max: 9_000 }))),
  weighted(3, make('changeMany', some, fc.constantFrom(-500, 500, 100))),
  weighted(
    2,
    make('undo', (model) => model.runs.length > 0),
  ),
  weighted(6, make('setStock', some, at, at, fc.integer({ min: 0, max: 5 }))),
  weighted(5, make('sellHere', some, at, at)),
  weighted(14, make('sellThere', some, at, at, at)),
  weighted(5, make('cancel', sold, at)),
  weighted(4, make('narrow', isVaried, at, at, at)),
  weighted(
    3,
    make('reserve', () => true, at, fc.integer({ min: 0, max: 2 })),
  ),
  weighted(2, make('offer', some, at, at)),
  weighted(3, make('renew', some, at, at)),
  weighted(1, make('remove', some, at, at)),
  weighted(1, make('pauseThere', some, at, at)),
  weighted(
    9,
    make(
      'fault',
      () => true,
      at,
      fc.constantFrom('drop-after', 'drop-before', 'error-500', 'busy-429'),
      fc.constantFrom('POST', 'PATCH', 'GET', null),
    ),
  ),
  weighted(
    1,
    make('slow', () => true, at),
  ),
  weighted(
    1,
    make('tokens', () => true, at),
  ),
  weighted(
    1,
    make('lock', () => true, at),
  ),
  weighted(
    2,
    make('lag', () => true, at, fc.constantFrom(0, 1_000, 3_000)),
  ),
  weighted(
    2,
    make('webhooks', () => true, at, fc.boolean(), fc.boolean(), fc.constantFrom(0, 500, 3_000)),
  ),
  weighted(
    1,
    make('clock', () => true, fc.constantFrom(1, 20, 65, 1_450)),
  ),
  weighted(
    2,
    make('kill', () => true, fc.constantFrom('worker', 'web', 'database', 'tasks')),
  ),
  weighted(
    1,
    make('endWorker', () => true),
  ),
  weighted(
    1,
    make('second', () => true),
  ),
  weighted(
    1,
    make('one', () => true),
  ),
  weighted(
    6,
    make('wait', () => true, fc.constantFrom(50, 300, 1_000)),
  ),
);
