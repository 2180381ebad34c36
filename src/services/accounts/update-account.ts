import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { filterSchema } from '../../core/filter';
import { storable } from '../../core/item';
import { type Json, sameJson } from '../../core/json';
import { packagingAllowanceSchema } from '../../core/measure/parcel';
import { pricingSchema, samePricing } from '../../core/price';
import { database, transaction } from '../../db/client';
import { account } from '../../db/schema';
import type { Actor } from '../access/actor';
import { countItems } from '../records/items/count-items';
import { recheckListings } from '../records/listings/recheck-listings';
import { holderHere, startTask } from '../records/tasks/start-task';
import { workOnTask } from '../records/tasks/work-on-task';
import { targetStep } from './target-step';

const json: z.ZodType<Json> = z.json();

export const updateAccountSchema = z
  .object({
    name: z.string().trim().min(1, 'A name is needed').max(80),
    footer: z.string().max(500),
    houseTag: z.string().trim().max(60),
    language: z
      .string()
      .trim()
      .max(20)
      .describe('The language of its texts; empty for that in which items are written'),
    pricing: pricingSchema,
    packaging: packagingAllowanceSchema.nullable().describe('What packing adds to the weight; null for the shop’s own'),
    maps: z
      .record(z.string().max(60), z.record(z.string().max(60), z.string().min(1).max(60)))
      .describe('What it calls things otherwise than the rules foresee: field → ours → theirs'),
    autoDraft: z.boolean(),
    belongs: filterSchema.nullable().describe('Which items are meant for it; null for all'),
    defaults: z.record(z.string().max(60), json),
  })
  .partial()
  .extend({
    seen: z
      .record(z.string().max(60), json)
      .optional()
      .describe('What was there when this was written; where it is another now, nothing is kept and that is said'),
  })
  .strict();

/** Changes an account's name, footer and defaults; listings are computed anew with them. */
export async function updateAccount(
  actor: Actor,
  id: number,
  { seen = {}, ...written }: z.infer<typeof updateAccountSchema>,
): Promise<void> {
  const input = storable(written);
  await transaction(async (tx) => {
    const [row] = await tx.select().from(account).where(eq(account.id, id)).for('update');
    if (!row) throw new NettingError('not-found', 'There is no such account');
    const now: Record<string, unknown> = { ...row, pricing: row.pricing ?? samePricing, maps: row.maps ?? {} };
    const other = Object.keys(seen).find((field) => Object.hasOwn(now, field) && !sameJson(now[field], seen[field]));
    if (other !== undefined)
      throw new NettingError('conflict', 'Somebody else changed this meanwhile', {
        fix: 'Load the page anew to see it; saved once more, yours takes its place',
      });
    const defaults = { ...row.defaults, ...input.defaults };
    for (const key of Object.keys(defaults)) if (defaults[key] === null || defaults[key] === '') delete defaults[key];
    await tx
      .update(account)
      .set({ ...input, defaults })
      .where(eq(account.id, id));
  });
  if (input.belongs) await targetItems(actor, id);
  if (Object.keys(input).some((field) => !['name', 'autoDraft', 'belongs', 'language'].includes(field)))
    await recheckListings(id);
}

/** Items that are there already follow the filter, too: a few at once, many in the background. */
async function targetItems(actor: Actor, id: number): Promise<void> {
  const holder = holderHere();
  const total = await countItems({});
  const title = 'Which items belong to an account';
  const begun = await startTask(database(), actor, { kind: 'target', title, input: { account: id }, total, holder });
  await workOnTask(begun, holder, targetStep);
}
