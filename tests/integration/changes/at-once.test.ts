import { eq, inArray, sql } from 'drizzle-orm';
import { onItem } from '../../../src/core/edit';
import { NettingError } from '../../../src/core/errors';
import { sameJson } from '../../../src/core/json';
import { closeDatabase, database } from '../../../src/db/client';
import { changeRecord, item, job, listing, movement, sale } from '../../../src/db/schema';
import { applyEdit } from '../../../src/services/changes/many/apply-edit';
import { setOverride } from '../../../src/services/changes/set-override';
import { undoRun } from '../../../src/services/changes/undo/undo-run';
import { updateItem } from '../../../src/services/changes/update-item';
import { loadItem } from '../../../src/services/records/items/load-items';
import { changeStock } from '../../../src/services/stock/change-stock';
import { recordHandSale } from '../../../src/services/stock/record-hand-sale';
import { recordSale } from '../../../src/services/stock/record-sale';
import { storeCancelled } from '../../../src/services/stock/store-cancelled';
import { readyItem } from '../../support/items';
import { accountOf, call } from '../../support/stack';

const rounds = 200;
const db = database();
const ines = { id: 'ines', name: 'Ines' };
const jonas = { id: 'jonas', name: 'Jonas' };

/** Orders get numbers of their own in every run: a kept database knows those of the last. */
const thisRun = Date.now();

/** The same numbers in every run: what is found can be found again. */
let seed = 20_261_126;
const random = (below: number): number => {
  seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0;
  return Math.floor((seed / 2 ** 32) * below);
};
const pick = <T>(some: readonly T[]): T => {
  if (some.length === 0) throw new Error('nothing to choose from');
  return some[random(some.length)] as T; // inside the list
};

const axes = [{ name: 'Colour', values: ['Black', 'Tan'] }];
const row = (value: string) => ({ values: [value], on: true, sku: '', quantity: 40, price: null, barcode: '' });
let ids: number[] = [];
let skus = new Map<number, string>();
let accounts: number[] = [];
const runs: number[] = [];
const sales: number[] = [];

beforeAll(async () => {
  const made: { id: number; sku: string }[] = [];
  for (let count = 0; count < 4; count++) made.push(await readyItem({}, 60));
  for (let count = 0; count < 2; count++)
    made.push(await readyItem({ axes, variations: [row('Black'), row('Tan')], category: 'accessories/straps' }));
  ids = made.map((one) => one.id);
  skus = new Map(made.map((one) => [one.id, one.sku]));
  // Live on two accounts to which nothing is sent meanwhile: jobs are written and joined, and stay.
  accounts = [await accountOf('Shopfront'), await accountOf('Oakhand')];
  await call('POST', '/accounts/hold', { accounts, stopped: true });
  // Only there: what other accounts would get of them is of no interest here.
  await db.delete(listing).where(sql`${inArray(listing.itemId, ids)} and ${listing.accountId} not in ${accounts}`);
  await db
    .update(listing)
    .set({ wanted: 'live', remote: 'live', sentPrice: sql`wanted_price`, sentQuantity: sql`wanted_quantity` })
    .where(sql`${inArray(listing.itemId, ids)} and ${inArray(listing.accountId, accounts)}`);
});
afterAll(async () => {
  const rows = await db.select({ id: listing.id }).from(listing).where(inArray(listing.itemId, ids));
  await db.delete(job).where(
    inArray(
      job.listingId,
      rows.map((one) => one.id),
    ),
  );
  await db.update(listing).set({ remote: 'none', wanted: 'none', busy: false }).where(inArray(listing.itemId, ids));
  await call('POST', '/accounts/hold', { accounts, stopped: false });
  await closeDatabase();
});

const varied = async (id: number) => (await loadItem(db, id)).axes.length > 0;
const all = () => ({ kind: 'items' as const, ids });
const percent = (basisPoints: number) => onItem('price', { verb: 'percent', basisPoints });

/** What people, marketplaces and the background do to the same few items. */
const deeds: Record<string, () => Promise<unknown>> = {
  async types() {
    const id = pick(ids);
    const { version } = await loadItem(db, id);
    const patch = pick([
      { title: `Title ${random(1_000)}` },
      { price: 1_000 + random(9_000) },
      { location: `B${random(99)}` },
    ]);
    return updateItem(pick([ines, jonas]), id, { baseVersion: Math.max(1, version - random(2)), patch });
  },
  async writesHere() {
    const value = pick<number | string | undefined>([undefined, 2_000 + random(900), 3_000]);
    return setOverride(ines, pick(ids), pick(accounts), { field: 'price', ...(value === undefined ? {} : { value }) });
  },
  async lowersAll() {
    const { runId } = await applyEdit(ines, {
      selection: all(),
      steps: [percent(pick([-300, 200]))],
      send: true,
      title: 'at once',
    });
    runs.push(runId);
  },
  async addsToAll() {
    const steps = [onItem('quantity', { verb: 'add', by: pick([1, 2, -1]) })];
    const { runId } = await applyEdit(jonas, { selection: all(), steps, send: random(2) === 0, title: 'at once' });
    runs.push(runId);
  },
  async renamesAll() {
    const steps = [onItem('title', { verb: 'before', text: pick(['A ', 'B ']) })];
    const { runId } = await applyEdit(jonas, { selection: all(), steps, send: true, title: 'at once' });
    runs.push(runId);
  },
  async counts() {
    return changeStock(
      ines,
      pick(ids.slice(0, 4)),
      pick([
        { how: 'add', units: 1 + random(3), reason: 'added' as const },
        { how: 'set', units: 30 + random(30) },
      ] as const),
    );
  },
  async sellsByHand() {
    const id = pick(ids);
    return recordHandSale(jonas, id, {
      quantity: 1,
      unitPrice: 100,
      ...((await varied(id)) ? { variation: [pick(['Black', 'Tan'])] } : {}),
    });
  },
  async hearsOfASale() {
    const id = pick(ids);
    const order = {
      orderId: `once-${thisRun}-${random(1e9)}`,
      remoteListingId: 'nothing-there',
      sku: skus.get(id) ?? '',
      title: 'sold',
      quantity: 1,
      unitPrice: 100,
      total: 100,
      fee: 10,
      buyerPostage: 0,
      discount: 0,
      parcelShare: 1,
      label: 0,
      collected: false,
      personal: null,
      currency: 'EUR',
      buyerTown: '',
      soldAt: new Date(),
      changedAt: new Date(),
      line: 0,
      rawState: null,
      cancelled: false,
      variation: (await varied(id)) ? { values: [pick(['Black', 'Tan'])], number: '' } : null,
    };
    const heard = await recordSale(pick(accounts), order);
    if ('saleId' in heard) sales.push(heard.saleId);
    return recordSale(pick(accounts), order);
  },
  async cancels() {
    if (sales.length) return storeCancelled(ines, pick(sales));
    return null;
  },
  async takesBack() {
    if (runs.length) return undoRun(jonas, pick(runs), { send: true });
    return null;
  },
  async countsCombinations() {
    const id = pick(ids.slice(4));
    const { version, variations } = await loadItem(db, id);
    const table = variations.map((one) => ({ ...one, quantity: Math.max(0, one.quantity + random(3) - 1) }));
    return updateItem(ines, id, { baseVersion: version, patch: { variations: table } });
  },
};

test('two people, changes of many, sales, and what is taken back, on the same items at once', async () => {
  const refused = new Map<string, number>();
  for (let round = 0; round < rounds; round++) {
    const chosen = Array.from({ length: 5 }, () => pick(Object.keys(deeds)));
    const outcomes = await Promise.allSettled(chosen.map((name) => deeds[name]?.()));
    for (const one of outcomes) {
      if (one.status === 'fulfilled') continue;
      // What is refused is refused in words; no fault of the database ever reaches a person.
      if (!(one.reason instanceof NettingError)) throw one.reason;
      refused.set(one.reason.code, (refused.get(one.reason.code) ?? 0) + 1);
    }
  }
  expect([...refused.keys()].every((code) => ['conflict', 'invalid', 'too-late'].includes(code))).toBe(true);
  expect(runs.length).toBeGreaterThan(50);
  expect(sales.length).toBeGreaterThan(50);
}, 600_000);

test('then the stock of every item and combination is the sum of its movements', async () => {
  for (const id of ids) {
    const thing = await loadItem(db, id);
    const moves = await db.select().from(movement).where(eq(movement.itemId, id));
    const sum = (key: string | null) =>
      moves.filter((one) => key === null || one.combination === key).reduce((units, one) => units + one.delta, 0);
    expect(thing.quantity).toBe(sum(null));
    for (const one of thing.variations) expect([one.key, one.quantity]).toEqual([one.key, sum(one.key)]);
    const sold = await db.select().from(sale).where(eq(sale.itemId, id));
    const paid = sold.filter((one) => one.state === 'paid').reduce((units, one) => units + one.quantity, 0);
    const gone = moves
      .filter((one) => one.reason === 'sold' || one.reason === 'cancelled')
      .reduce((units, one) => units + one.delta, 0);
    expect(gone + paid).toBe(0);
  }
});

test('and no change was lost unseen: every line of the history begins where the one before it ended', async () => {
  for (const id of ids) {
    const [present] = await db.select().from(item).where(eq(item.id, id));
    const rows = await db.select().from(changeRecord).where(eq(changeRecord.itemId, id)).orderBy(changeRecord.id);
    const ends = new Map<string, unknown>();
    for (const one of rows) {
      if (one.field === 'created' || one.field === 'variations' || one.combination) continue;
      const place = `${one.listingId ?? ''}/${one.field}`;
      if (ends.has(place)) expect([one.id, one.from]).toEqual([one.id, ends.get(place)]);
      ends.set(place, one.to);
    }
    for (const field of ['title', 'price', 'location'] as const)
      if (ends.has(`/${field}`)) expect(sameJson(ends.get(`/${field}`), present?.[field])).toBe(true);
    for (const there of await db.select().from(listing).where(eq(listing.itemId, id)))
      if (ends.has(`${there.id}/price`)) expect(there.overrides.price ?? null).toEqual(ends.get(`${there.id}/price`));
  }
});

test('and every listing holds what follows from its item, with one live job at most', async () => {
  const rows = await db.select().from(listing).where(inArray(listing.itemId, ids));
  const prices = new Map((await db.select().from(item).where(inArray(item.id, ids))).map((one) => [one.id, one]));
  for (const one of rows.filter((other) => accounts.includes(other.accountId))) {
    const thing = prices.get(one.itemId);
    if (!thing?.axes.length) expect(one.wantedPrice).toBe(one.overridePrice ?? thing?.price);
    expect(one.wantedQuantity).toBe(Math.max(0, Math.min(one.quantityCap, thing?.quantity ?? 0)));
    const jobs = await db.select().from(job).where(eq(job.liveListing, one.id));
    expect(jobs.length).toBeLessThan(2);
    if (one.wantedQuantity !== one.sentQuantity && one.busy === false) throw new Error('stock that nobody is told of');
  }
});
