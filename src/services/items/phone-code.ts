import { createHash } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { database } from '../../db/client';
import { item, phoneCode } from '../../db/schema';

export const hashOf = (code: string) => createHash('sha256').update(code).digest('hex');

/** The item that a code opens; null when there is no such code or its time is over. */
export async function itemOfCode(code: string): Promise<{ itemId: number; title: string; byName: string } | null> {
  if (!/^[a-z2-9]{10}$/.test(code)) return null;
  const [row] = await database()
    .select({ itemId: phoneCode.itemId, byName: phoneCode.byName, until: phoneCode.until, title: item.title })
    .from(phoneCode)
    .innerJoin(item, eq(item.id, phoneCode.itemId))
    .where(eq(phoneCode.hash, hashOf(code)));
  if (!row?.until || row.until < new Date()) return null;
  return { itemId: row.itemId, title: row.title, byName: row.byName };
}
