import { eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { type Tx, transaction } from '../../db/client';
import { account, foundListing, gathering, gatheringModes } from '../../db/schema';
import type { Actor } from '../access/actor';
import { startTask } from '../records/tasks/start-task';
import { choiceWhere, foundChoiceSchema } from './found-filter';
import type { GatherTask } from './gather-step';

export const beginGatheringSchema = z
  .object({
    choices: z.array(foundChoiceSchema).min(1).max(20),
    mode: z.enum(gatheringModes).describe('All at once, or one by one in a sitting'),
    prefer: z
      .record(z.string().max(80), z.string().max(80))
      .default({})
      .describe('Field → the account whose value is taken wherever it says something; the richest where left out'),
  })
  .strict();
export const begunGatheringSchema = z.object({ id: z.number(), chosen: z.number() });

/**
 * Begins the work on a bringing in, in the caller's transaction.
 * @param total what there is to do: the photos of each listing, and each listing
 */
export async function startGathering(tx: Tx, actor: Actor, id: number, title: string, total: number): Promise<void> {
  const input: GatherTask = { gatheringId: id };
  const started = await startTask(tx, actor, { kind: 'gather', title, input, total });
  await tx.update(gathering).set({ state: 'working', taskId: started.id }).where(eq(gathering.id, id));
}

/** Brings chosen listings in, in the background. Nothing is sent by it. */
export async function beginGathering(
  actor: Actor,
  { choices, mode, prefer }: z.infer<typeof beginGatheringSchema>,
): Promise<z.infer<typeof begunGatheringSchema>> {
  return transaction(async (tx) => {
    const chosen = new Map<number, number>();
    for (const choice of choices) {
      const rows = await tx
        .select({ id: foundListing.id, accountId: foundListing.accountId })
        .from(foundListing)
        .where(choiceWhere(choice))
        .for('update');
      for (const row of rows) chosen.set(row.id, row.accountId);
    }
    if (chosen.size === 0)
      throw new NettingError('invalid', 'Everything of these is in already, or on its way', { field: 'choices' });
    const accounts = await tx
      .select({ name: account.name })
      .from(account)
      .where(inArray(account.id, [...new Set(chosen.values())]));
    const title = `${chosen.size.toLocaleString('en')} from ${accounts.map((one) => one.name).join(', ')}`.slice(
      0,
      200,
    );
    const [{ insertId: id }] = await tx.insert(gathering).values({
      title,
      mode,
      prefer,
      state: 'working',
      chosen: chosen.size,
      byName: actor.name,
      at: new Date(),
    });
    const ids = [...chosen.keys()];
    for (let at = 0; at < ids.length; at += 1_000)
      await tx
        .update(foundListing)
        .set({ gatheringId: id, thing: null, joinItem: null, said: null, itemId: sql`null` })
        .where(inArray(foundListing.id, ids.slice(at, at + 1_000)));
    await startGathering(tx, actor, id, `Bringing in ${title}`, 2 * chosen.size);
    return { id, chosen: chosen.size };
  });
}
