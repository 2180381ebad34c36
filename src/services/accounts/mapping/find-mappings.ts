import { desc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../../db/client';
import { account, categoryMap, mapping } from '../../../db/schema';
import { loadAccounts } from '../../records/accounts/load-accounts';

export const mappingSchema = z.object({
  id: z.string(),
  market: z.string(),
  kind: z.enum(['category', 'attribute', 'value', 'product']),
  source: z.string(),
  /** What it stands for there, in words. */
  target: z.string(),
  attribute: z.string(),
  byName: z.string(),
  at: z.string(),
});
export type Mapping = z.infer<typeof mappingSchema>;

/** What has been learned of a marketplace: categories, names of properties, their values, products of its catalogue. */
export async function findMappings(market: string, limit = 500): Promise<{ known: Mapping[] }> {
  const db = database();
  const [accounts, categories, rows] = await Promise.all([
    db.select({ id: account.id }).from(account).where(eq(account.market, market)).limit(1),
    db.select().from(categoryMap).where(eq(categoryMap.market, market)).orderBy(categoryMap.ownCategory),
    db
      .select()
      .from(mapping)
      .where(eq(mapping.market, market))
      .orderBy(desc(mapping.at), desc(mapping.id))
      .limit(limit),
  ]);
  const [shop] = await loadAccounts(
    db,
    accounts.map((one) => one.id),
  );
  const attributeName = (attribute: string) =>
    shop?.compiled.rules.categories.flatMap((one) => one.attributes).find((one) => one.id === attribute)?.label ??
    attribute;
  return {
    known: [
      ...categories.map(
        (row): Mapping => ({
          id: `category/${row.ownCategory}`,
          market,
          kind: 'category',
          source: row.ownCategory,
          target:
            shop?.compiled.categoryById.get(row.categoryId)?.path.join(' › ') ?? `${row.categoryId}, which is gone`,
          attribute: '',
          byName: row.byName,
          at: row.at.toISOString(),
        }),
      ),
      ...rows.map(
        (row): Mapping => ({
          id: `mapping/${row.id}`,
          market,
          kind: row.kind,
          source: row.source.replace(/^(code|name):/, ''),
          target: row.kind === 'attribute' ? attributeName(row.attribute) : (row.detail?.name ?? row.target),
          attribute: row.kind === 'value' ? attributeName(row.attribute) : '',
          byName: row.byName,
          at: row.at.toISOString(),
        }),
      ),
    ],
  };
}
