import { eq } from 'drizzle-orm';
import { priceByRule } from '../../core/batch';
import { statisticsOf } from '../../core/price';
import { database, transaction } from '../../db/client';
import { type BatchLineRow, batchLine, type LineFound, type LineSales } from '../../db/schema';
import type { Actor } from '../access/actor';
import { type Asked, askCatalogues, joinEntries, type LookedUp } from '../accounts/mapping/ask-catalogues';
import { keepProducts } from '../accounts/mapping/keep-products';
import { queryFor } from '../accounts/mapping/look-up-product';
import { commitItems } from '../changes/commit/commit-items';
import { type LoadedAccount, loadAccounts } from '../records/accounts/load-accounts';
import { today } from '../records/accounts/today';
import { loadItems } from '../records/items/load-items';
import { salesOfThing } from '../records/items/sales-of-thing';
import { fillFrom } from './fill-from';
import { loadBatch } from './load-batch';

/** What has not answered by then follows later. */
const promptMs = 700;
const defaultDays = 180;

const later = (ms: number) => new Promise<'late'>((resolve) => setTimeout(() => resolve('late'), ms));

type Answers = { entries: LookedUp[]; silent: string[]; isWhole: boolean };

/** What has been answered within so long, and whether that is everything. */
async function answersWithin(asked: readonly Asked[], ms: number): Promise<Answers> {
  const got = new Map<number, Awaited<Asked['answer']>>();
  const all = Promise.all(asked.map(async ({ answer }, index) => got.set(index, await answer)));
  const isWhole = (await Promise.race([all, later(ms)])) !== 'late';
  const answers = [...got.entries()].sort(([a], [b]) => a - b);
  return {
    entries: answers.flatMap(([, one]) => ('entries' in one ? one.entries : [])),
    silent: answers.flatMap(([index, one]) => ('why' in one ? [`${asked[index]?.name ?? ''}: ${one.why}`] : [])),
    isWhole,
  };
}

/**
 * Asks the catalogues for a line's piece, side by side, and takes over what the item does not say yet. What has answered
 * soon is there at once, the rest follows. Then what such things sold for, where the price or a limit hangs on it.
 */
export async function lookUpLine(id: number): Promise<void> {
  const [line] = await database().select().from(batchLine).where(eq(batchLine.id, id));
  if (!line || line.isUndone) return;
  const accounts = await loadAccounts(database());
  const actor: Actor = { id: 'intake', name: line.byName };
  if (line.finding === 'looking') {
    const asked = askCatalogues(accounts, queryFor(line.code || line.scanned));
    const soon = await answersWithin(asked, promptMs);
    await keepFound(actor, line, soon);
    if (!soon.isWhole) await keepFound(actor, line, { ...(await answersWithin(asked, 30_000)), isWhole: true });
  }
  await keepSales(actor, line, accounts);
  await database().update(batchLine).set({ lookAt: null, doneAt: new Date() }).where(eq(batchLine.id, id));
}

const shortOf = ({ market, from, id, name, brand, model, barcode, category, records }: LookedUp): LineFound => ({
  market,
  from,
  id,
  name,
  brand,
  model,
  barcode,
  category,
  records,
});

/** One entry is it; of several a person says which. Nothing found so far says nothing before everybody has answered. */
async function keepFound(actor: Actor, line: BatchLineRow, { entries, silent, isWhole }: Answers): Promise<void> {
  const found = joinEntries(entries).map(shortOf);
  if (found.length === 0 && !isWhole) return;
  const [only, ...others] = found;
  const isSure = only !== undefined && others.length === 0;
  const finding = isSure ? ('found' as const) : only ? ('unsure' as const) : ('unknown' as const);
  let keys: string[] = [];
  await transaction(async (tx) => {
    const { runId } = await loadBatch(tx, line.batchId);
    if (isSure) keys = await fillFrom(tx, actor, runId, line, only);
    await tx.update(batchLine).set({ found, silent, finding }).where(eq(batchLine.id, line.id));
  });
  const [key] = keys;
  if (!isSure || !key) return;
  for (const { accountId: _account, ...record } of only.records) {
    const market = entries.find((one) => one.records.some((other) => other.id === record.id))?.market;
    if (market) await keepProducts(actor, market, [{ key, ...record }]);
  }
}

/** The median of what such things sold for, and the price that is made of it. */
async function keepSales(actor: Actor, line: BatchLineRow, accounts: readonly LoadedAccount[]): Promise<void> {
  const { itemId, settings } = line;
  const { price: rule } = settings;
  if (itemId === null || (rule.by !== 'sales' && settings.mostDays === null)) return;
  const [item] = await loadItems(database(), [itemId]);
  if (!item) return;
  const known = await loadAccounts(
    database(),
    accounts.map((one) => one.id),
  );
  const { sales, silent } = await salesOfThing(known, item, false);
  const figures = statisticsOf(sales, today(), rule.by === 'sales' ? rule.days : defaultDays);
  const kept: LineSales | null = figures && {
    count: figures.count,
    median: figures.median,
    low: figures.low,
    high: figures.high,
    daysOnSale: figures.daysOnSale,
  };
  const price = priceByRule(rule, { cost: item.cost, median: kept?.median ?? null });
  await transaction(async (tx) => {
    const { runId } = await loadBatch(tx, line.batchId);
    if (price !== null && rule.by === 'sales')
      await commitItems(
        tx,
        [itemId],
        // Only where no price stands yet: one that was typed meanwhile is meant so.
        ({ items: [now] }) => (now?.price === null ? [{ target: { item: itemId }, field: 'price', to: price }] : []),
        { actor, why: 'scan', at: new Date(), runId, send: 'falls' },
      );
    await tx
      .update(batchLine)
      .set({ sales: kept, ...(kept ? {} : { silent: silent.slice(0, 10) }) })
      .where(eq(batchLine.id, line.id));
  });
}
