import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { shareCost } from '../../core/batch';
import type { ItemPatch } from '../../core/item';
import { isReady } from '../../core/kit';
import { productKeys } from '../../core/listing';
import { database, type Tx, transaction } from '../../db/client';
import { type KitRow, kitLot, run } from '../../db/schema';
import type { Actor } from '../access/actor';
import { keepProducts } from '../accounts/mapping/keep-products';
import { numbering } from '../changes/commit/free-sku';
import { recordChanges } from '../changes/commit/record-changes';
import { createItemWithin } from '../items/create-item';
import { loadAccounts } from '../records/accounts/load-accounts';
import { settled, stillAsAsked } from '../records/accounts/settled';
import { madeKey } from '../records/items/made-key';
import { lotsOf } from './find-kit';
import { loadKit, refuseClosed } from './load-kit';

/** So many lots go in one transaction, and in one request; whoever asks goes on with the rest. */
const atOnce = 20;
const mostAtOnce = 200;

export const intoStockSchema = z
  .object({
    /** Only these lots; every ready one when left out. */
    lots: z.array(z.number().int().positive()).min(1).max(20_000).optional(),
  })
  .strict();

export const inStockSchema = z.object({
  made: z.number(),
  /** Ready ones that wait for the next request. */
  left: z.number(),
});

type Lot = Awaited<ReturnType<typeof lotsOf>>[number];

/** Makes an item of each lot that is ready, with its share of what the sets cost; the others stay. Each is made once. */
export async function lotsIntoStock(
  actor: Actor,
  id: number,
  { lots: wanted }: z.output<typeof intoStockSchema>,
): Promise<z.infer<typeof inStockSchema>> {
  const only = wanted && new Set(wanted);
  const isMeant = (lot: Lot) => isReady(lot) && (!only || only.has(lot.id));
  const kit = await loadKit(database(), id);
  await keepEntries(actor, kit, (await lotsOf(database(), id)).filter(isMeant).slice(0, mostAtOnce));
  let made = 0;
  for (;;) {
    const step = await settled(() =>
      transaction(async (tx) => {
        const now = await loadKit(tx, id, true);
        refuseClosed(now);
        const all = await lotsOf(tx, id);
        const ready = all.filter(isMeant);
        const some = ready.slice(0, Math.min(atOnce, mostAtOnce - made));
        await makeItems(tx, actor, now, all, some);
        return { made: some.length, left: ready.length - some.length };
      }),
    );
    made += step.made;
    if (step.left === 0 || step.made === 0 || made >= mostAtOnce) return { made, left: step.left };
  }
}

/** What things are called in the catalogue is known from then on. */
async function keepEntries(actor: Actor, { accountId }: KitRow, lots: readonly Lot[]): Promise<void> {
  const account = (await loadAccounts(database())).find((one) => one.id === accountId);
  const found = lots.flatMap(({ entry, name }) => {
    const [key] = entry ? productKeys({ barcode: '', brand: '', model: modelOf(name) }) : [];
    return key && account && account.products[key]?.id !== entry ? [{ key, id: entry, name, categoryId: null }] : [];
  });
  if (account) await keepProducts(actor, account.row.market, [...new Map(found.map((one) => [one.key, one])).values()]);
}

const modelOf = (name: string): string => name.slice(0, 120);

async function makeItems(tx: Tx, actor: Actor, kit: KitRow, all: readonly Lot[], some: readonly Lot[]): Promise<void> {
  if (some.length === 0) return;
  const numbers = await numbering(tx);
  const asked = await loadAccounts(tx);
  const costs = costsOf(kit, all);
  const context = { actor, why: 'scan' as const, at: new Date(), runId: kit.runId };
  for (const lot of some) {
    const { name, condition, comment, place, price, grams, finish, quantity } = lot;
    const fields: ItemPatch = {
      title: name,
      model: modelOf(name),
      condition,
      conditionNote: comment,
      location: place,
      price,
      supplier: kit.supplier,
      ...(grams === null ? {} : { weightGrams: grams }),
      ...(finish ? { attributes: { Finish: finish } } : {}),
      ...(costs.has(lot.id) ? { cost: costs.get(lot.id) } : {}),
    };
    const key = madeKey(`kit lot ${lot.id} ${lot.version}`);
    const { id: itemId } = await createItemWithin(tx, actor, { fields, quantity, key }, { numbers, asked });
    // Taken back as a run, it is gone from the inventory again.
    await recordChanges(tx, context, [{ itemId, itemVersion: 1, field: 'standing', from: 'deleted', to: 'active' }]);
    await tx
      .update(kitLot)
      .set({ state: 'done', itemId, version: sql`${kitLot.version} + 1` })
      .where(eq(kitLot.id, lot.id));
  }
  await stillAsAsked(tx, asked);
  await tx
    .update(run)
    .set({ itemCount: sql`${run.itemCount} + ${some.length}` })
    .where(eq(run.id, kit.runId));
}

/** What a piece of each lot costs: all of the sets' cost over all lots that are not taken out. */
function costsOf({ totalCost, shareBy }: KitRow, all: readonly Lot[]): Map<number, number> {
  if (totalCost === null) return new Map();
  const lots = all.filter((lot) => lot.state !== 'out' && lot.quantity > 0);
  const shares = shareCost(
    totalCost,
    lots.map(({ quantity, grams, price }) => ({ units: quantity, weightGrams: grams, price, byHand: null })),
    shareBy,
  );
  return new Map(lots.map((lot, index) => [lot.id, Math.round((shares?.[index] ?? 0) / lot.quantity)]));
}
