import { asc } from 'drizzle-orm';
import type { OwnField } from '../../core/item';
import { database, type Executor } from '../../db/client';
import { ownField } from '../../db/schema';

const withoutId = ({ id: _id, ...field }: typeof ownField.$inferSelect): OwnField => field;

export async function loadOwnFields(db: Executor = database()): Promise<OwnField[]> {
  return (await db.select().from(ownField).orderBy(asc(ownField.id))).map(withoutId);
}
