import { z } from 'zod';
import type { Item } from '../../../core/item';
import { issueSchema } from '../../../core/listing/fields';
import { database } from '../../../db/client';
import { type PlannedKnot, plannedAccountSchema, plannedKnotSchema, planPortions } from './plan-portions';
import type { Publish } from './publish-schema';

export const publishPlanSchema = z.object({
  /** How many items were chosen; the first of them are listed. */
  itemCount: z.number(),
  items: z.array(
    z.object({
      id: z.number(),
      sku: z.string(),
      title: z.string(),
      photo: z.string().nullable(),
    }),
  ),
  knots: z.array(plannedKnotSchema),
  accounts: z.array(plannedAccountSchema),
  causes: z.array(
    z.object({
      message: z.string(),
      accountId: z.number(),
      field: z.string(),
      count: z.number(),
      /** All of them, as far as one change may take them. */
      itemIds: z.array(z.number()),
      fix: issueSchema.shape.fix,
    }),
  ),
});
export type PublishPlan = z.infer<typeof publishPlanSchema>;

const shownItems = 300;
/** So many items of one cause can be taken to the workbench at once. */
const mostOfCause = 2_000;

/** What would happen per item and account, what it costs, how long it takes, what is not ready and why. Nothing is changed. */
export async function planPublish(input: Publish): Promise<PublishPlan> {
  const causes = new Map<string, PublishPlan['causes'][number]>();
  const shown: Item[] = [];
  const knots: PlannedKnot[] = [];
  const { itemCount, accounts } = await planPortions(database(), input, async (some, items) => {
    countCauses(causes, some);
    const room = shownItems - shown.length;
    if (room <= 0) return;
    const first = items.slice(0, room);
    const ids = new Set(first.map((one) => one.id));
    shown.push(...first);
    knots.push(...some.filter((knot) => ids.has(knot.itemId)));
  });
  return {
    itemCount,
    items: shown.map(({ id, sku, title, photos }) => ({ id, sku, title, photo: photos[0]?.hash ?? null })),
    knots,
    accounts,
    causes: [...causes.values()].sort((a, b) => b.count - a.count),
  };
}

function countCauses(causes: Map<string, PublishPlan['causes'][number]>, knots: PlannedKnot[]): void {
  for (const { accountId, itemId, issues } of knots) {
    for (const { message, field, fix, blocks } of issues) {
      if (!blocks) continue;
      const key = `${accountId}/${field}/${message}`;
      const cause = causes.get(key) ?? { message, accountId, field, fix, count: 0, itemIds: [] };
      cause.count++;
      if (cause.itemIds.length < mostOfCause) cause.itemIds.push(itemId);
      causes.set(key, cause);
    }
  }
}
