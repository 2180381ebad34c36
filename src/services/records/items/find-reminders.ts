import { and, asc, eq, isNotNull, lte } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../../db/client';
import { item } from '../../../db/schema';
import { today } from '../accounts/today';

export const reminderSchema = z.object({
  itemId: z.number(),
  version: z.number(),
  sku: z.string(),
  title: z.string(),
  photo: z.string().nullable(),
  on: z.string(),
  of: z.string(),
});
const most = 200;

/** Items that somebody wanted to be reminded of by today, the longest due first. */
export async function findReminders(): Promise<z.infer<typeof reminderSchema>[]> {
  const rows = await database()
    .select({
      itemId: item.id,
      version: item.version,
      sku: item.sku,
      title: item.title,
      photo: item.mainPhoto,
      on: item.remindOn,
      of: item.remindOf,
    })
    .from(item)
    .where(and(isNotNull(item.remindOn), lte(item.remindOn, today()), eq(item.standing, 'active')))
    .orderBy(asc(item.remindOn), asc(item.id))
    .limit(most);
  return rows.flatMap(({ on, ...row }) => (on ? [{ ...row, on }] : []));
}
