import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import { spellingsOf } from '../../core/barcode';
import { type ConditionGrade, skuPattern } from '../../core/item';
import type { Executor } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { item, usedSku } from '../../db/schema';

/** An item of ours that a scan names. */
export type KnownPiece = {
  itemId: number;
  /** Of an item with variations which of them. */
  combination: string | null;
  /** It is the same thing in another condition: it lends its words, and gets no units. */
  isOtherGrade: boolean;
};

/**
 * The item, or the combination, that has this stock number.
 * @returns null where it was never given; a sentence where it was, and nothing can be added to what has it
 */
export async function pieceOfNumber(db: Executor, sku: string): Promise<KnownPiece | string | null> {
  if (!skuPattern.test(sku)) return null;
  const [given] = await db.select({ sku: usedSku.sku }).from(usedSku).where(eq(usedSku.sku, sku));
  if (!given) return null;
  const [whole] = await db
    .select({ id: item.id, standing: item.standing, isVaried: item.isVaried })
    .from(item)
    .where(eq(item.sku, sku));
  if (whole?.standing === 'active' && !whole.isVaried)
    return { itemId: whole.id, combination: null, isOtherGrade: false };
  const combination = await combinationWith(db, 'sku', [sku]);
  if (combination) return combination;
  if (whole?.standing === 'active') return `${sku} has variations: scan the number of the one that it is`;
  return `${sku} was put away: bring it back to the inventory, then scan it again`;
}

/** Few items have combinations, and an index tells which. */
export async function combinationsWith(
  db: Executor,
  what: 'sku' | 'barcode',
  values: readonly string[],
): Promise<{ id: number; key: string; said: string }[]> {
  return rowsOf<{ id: number; key: string; said: string }>(
    await db.execute(sql`
      select i.id, v.k as \`key\`, v.said from item i,
        json_table(i.variations, '$[*]' columns (said varchar(60) path ${sql.raw(`'$.${what}'`)}, k varchar(16) path '$.key')) v
      where i.is_varied = 1 and i.archived = 0 and v.said in ${values} limit 200`),
  );
}

async function combinationWith(db: Executor, what: 'sku' | 'barcode', values: string[]): Promise<KnownPiece | null> {
  const [row] = await combinationsWith(db, what, values);
  return row ? { itemId: row.id, combination: row.key, isOtherGrade: false } : null;
}

/**
 * The item that has this barcode, however it is written: the one of the same condition first, the newest of several.
 * @param grade the condition that the piece is recorded with; null where that is not said, then any will do
 */
export async function pieceOfCode(
  db: Executor,
  code: string,
  grade: ConditionGrade | null,
): Promise<KnownPiece | null> {
  const spellings = spellingsOf(code);
  const rows = await db
    .select({ id: item.id, condition: item.condition })
    .from(item)
    .where(and(inArray(item.barcode, spellings), eq(item.standing, 'active'), eq(item.isVaried, false)))
    .orderBy(desc(item.id))
    .limit(50);
  const same = grade === null ? rows[0] : rows.find((row) => row.condition === grade);
  if (same) return { itemId: same.id, combination: null, isOtherGrade: false };
  const [other] = rows;
  if (other) return { itemId: other.id, combination: null, isOtherGrade: true };
  return combinationWith(db, 'barcode', spellings);
}
