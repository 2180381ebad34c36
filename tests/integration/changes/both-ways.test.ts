import { and, eq, inArray, isNotNull, sql } from 'drizzle-orm';
import { invert } from '../../../src/core/change';
import { onItem, type Step } from '../../../src/core/edit';
import { itemField, listingField } from '../../../src/core/field';
import { closeDatabase, type Db } from '../../../src/db/client';
import { ownTransaction } from '../../../src/db/raw';
import { changeRecord, item, job, listing, movement, run } from '../../../src/db/schema';
import { commitItems } from '../../../src/services/changes/commit/commit-items';
import { changePortion } from '../../../src/services/changes/many/change-portion';
import { readyItem } from '../../support/items';
import { accountOf, call } from '../../support/stack';

const actor = { id: 'test', name: 'Ines' };
/** Thrown to leave nothing behind: the worker of the stack must not send what is only looked at here. */
class LookedAt extends Error {}

/** Works in a transaction that is never kept. */
async function looking(work: Parameters<typeof ownTransaction>[0]): Promise<void> {
  await expect(
    ownTransaction(async (db, connection) => {
      await work(db, connection);
      throw new LookedAt();
    }, 1),
  ).rejects.toThrow(LookedAt);
}

const kinds: [Record<string, unknown>, number, Record<string, number>][] = [
  [{ price: 14_900 }, 3, {}],
  [{ price: 190 }, 1, {}],
  [{ price: null }, 4, {}],
  [{ price: 299_900_00 }, 2, {}],
  [{ price: 12_000, retailPrice: 12_500 }, 5, {}],
  [{ price: 12_000, retailPrice: 11_500 }, 5, {}],
  [{ price: 9_900 }, 2, { Hallowick: 10_900 }],
  [{ price: 9_900, weightGrams: null, attributes: {} }, 0, { Selasar: 30_000 }],
  [{ price: 21_000, category: 'accessories/straps' }, 40, { Shopfront: 20_500 }],
  [{ price: 800, keywords: [] }, 1, {}],
];

/** Items of every kind twice: one for each way. */
const pairs: [number, number][] = [];
let accounts: number[] = [];

beforeAll(async () => {
  accounts = (await call<{ accounts: { id: number }[] }>('GET', '/accounts')).body.accounts.map((one) => one.id);
  for (const [fields, quantity, own] of kinds) {
    const pair: number[] = [];
    for (let time = 0; time < 2; time++) {
      const { id } = await readyItem(fields, quantity);
      for (const [name, value] of Object.entries(own))
        await call('PUT', `/items/${id}/listings/${await accountOf(name)}`, { field: 'price', value });
      pair.push(id);
    }
    pairs.push([pair[0] ?? 0, pair[1] ?? 0]);
  }
});
afterAll(closeDatabase);

/** As if everything that is ready were live and sent as it is; some are being sent right now. */
async function live(db: Db, ids: number[]): Promise<void> {
  await db.execute(
    sql`update listing set wanted = 'live', remote = 'live', sent_price = wanted_price, sent_quantity = wanted_quantity where item_id in ${ids} and account_id in ${accounts}`,
  );
}

const derived = {
  accountId: listing.accountId,
  overridePrice: listing.overridePrice,
  wantedPrice: listing.wantedPrice,
  wantedQuantity: listing.wantedQuantity,
  quantityCap: listing.quantityCap,
  contentDirty: listing.contentDirty,
  blocking: listing.blocking,
  dirty: listing.dirty,
  busy: listing.busy,
  problem: listing.problem,
};

/** Everything that a change leaves behind, but numbers and times. */
async function traces(db: Db, id: number) {
  const [thing] = await db.select().from(item).where(eq(item.id, id));
  const listings = await db.select(derived).from(listing).where(eq(listing.itemId, id)).orderBy(listing.accountId);
  const history = await db
    .select()
    .from(changeRecord)
    .where(and(eq(changeRecord.itemId, id), isNotNull(changeRecord.runId)))
    .orderBy(changeRecord.field);
  const moves = await db.select().from(movement).where(eq(movement.itemId, id));
  const jobs = await db
    .select({ accountId: job.accountId, priority: job.priority, kind: job.kind, runId: job.runId })
    .from(job)
    .innerJoin(listing, eq(listing.id, job.listingId))
    .where(eq(listing.itemId, id))
    .orderBy(job.accountId);
  return {
    price: thing?.price,
    quantity: thing?.quantity,
    version: thing?.version,
    listings,
    history: history.map(({ field, from, to, why, itemVersion, byName }) => ({
      field,
      from,
      to,
      why,
      itemVersion,
      byName,
    })),
    moves: moves.map(({ delta, reason, combination, byName }) => ({ delta, reason, combination, byName })),
    jobs,
  };
}

const percent = (basisPoints: number) => onItem('price', { verb: 'percent', basisPoints });
const edits: [string, Step[], boolean][] = [
  ['a lower price, sent', [percent(-500)], true],
  ['a lower price, saved only', [percent(-500)], false],
  ['a price below what anybody takes, sent', [percent(-9_800)], true],
  ['a price set, where there was none, too', [onItem('price', { verb: 'set', value: 11_900 })], true],
  ['units added, sent', [onItem('quantity', { verb: 'add', by: 2 })], true],
  ['units taken away, saved only: told all the same', [onItem('quantity', { verb: 'add', by: -1 })], false],
  ['sold out, saved only: told all the same', [onItem('quantity', { verb: 'set', value: 0 })], false],
  ['price and units, sent', [percent(1_000), onItem('quantity', { verb: 'set', value: 7 })], true],
];

test.each(edits)('%s: set by set and one by one come to the same', async (_what, steps, send) => {
  await looking(async (db, connection) => {
    await live(db, pairs.flat());
    const [{ insertId: runId }] = await db
      .insert(run)
      .values({ kind: 'edit', title: 'both ways', detail: {}, byName: actor.name });
    const options = { connection, actor, runId, steps, send };
    const fast = await changePortion(
      db,
      pairs.map(([one]) => one),
      options,
    );
    const slow = await changePortion(
      db,
      pairs.map(([, other]) => other),
      { ...options, generalOnly: true },
    );
    expect({ ...fast, reasons: fast.reasons.sort() }).toEqual({ ...slow, reasons: slow.reasons.sort() });
    expect(fast.items).toBeGreaterThan(4);
    for (const [one, other] of pairs) expect(await traces(db, one)).toEqual(await traces(db, other));
    if (!send) return;
    // Told is everything that differs: also a price where a cap leaves the units as they were.
    for (const [one] of pairs)
      expect(
        (await traces(db, one)).listings.filter((row) => row.wantedPrice !== null && row.dirty && !row.busy),
      ).toEqual([]);
  });
});

test('a change and its inverse tell the same listings', async () => {
  const ids = pairs.map(([one]) => one);
  await looking(async (db) => {
    await live(db, ids);
    const at = new Date();
    const options = { actor, why: 'bulk' as const, at, send: 'all' as const };
    const hallowick = await accountOf('Hallowick');
    const told = async () => {
      const rows = await db
        .select({ id: job.listingId, generation: job.generation })
        .from(job)
        .innerJoin(listing, eq(listing.id, job.listingId))
        .where(inArray(listing.itemId, ids));
      await db.execute(
        sql`update job set generation = 0 where listing_id in (select id from listing where item_id in ${ids})`,
      );
      return rows
        .filter((row) => row.generation > 0)
        .map((row) => row.id)
        .sort();
    };
    const made = await commitItems(
      db,
      ids,
      ({ items }) =>
        items.flatMap(({ id, title, quantity }) => [
          { target: { item: id }, field: 'title', to: `Sale: ${title}` },
          { target: { item: id }, field: 'quantity', to: quantity + 1 },
          { target: { item: id, account: hallowick }, field: 'price', to: 12_345 },
        ]),
      options,
    );
    expect(made.refused).toEqual([]);
    const there = await told();
    expect(there.length).toBeGreaterThan(10);
    const back = made.items.flatMap((one) =>
      one.changes.map((change) => {
        const field = change.target.account === undefined ? itemField(change.field) : listingField(change.field);
        const inverse = field && invert(change, change.to, field);
        if (inverse?.kind !== 'restore') throw new Error('nothing was changed since');
        return inverse.to === null && change.target.account !== undefined
          ? { target: change.target, field: change.field }
          : { target: change.target, field: change.field, to: inverse.to };
      }),
    );
    expect((await commitItems(db, ids, () => back, options)).refused).toEqual([]);
    expect(await told()).toEqual(there);
    const [left] = await db.execute(
      sql`select count(*) as count from listing where item_id in ${ids} and account_id in ${accounts} and (wanted_price <> sent_price or wanted_quantity <> sent_quantity)`,
    );
    expect(left).toEqual([{ count: 0 }]);
  });
});

test('a title put before that of many is one change each, with its listings computed and told', async () => {
  const ids = pairs.map(([one]) => one);
  await looking(async (db, connection) => {
    await live(db, ids);
    const steps: Step[] = [onItem('title', { verb: 'before', text: 'Checked: ' })];
    const [{ insertId: runId }] = await db
      .insert(run)
      .values({ kind: 'edit', title: 'titles', detail: {}, byName: actor.name });
    const done = await changePortion(db, ids, { connection, actor, runId, steps, send: true });
    expect(done).toMatchObject({ items: ids.length, reasons: [] });
    for (const id of ids) {
      const { history, moves, jobs } = await traces(db, id);
      expect(history.filter((one) => one.field === 'title')).toHaveLength(1);
      expect(moves).toHaveLength(1);
      expect(jobs.every((one) => one.runId === runId)).toBe(true);
    }
  });
});
