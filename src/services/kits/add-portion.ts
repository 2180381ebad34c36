import { eq, sql } from 'drizzle-orm';
import { meanCost } from '../../core/batch';
import type { Change } from '../../core/change';
import type { Item, ItemPatch } from '../../core/item';
import { addedTo, isReady, shareLots, speaksOfStock } from '../../core/kit';
import type { Tx } from '../../db/client';
import { type KitRow, kitLot } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { numbering } from '../changes/commit/free-sku';
import { recordChanges } from '../changes/commit/record-changes';
import { createItemWithin } from '../items/create-item';
import { type LoadedAccount, loadAccounts } from '../records/accounts/load-accounts';
import { stillAsAsked } from '../records/accounts/settled';
import { madeKey } from '../records/items/made-key';
import { countedLots } from './counted-lots';
import type { LotNow } from './find-kit';
import { itemsOfRun } from './items-of-run';
import { modelOf } from './keep-entries';
import type { LotsResult, Portion } from './lots-task';
import { matchStock } from './match-stock';

/** Adds lots to what they are the same as, or makes items of them; each once, whatever became of it meanwhile. */
export async function addPortion(tx: Tx, { actor, kit, input, runId, lots }: Portion<'add'>): Promise<LotsResult> {
  const result: LotsResult = { made: 0, added: 0, changed: 0, items: 0, left: [] };
  const leave = ({ id, name }: LotNow, why: string) => result.left.push({ lot: id, name, why });
  const open = lots.filter((lot) => {
    const again = speaksOfStock(lot) && !input.anyway;
    if (again) leave(lot, 'It is in stock already');
    else if (isReady({ ...lot, state: lot.state === 'done' ? 'open' : lot.state })) return true;
    else leave(lot, 'It is not ready any more');
    return false;
  });
  if (open.length === 0) return result;
  // Held first: what others record at this moment is known, or waits.
  const numbers = await numbering(tx);
  const accounts = await loadAccounts(tx);
  const account = accounts.find((one) => one.id === kit.accountId);
  const costs = kit.totalCost === null ? new Map<number, number>() : shareLots(kit, await countedLots(tx, kit.id));
  const same = await matchStock(tx, account, open);
  const seen = input.seen && new Map(input.seen.map((one) => [one.lot, one.item]));
  const ones = new Map(input.choices.map((one) => [one.lot, one]));
  const at = new Date();
  const own = new Set(
    await itemsOfRun(
      tx,
      runId,
      [...same.values()].map((one) => one.id),
    ),
  );
  const joins: { lot: LotNow; item: Item }[] = [];
  for (const lot of open) {
    const there = same.get(lot.id);
    const shown = seen?.get(lot.id);
    // What this very piece of work has made was not there when it was shown.
    const isOwn = shown === null && there !== undefined && own.has(there.id);
    if (shown !== undefined && shown !== (there?.id ?? null) && !isOwn) {
      leave(lot, 'What it is the same as in stock is another than was shown: compare once more');
      continue;
    }
    if (there) {
      joins.push({ lot, item: there });
      continue;
    }
    const key = madeKey(`kit lot ${lot.id} ${lot.version}`);
    const { id } = await createItemWithin(
      tx,
      actor,
      { fields: fieldsOf(kit, lot, costs.get(lot.id)), quantity: lot.quantity, key },
      { numbers, asked: accounts },
    );
    // Taken back as a run, it is gone from the inventory again.
    await recordChanges(tx, { actor, why: 'scan', at, runId }, [
      { itemId: id, itemVersion: 1, field: 'standing', from: 'deleted', to: 'active' },
    ]);
    await putDown(tx, lot, id, runId);
    result.made++;
    result.items++;
    await setTiers(tx, { actor, runId, lot, item: id, account });
  }
  if (joins.length) {
    const { refused } = await commitItems(
      tx,
      joins.map((one) => one.item.id),
      ({ items }) => {
        // Several lots may be the same as one item: each is added to what the ones before have made of it.
        const now = new Map(
          items.map((one) => [
            one.id,
            { quantity: one.quantity, price: one.price, place: one.location, cost: one.cost },
          ]),
        );
        return joins.flatMap(({ lot, item }): Change[] => {
          const there = now.get(item.id);
          if (!there) return [];
          const stocked = addedTo(there, lot, ones.get(lot.id) ?? input.joining);
          const total = costs.get(lot.id);
          const cost =
            total === undefined
              ? there.cost
              : meanCost({ units: there.quantity, cost: there.cost }, { units: lot.quantity, total });
          now.set(item.id, { ...stocked, cost });
          const target = { item: item.id };
          return [
            { target, field: 'quantity', to: stocked.quantity },
            { target, field: 'price', to: stocked.price },
            { target, field: 'location', to: stocked.place },
            { target, field: 'cost', to: cost },
          ];
        });
      },
      { actor, why: 'scan', at, runId, send: input.publish ? 'all' : 'stock', stock: { reason: 'bought' } },
    );
    for (const { lot, item } of joins) {
      const no = refused.find((one) => one.item === item.id);
      if (no) {
        leave(lot, no.why);
        continue;
      }
      await putDown(tx, lot, item.id, runId);
      result.added++;
      result.items++;
    }
  }
  await stillAsAsked(tx, accounts);
  return result;
}

/** What was in stock before stays there by the run that put it there: taking this one back must not open it again. */
async function putDown(tx: Tx, lot: LotNow, itemId: number, runId: number): Promise<void> {
  if (lot.state === 'done') return;
  await tx
    .update(kitLot)
    .set({ state: 'done', meant: 'add', itemId, runId, edited: [], version: sql`${kitLot.version} + 1` })
    .where(eq(kitLot.id, lot.id));
}

function fieldsOf(kit: KitRow, lot: LotNow, total: number | undefined): ItemPatch {
  const { name, condition, comment, place, price, grams, finish, quantity } = lot;
  return {
    title: name,
    model: modelOf(name),
    condition,
    conditionNote: comment,
    location: place,
    price,
    supplier: kit.supplier,
    ...(grams === null ? {} : { weightGrams: grams }),
    ...(finish ? { attributes: { Finish: finish } } : {}),
    ...(total === undefined ? {} : { cost: Math.round(total / quantity) }),
  };
}

/** Quantity tiers are the account's own: they are written for it alone. */
async function setTiers(
  tx: Tx,
  {
    actor,
    runId,
    lot,
    item,
    account,
  }: { actor: Actor; runId: number; lot: LotNow; item: number; account: LoadedAccount | undefined },
): Promise<void> {
  if (!account || lot.tiers.length === 0) return;
  await commitItems(
    tx,
    [item],
    () => [{ target: { item, account: account.id }, field: 'extra.tiers', to: lot.tiers }],
    { actor, why: 'scan', at: new Date(), runId, send: 'falls' },
  );
}
