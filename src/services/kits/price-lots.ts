import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { type LotPricing, lotPricingSchema } from '../../core/kit';
import { transaction } from '../../db/client';
import { kit } from '../../db/schema';
import type { Actor } from '../access/actor';
import { startTask } from '../records/tasks/start-task';
import { lotsOf } from './find-kit';
import { loadKit, refuseBusy, refuseClosed } from './load-kit';

export const priceLotsSchema = z
  .object({
    /** Only these lots; all that are not in stock when left out. */
    lots: z.array(z.number().int().positive()).min(1).max(20_000).optional(),
    how: lotPricingSchema,
    /** Also what was heard today is asked anew. */
    anew: z.boolean().default(false),
  })
  .strict();

/** What a pricing is asked to do; which entries it asks of is written down when it begins. */
export type PricingTask = {
  kit: number;
  lots: number[];
  entries: string[];
  how: LotPricing;
  since: string | null;
  /** How many were meant and are left as they are, because their price is kept. */
  kept: number;
};

/** Begins to price lots by what such things sold for; a price that a person keeps is left as it is. */
export async function priceLots(
  actor: Actor,
  id: number,
  { lots: wanted, how, anew }: z.output<typeof priceLotsSchema>,
): Promise<{ taskId: number; lots: number; kept: number }> {
  const only = wanted && new Set(wanted);
  return transaction(async (tx) => {
    const row = await loadKit(tx, id, true);
    refuseClosed(row);
    await refuseBusy(tx, row);
    if (row.accountId === null)
      throw new NettingError('invalid', 'These sets belong to no catalogue: nobody tells what their parts sold for');
    const meant = (await lotsOf(tx, id)).filter((lot) => lot.state !== 'out' && (!only || only.has(lot.id)));
    const open = meant.filter((lot) => !lot.isKept && lot.state !== 'done' && lot.entry !== '');
    if (open.length === 0)
      throw new NettingError('invalid', 'None of these lots can be priced', {
        fix: 'Lots whose price is kept, that are in stock, or that no catalogue knows are left as they are',
      });
    const entries = [...new Set(open.map((lot) => lot.entry))];
    const input: PricingTask = {
      kit: id,
      lots: open.map((lot) => lot.id),
      entries,
      how,
      since: anew ? new Date().toISOString() : null,
      kept: meant.filter((lot) => lot.isKept && lot.state !== 'done').length,
    };
    const title = `Prices of ${row.name}`;
    const task = await startTask(tx, actor, { kind: 'pricing', title, input, total: entries.length });
    await tx.update(kit).set({ pricing: how, taskId: task.id }).where(eq(kit.id, id));
    return { taskId: task.id, lots: open.length, kept: meant.length - open.length };
  });
}
