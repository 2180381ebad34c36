import { z } from 'zod';
import { addedTo, editedFields, isReady, joiningSchema, speaksOfStock, stockedSchema } from '../../core/kit';
import { database } from '../../db/client';
import { loadAccounts } from '../records/accounts/load-accounts';
import { loadItems } from '../records/items/load-items';
import { type LotNow, lotsOf } from './find-kit';
import { loadKit } from './load-kit';
import { matchStock } from './match-stock';

export const compareLotsSchema = z
  .object({
    lots: z.array(z.number().int().positive()).min(1).max(20_000).optional(),
    joining: joiningSchema.default({ price: 'kept', place: 'kept' }),
  })
  .strict();

export const comparedSchema = z.object({
  /** What would be added: to what is there, or as something new. */
  adds: z.array(
    z.object({
      lot: z.number(),
      name: z.string(),
      finish: z.string(),
      quantity: z.number(),
      price: z.number().nullable(),
      place: z.string(),
      item: z.object({ id: z.number(), sku: z.string() }).nullable(),
      there: stockedSchema.nullable(),
      becomes: stockedSchema,
    }),
  ),
  /** What is in stock and was changed here since, or was meant as a change from the first. */
  changes: z.array(
    z.object({
      lot: z.number(),
      name: z.string(),
      finish: z.string(),
      item: z.object({ id: z.number(), sku: z.string() }).nullable(),
      there: stockedSchema.nullable(),
      price: z.number().nullable(),
      place: z.string(),
      quantity: z.number(),
      edited: z.array(z.enum(editedFields)),
    }),
  ),
  /** Open lots that are not ready: they stay. */
  stay: z.number(),
});
export type Compared = z.infer<typeof comparedSchema>;

/** What lots would do to the stock, with the resulting numbers; nothing is done. */
export async function compareLots(id: number, input: z.output<typeof compareLotsSchema>): Promise<Compared> {
  const db = database();
  const kit = await loadKit(db, id);
  const only = input.lots && new Set(input.lots);
  const lots = (await lotsOf(db, id)).filter((lot) => !only || only.has(lot.id));
  const adding = lots.filter((lot) => !speaksOfStock(lot) && isReady(lot));
  const changing = lots.filter(
    (lot) => speaksOfStock(lot) && lot.state !== 'out' && (lot.state === 'done' ? lot.edited.length > 0 : true),
  );
  const account = (await loadAccounts(db)).find((one) => one.id === kit.accountId);
  const same = await matchStock(
    db,
    account,
    [...adding, ...changing].filter((lot) => lot.itemId === null),
  );
  const become = await loadItems(
    db,
    changing.flatMap((lot) => lot.itemId ?? []),
  );
  const byItem = new Map(become.map((one) => [one.id, one]));
  const of = (lot: LotNow) => {
    const item = lot.itemId === null ? same.get(lot.id) : byItem.get(lot.itemId);
    return {
      item: item ? { id: item.id, sku: item.sku } : null,
      there: item ? { quantity: item.quantity, price: item.price, place: item.location } : null,
    };
  };
  return {
    adds: adding.map((lot) => {
      const { item, there } = of(lot);
      const { id: lotId, name, finish, quantity, price, place } = lot;
      const mine = { quantity, price, place };
      return {
        lot: lotId,
        name,
        finish,
        ...mine,
        item,
        there,
        becomes: there ? addedTo(there, mine, input.joining) : mine,
      };
    }),
    changes: changing.map((lot) => {
      const { id: lotId, name, finish, quantity, price, place, edited } = lot;
      return { lot: lotId, name, finish, ...of(lot), price, place, quantity, edited };
    }),
    stay: lots.filter((lot) => !speaksOfStock(lot) && lot.state !== 'out' && !isReady(lot)).length,
  };
}
