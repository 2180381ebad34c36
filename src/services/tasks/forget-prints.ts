import { inArray, lt } from 'drizzle-orm';
import { database } from '../../db/client';
import { printable } from '../../db/schema';
import { removePrint } from '../../photos/print-store';

const keptDays = 30;
const portion = 200;

/** Printables of a month ago go; whoever needs one has it made anew, the same to the byte. */
export async function forgetPrints(now: Date, isEnding: () => boolean): Promise<void> {
  const db = database();
  const before = new Date(now.getTime() - keptDays * 86_400_000);
  while (!isEnding()) {
    const old = await db.select({ key: printable.key }).from(printable).where(lt(printable.at, before)).limit(portion);
    if (old.length === 0) return;
    const keys = old.map((one) => one.key);
    for (const key of keys) await removePrint(key);
    await db.delete(printable).where(inArray(printable.key, keys));
  }
}
