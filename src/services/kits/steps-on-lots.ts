import { z } from 'zod';
import { stepSchema } from '../../core/edit';
import { stepsOnLot } from '../../core/kit';
import { transaction } from '../../db/client';
import { type ChangedLots, changeLotsWithin } from './change-lots';
import { lotsOf } from './find-kit';
import { loadKit, refuseClosed } from './load-kit';

export const lotStepsSchema = z
  .object({
    /** Each as it was seen. */
    lots: z
      .array(z.object({ id: z.number().int().positive(), baseVersion: z.number().int() }).strict())
      .min(1)
      .max(20_000),
    steps: z.array(stepSchema).min(1).max(20),
  })
  .strict();

/** Carries steps of a change out on lots, as the workbench does on items; each lot whole or not at all. */
export async function stepsOnLots(id: number, { lots, steps }: z.output<typeof lotStepsSchema>): Promise<ChangedLots> {
  return transaction(async (tx) => {
    refuseClosed(await loadKit(tx, id, true));
    const there = new Map((await lotsOf(tx, id)).map((lot) => [lot.id, lot]));
    const refused: ChangedLots['refused'] = [];
    const changes = lots.flatMap(({ id: lotId, baseVersion }) => {
      const lot = there.get(lotId);
      const result = lot ? stepsOnLot(steps, lot) : { refused: 'There is no such lot here' };
      if ('refused' in result) {
        refused.push({ id: lotId, why: result.refused });
        return [];
      }
      const isPriced = result.set.price !== undefined;
      if (isPriced && lot?.isKept && lot.state !== 'done') {
        refused.push({ id: lotId, why: 'Its price is kept' });
        return [];
      }
      const set = isPriced && lot?.state !== 'done' ? { ...result.set, isKept: false } : result.set;
      return Object.keys(set).length ? [{ id: lotId, baseVersion, set }] : [];
    });
    const done = await changeLotsWithin(tx, there, changes);
    return { changed: done.changed, refused: [...refused, ...done.refused] };
  });
}
