import { desc, eq } from 'drizzle-orm';
import { database } from '../../db/client';
import { account, categoryMap, learned } from '../../db/schema';
import { loadAccounts } from '../records/load-accounts';

export type KnownThing = {
  id: string;
  market: string;
  kind: 'category' | 'attribute' | 'value' | 'product';
  said: string;
  /** What it stands for there, in words. */
  theirs: string;
  place: string;
  byName: string;
  at: string;
};

/** What has been learned of a marketplace: categories, names of properties, their values, products of its catalogue. */
export async function findKnowledge(market: string, limit = 500): Promise<{ known: KnownThing[] }> {
  const db = database();
  const [accounts, categories, rows] = await Promise.all([
    db.select({ id: account.id }).from(account).where(eq(account.market, market)).limit(1),
    db.select().from(categoryMap).where(eq(categoryMap.market, market)).orderBy(categoryMap.ownCategory),
    db
      .select()
      .from(learned)
      .where(eq(learned.market, market))
      .orderBy(desc(learned.at), desc(learned.id))
      .limit(limit),
  ]);
  const [shop] = await loadAccounts(
    db,
    accounts.map((one) => one.id),
  );
  const attributeName = (place: string) =>
    shop?.compiled.rules.categories.flatMap((one) => one.attributes).find((one) => one.id === place)?.label ?? place;
  return {
    known: [
      ...categories.map(
        (row): KnownThing => ({
          id: `category/${row.ownCategory}`,
          market,
          kind: 'category',
          said: row.ownCategory,
          theirs:
            shop?.compiled.categoryById.get(row.categoryId)?.path.join(' › ') ?? `${row.categoryId}, which is gone`,
          place: '',
          byName: row.byName,
          at: row.at.toISOString(),
        }),
      ),
      ...rows.map(
        (row): KnownThing => ({
          id: `learned/${row.id}`,
          market,
          kind: row.kind,
          said: row.said.replace(/^(code|name):/, ''),
          theirs: row.kind === 'attribute' ? attributeName(row.place) : (row.detail?.name ?? row.theirs),
          place: row.kind === 'value' ? attributeName(row.place) : '',
          byName: row.byName,
          at: row.at.toISOString(),
        }),
      ),
    ],
  };
}
