import { and, eq, isNull, sql } from 'drizzle-orm';
import { needsSales, priceByRule } from '../../core/batch';
import { productKeys } from '../../core/listing';
import { statisticsOf } from '../../core/price';
import { database, transaction } from '../../db/client';
import { type BatchLineRow, batchLine, type LineFound, type LineSales } from '../../db/schema';
import type { Actor } from '../access/actor';
import { type Asked, askCatalogues, joinEntries, type LookedUp } from '../accounts/mapping/ask-catalogues';
import { keepProducts } from '../accounts/mapping/keep-products';
import { keepProductsSoon } from '../accounts/mapping/keep-products-soon';
import { queryFor } from '../accounts/mapping/look-up-product';
import { commitItems } from '../changes/commit/commit-items';
import { printWaiting } from '../labels/print-waiting';
import { accountsAtHand } from '../records/accounts/accounts-at-hand';
import type { LoadedAccount } from '../records/accounts/load-accounts';
import { today } from '../records/accounts/today';
import { loadBatch } from '../records/batches/load-batch';
import { loadItems } from '../records/items/load-items';
import { salesOfThing } from '../records/items/sales-of-thing';
import { fillFrom } from './fill-from';
import { printLine } from './print-line';

/** What has not answered by then follows later. */
const promptMs = 700;
/** Who has not answered by then is not waited for any more. */
const patienceMs = 30_000;
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
 * @param urgent the piece is in somebody's hand
 */
export async function lookUpLine(id: number, urgent: boolean): Promise<void> {
  const [line] = await database().select().from(batchLine).where(eq(batchLine.id, id));
  if (!line || line.isUndone) return;
  const accounts = await accountsAtHand();
  const actor: Actor = { id: 'intake', name: line.byName };
  if (line.finding !== 'looking') {
    await keepLeft(actor, line, accounts);
    await keepSales(actor, line, accounts);
    return finish(line, true);
  }
  const asked = askCatalogues(accounts, queryFor(line.code || line.scanned), urgent);
  const soon = await answersWithin(asked, promptMs);
  const found = await keepFound(actor, line, soon);
  if (found) {
    const isPriced = needsSales(line.settings);
    // Who is late only adds the entry there: for the hand the piece is complete.
    if (!isPriced) await finish(line, false);
    await keepRecords(actor, found, accounts, isPriced ? keepProducts : keepProductsSoon);
    await keepSales(actor, line, await accountsAtHand());
    await finish(line, soon.isWhole);
  }
  if (soon.isWhole && found) return;
  const all = { ...(await answersWithin(asked, patienceMs)), isWhole: true };
  if (found)
    await keepRecords(actor, { ...found, only: sameProduct(found.only, all.entries) }, accounts, keepProductsSoon);
  else {
    const late = await keepFound(actor, line, all);
    if (late) await keepRecords(actor, late, accounts, keepProducts);
    await keepSales(actor, line, await accountsAtHand());
  }
  await finish(line, true);
}

/** The entry that was taken, with what others have told of the same product since. */
const sameProduct = (taken: LookedUp, entries: readonly LookedUp[]): LookedUp =>
  joinEntries(entries).find((one) =>
    one.records.some((record) =>
      taken.records.some((own) => own.accountId === record.accountId && own.id === record.id),
    ),
  ) ?? taken;

/** Everything is there that the hand waits for; `isWhole`: nobody has to be asked any more. */
async function finish(line: BatchLineRow, isWhole: boolean): Promise<void> {
  await transaction(async (tx) => {
    const [{ affectedRows }] = await tx
      .update(batchLine)
      .set({ doneAt: sql`utc_timestamp(3)` })
      .where(and(eq(batchLine.id, line.id), isNull(batchLine.doneAt), eq(batchLine.isUndone, false)));
    // The label says what it is: it is printed when that is known.
    if (affectedRows === 1) await printLine(tx, line);
    if (isWhole) await tx.update(batchLine).set({ lookAt: null }).where(eq(batchLine.id, line.id));
  });
  if (line.settings.label !== null) void printWaiting().catch(() => undefined);
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

/** The entry that it is, and what the item is found by in catalogues. */
type Found = { only: LookedUp; key: string | null };

/**
 * One entry is it; of several a person says which. Nothing found so far says nothing before everybody has answered.
 * @returns the entry, where it is known which one it is
 */
async function keepFound(
  actor: Actor,
  line: BatchLineRow,
  { entries, silent, isWhole }: Answers,
): Promise<Found | null> {
  const joined = joinEntries(entries);
  if (joined.length === 0 && !isWhole) return null;
  const [only, ...others] = joined;
  const isSure = only !== undefined && others.length === 0;
  const finding = isSure ? ('found' as const) : only ? ('unsure' as const) : ('unknown' as const);
  return transaction(async (tx) => {
    const [now] = await tx.select({ isUndone: batchLine.isUndone }).from(batchLine).where(eq(batchLine.id, line.id));
    // Taken back while it was looked up: nothing is taken over any more.
    if (now?.isUndone !== false) return null;
    const { runId } = await loadBatch(tx, line.batchId);
    const keys = isSure ? await fillFrom(tx, actor, runId, line, only) : [];
    await tx
      .update(batchLine)
      .set({ found: joined.map(shortOf), silent, finding })
      .where(eq(batchLine.id, line.id));
    return isSure ? { only, key: keys[0] ?? null } : null;
  });
}

/** The entry that was taken over, where a process ended before it was kept. */
async function keepLeft(actor: Actor, line: BatchLineRow, accounts: readonly LoadedAccount[]): Promise<void> {
  const [only, ...others] = line.found;
  if (line.finding !== 'found' || !only || others.length > 0 || line.itemId === null) return;
  const [item] = await loadItems(database(), [line.itemId]);
  const key = item ? (productKeys(item)[0] ?? null) : null;
  await keepRecords(actor, { only, key }, accounts, keepProducts);
}

/** The entry on each marketplace, where it was not known for such things before. */
async function keepRecords(
  actor: Actor,
  { only, key }: { only: Pick<LookedUp, 'records'>; key: string | null },
  accounts: readonly LoadedAccount[],
  keep: typeof keepProducts,
): Promise<void> {
  if (!key) return;
  await Promise.all(
    only.records.map(({ accountId, ...record }) => {
      const account = accounts.find((one) => one.id === accountId);
      return account && account.products[key]?.id !== record.id
        ? keep(actor, account.row.market, [{ key, ...record }])
        : null;
    }),
  );
}

/** The median of what such things sold for, and the price that is made of it. */
async function keepSales(actor: Actor, line: BatchLineRow, accounts: readonly LoadedAccount[]): Promise<void> {
  const { itemId, settings } = line;
  const { price: rule } = settings;
  if (itemId === null || !needsSales(settings)) return;
  const [item] = await loadItems(database(), [itemId]);
  if (!item) return;
  const { sales, silent } = await salesOfThing(accounts, item, false);
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
