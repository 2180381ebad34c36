import { asc } from 'drizzle-orm';
import type { CustomField } from '../../../core/item';
import { database, type Executor } from '../../../db/client';
import { customField } from '../../../db/schema';

const withoutId = ({ id: _id, ...field }: typeof customField.$inferSelect): CustomField => field;

export async function loadCustomFields(db: Executor = database()): Promise<CustomField[]> {
  return (await db.select().from(customField).orderBy(asc(customField.id))).map(withoutId);
}
