import { and, asc, eq, gt, inArray, or } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { fieldValue } from '../../core/field';
import { type Item, type ItemPatch, isPatchable, itemPatchSchema } from '../../core/item/item';
import { type Json, sameJson } from '../../core/json';
import { type Executor, transaction } from '../../db/client';
import { changeRecord } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from './commit/commit-items';
import { allCommitted } from './commit/refusal-error';

export const updateItemSchema = z
  .object({
    /** The version that the change was made on. */
    baseVersion: z.number().int().positive(),
    patch: itemPatchSchema,
  })
  .strict();

/**
 * What somebody else changed since the base version in the very fields that are to be changed now. Changes to other
 * fields do not clash and both stay. Units that were sold off a combination clash with a table of before.
 */
async function clashes(db: Executor, id: number, baseVersion: number, fields: string[]) {
  const unitsToo = fields.includes('variations') ? eq(changeRecord.field, 'quantity') : undefined;
  const since = await db
    .select()
    .from(changeRecord)
    .where(
      and(
        eq(changeRecord.itemId, id),
        gt(changeRecord.itemVersion, baseVersion),
        or(inArray(changeRecord.field, fields), unitsToo),
      ),
    )
    .orderBy(asc(changeRecord.id));
  return since.filter((one) => one.listingId === null);
}

async function refuseClash(db: Executor, before: Item, baseVersion: number, fields: string[]): Promise<void> {
  if (before.version === baseVersion || fields.length === 0) return;
  const clashing = await clashes(db, before.id, baseVersion, fields);
  if (clashing.length === 0) return;
  const named = new Set(
    clashing.map((one) => (one.combination || one.field === 'quantity' ? 'variations' : one.field)),
  );
  throw new NettingError('conflict', `${clashing.at(-1)?.byName ?? 'Somebody'} changed the same field meanwhile`, {
    details: [...named].map((field) => ({ field, message: JSON.stringify(fieldValue(before, field)) })),
    fix: 'Compare both and choose',
  });
}

/** Changes fields of an item; what it makes of its listings is computed in the same transaction. */
export async function updateItem(
  actor: Actor,
  id: number,
  { baseVersion, patch }: { baseVersion: number; patch: ItemPatch },
  within?: Executor,
): Promise<{ version: number }> {
  const work = async (db: Executor) => {
    const { items } = allCommitted(
      await commitItems(
        db,
        [id],
        async ({ items: [before] }) => {
          if (!before) throw new NettingError('not-found', `There is no item ${id}`);
          const fields = Object.keys(patch).filter(
            (field) => isPatchable(field) && !sameJson(before[field], patch[field]),
          );
          await refuseClash(db, before, baseVersion, fields);
          return fields.map((field) => ({ target: { item: id }, field, to: patch[field as keyof ItemPatch] as Json })); // parsed with the item's own schema
        },
        { actor, why: 'typing', at: new Date(), send: 'stock' },
      ),
    );
    return { version: items[0]?.version ?? baseVersion };
  };
  return within ? work(within) : transaction(work);
}
