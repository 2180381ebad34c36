import { inArray } from 'drizzle-orm';
import type { Item } from '../../../core/item';
import { type Executor, isDuplicate } from '../../../db/client';
import { usedSku } from '../../../db/schema';

const numbersOf = (item: Item): string[] => [item.sku, ...item.variations.map((row) => row.sku)].filter(Boolean);

/** Stock numbers that an item has now and had not before. */
export function newNumbers(before: Item, after: Item): string[] {
  const had = new Set(numbersOf(before));
  return [...new Set(numbersOf(after))].filter((sku) => !had.has(sku));
}

/** Takes stock numbers for ever; returns one that was given before, and takes none then. */
export async function takeSkus(db: Executor, skus: readonly string[], at: Date): Promise<string | null> {
  if (skus.length === 0) return null;
  const [given] = await db
    .select()
    .from(usedSku)
    .where(inArray(usedSku.sku, [...skus]))
    .limit(1)
    .for('update');
  if (given) return given.sku;
  try {
    await db.insert(usedSku).values(skus.map((sku) => ({ sku, at })));
    return null;
  } catch (error) {
    // Somebody else took one of them a moment ago.
    if (isDuplicate(error)) return skus[0] ?? null;
    throw error;
  }
}
