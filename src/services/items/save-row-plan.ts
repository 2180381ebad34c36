import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { type RowPlans, rowPlanSchema } from '../../core/item';
import { transaction } from '../../db/client';
import { setting } from '../../db/schema';
import type { Actor } from '../access/actor';
import { readSettings } from '../records/accounts/read-settings';

export const saveRowPlanSchema = z
  .object({
    category: z.string().max(200),
    plan: rowPlanSchema.nullable().describe('Null: as for the category above it'),
  })
  .strict();

const name = 'sheetRows';

/** Keeps which rows the sheet shows for a category; what others keep for other categories at the same time stays. */
export async function saveRowPlan(actor: Actor, { category, plan }: z.infer<typeof saveRowPlanSchema>): Promise<void> {
  await transaction(async (tx) => {
    await tx
      .insert(setting)
      .values({ name, value: {}, byName: actor.name, at: new Date() })
      .onDuplicateKeyUpdate({ set: { name } });
    await tx.select({ name: setting.name }).from(setting).where(eq(setting.name, name)).for('update');
    const plans: RowPlans = { ...(await readSettings(tx)).sheetRows };
    if (plan) plans[category] = plan;
    else delete plans[category];
    await tx.update(setting).set({ value: plans, byName: actor.name, at: new Date() }).where(eq(setting.name, name));
  });
}
