import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { applySteps } from '../../core/edit';
import { NettingError } from '../../core/errors';
import { ownTransaction, streamRows } from '../../db/raw';
import { run } from '../../db/schema';
import type { Actor } from '../access/actor';
import { selectionWhere } from '../records/selection';
import { carryOutStaged, type Planned, stageChanges } from './carry-out-staged';
import { editSchema } from './edit-schema';

export const applyEditSchema = editSchema.extend({
  send: z.boolean().describe('Also send the changes to the marketplaces'),
  title: z.string().max(200).default('Change of price and stock'),
});

export const appliedEditSchema = z.object({
  runId: z.number(),
  items: z.number(),
  listings: z.number(),
  refused: z.number(),
});
export type AppliedEdit = z.infer<typeof appliedEditSchema>;

/** Applies a series of steps to all chosen items in one transaction, with history, undo data and, if wanted, jobs. */
export async function applyEdit(actor: Actor, input: z.infer<typeof applyEditSchema>): Promise<AppliedEdit> {
  return ownTransaction(async (db, connection) => {
    const planned: Planned[] = [];
    const variedIds: number[] = [];
    let refused = 0;
    const rows = streamRows<[number, number | null, number, number]>(
      connection,
      sql`select i.id, i.price, i.quantity, i.axes <> '[]' from item i where ${selectionWhere(input.selection)} order by i.id for update`,
    );
    for await (const chunk of rows) {
      for (const [id, price, quantity, varied] of chunk) {
        const result = applySteps(input.steps, { price, quantity, varied: varied === 1 });
        if (result.refused.length) refused++;
        if (result.changed.length) {
          planned.push({ id, price, newPrice: result.price, quantity, newQuantity: result.quantity });
          if (varied === 1) variedIds.push(id);
        }
      }
    }
    if (planned.length === 0)
      throw new NettingError(
        'invalid',
        refused ? 'None of these items can be changed this way' : 'Nothing would change',
        { field: 'steps' },
      );
    const [{ insertId: runId }] = await db.insert(run).values({
      kind: 'edit',
      title: input.title,
      detail: { steps: input.steps, send: input.send },
      itemCount: planned.length,
      byName: actor.name,
    });
    await stageChanges(connection, planned);
    const listings = await carryOutStaged(db, {
      connection,
      actor,
      runId,
      why: 'bulk',
      send: input.send,
      prices: planned.some((one) => one.price !== one.newPrice),
      quantities: planned.some((one) => one.quantity !== one.newQuantity),
      varied: variedIds,
    });
    return { runId, items: planned.length, listings, refused };
  });
}
