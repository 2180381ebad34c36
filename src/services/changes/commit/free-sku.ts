import { and, eq, like, sql } from 'drizzle-orm';
import { NettingError } from '../../../core/errors';
import { readSkuPattern, type SkuFacts, seqOf, skuFrame, skuIn, skuPattern } from '../../../core/item';
import type { Executor } from '../../../db/client';
import { setting, usedSku } from '../../../db/schema';
import { skuParts } from '../../records/accounts/read-settings';

/** One at a time: where no number of a pattern was given yet there is no row that could be held. */
async function holdNumbers(db: Executor): Promise<void> {
  const name = 'numbering';
  await db.insert(setting).ignore().values({ name, value: true, byName: 'Netting', at: new Date() });
  await db.select({ name: setting.name }).from(setting).where(eq(setting.name, name)).for('update');
}

/**
 * The next free stock number. Held by the transaction, so that two never get the same.
 * @param pattern of whoever numbers by one of their own; the shop's when left out or when it is none
 */
export async function freeSku(db: Executor, facts: SkuFacts, pattern = ''): Promise<string> {
  await holdNumbers(db);
  const own = pattern ? readSkuPattern(pattern) : null;
  const frame = skuFrame(own && 'parts' in own ? own.parts : await skuParts(db), facts);
  const before = frame.before.replace(/^[.\-/]+/, '');
  const rows = await db
    .select({ sku: usedSku.sku })
    .from(usedSku)
    .where(and(like(usedSku.sku, `${before}%`), like(usedSku.sku, `%${frame.after}`)))
    .orderBy(sql`length(sku) desc, sku desc`)
    .limit(before === '' ? 5_000 : 50)
    .for('update');
  const highest = Math.max(0, ...rows.map((row) => seqOf(frame, row.sku) ?? 0));
  const sku = skuIn(frame, highest + 1);
  if (!skuPattern.test(sku))
    throw new NettingError('invalid', `The pattern would give “${sku}”, which is no stock number`, {
      field: 'sku',
      fix: 'Change the pattern in the settings',
    });
  return sku;
}
