import { and, eq, like, sql } from 'drizzle-orm';
import { NettingError } from '../../../core/errors';
import { readSkuPattern, type SkuFacts, seqOf, skuFrame, skuIn, skuPattern } from '../../../core/item';
import type { Executor } from '../../../db/client';
import { setting, usedSku } from '../../../db/schema';
import { skuParts } from '../../records/accounts/read-settings';

/** One at a time: where no number of a pattern was given yet there is no row that could be held. */
async function holdNumbers(db: Executor): Promise<void> {
  const name = 'numbering';
  const hold = async () =>
    (await db.select({ name: setting.name }).from(setting).where(eq(setting.name, name)).for('update')).length > 0;
  // Held at once where it is there: an insert that finds it shares it first, and two that share it wait for each other.
  if (await hold()) return;
  await db.insert(setting).ignore().values({ name, value: true, byName: 'Netting', at: new Date() });
  await hold();
}

/** The next free stock number for something of which this is known. */
export type Numbering = (facts: SkuFacts) => Promise<string>;

/**
 * Gives stock numbers in one transaction, which holds them from now on: two never get the same, and whoever asked for
 * them sees everything that was numbered before.
 * @param pattern of whoever numbers by one of their own; the shop's when left out or when it is none
 */
export async function numbering(db: Executor, pattern = ''): Promise<Numbering> {
  await holdNumbers(db);
  const own = pattern ? readSkuPattern(pattern) : null;
  const parts = own && 'parts' in own ? own.parts : await skuParts(db);
  const given = new Map<string, number>();
  return async (facts) => {
    const frame = skuFrame(parts, facts);
    const key = JSON.stringify([frame.before, frame.after]);
    const seq = (given.get(key) ?? (await highestOf(db, frame))) + 1;
    given.set(key, seq);
    const sku = skuIn(frame, seq);
    if (!skuPattern.test(sku))
      throw new NettingError('invalid', `The pattern would give “${sku}”, which is no stock number`, {
        field: 'sku',
        fix: 'Change the pattern in the settings',
      });
    return sku;
  };
}

async function highestOf(db: Executor, frame: ReturnType<typeof skuFrame>): Promise<number> {
  const before = frame.before.replace(/^[.\-/]+/, '');
  const rows = await db
    .select({ sku: usedSku.sku })
    .from(usedSku)
    .where(and(like(usedSku.sku, `${before}%`), like(usedSku.sku, `%${frame.after}`)))
    .orderBy(sql`length(sku) desc, sku desc`)
    .limit(before === '' ? 5_000 : 50)
    .for('update');
  return Math.max(0, ...rows.map((row) => seqOf(frame, row.sku) ?? 0));
}
