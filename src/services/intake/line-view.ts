import { asc, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { whyLeave } from '../../core/batch';
import { conditionIds, type Item } from '../../core/item';
import { netOfContent } from '../../core/listing/net';
import { formatMoney, homeAmount, homeCurrency } from '../../core/measure';
import { database } from '../../db/client';
import { type BatchLineRow, batchLine, type ListingRow, lineFindings, lineKinds, listing } from '../../db/schema';
import { accountsAtHand } from '../records/accounts/accounts-at-hand';
import type { LoadedAccount } from '../records/accounts/load-accounts';
import { groupByItem, loadItems } from '../records/items/load-items';
import { computeRow } from '../records/listings/compute-row';
import { liveCounts } from '../records/listings/live-counts';
import { nearKnown } from './near-known';

export const lineViewSchema = z.object({
  id: z.number(),
  key: z.string(),
  batchId: z.number(),
  scanned: z.string(),
  code: z.string(),
  kind: z.enum(lineKinds),
  finding: z.enum(lineFindings),
  said: z.string(),
  units: z.number(),
  item: z
    .object({
      id: z.number(),
      sku: z.string(),
      title: z.string(),
      condition: z.enum(conditionIds).nullable(),
      conditionNote: z.string(),
      price: z.number().nullable(),
      cost: z.number().nullable(),
      quantity: z.number(),
      location: z.string(),
      category: z.string(),
      brand: z.string(),
      model: z.string(),
      photo: z.string().nullable(),
    })
    .nullable(),
  /** What is still to be said of it, in words, the first first. */
  needs: z.array(z.object({ what: z.enum(['code', 'entry', 'grade', 'price', 'title', 'rules']), words: z.string() })),
  /** What would be left on each account that it is meant for, in minor units of that account's currency. */
  nets: z.array(z.object({ accountId: z.number(), currency: z.string(), net: z.number() })),
  /** The account where most is left of one piece, in the shop's own currency. */
  best: z.object({ accountId: z.number(), net: z.number() }).nullable(),
  /** Why it is better left lying, by the limits that were set. */
  leave: z.string().nullable(),
  /** Known codes that a broken one may have been meant as. */
  near: z.array(z.string()),
  found: z.array(z.object({ entry: z.string(), from: z.string(), name: z.string(), category: z.string() })),
  sales: z
    .object({
      count: z.number(),
      median: z.number(),
      low: z.number(),
      high: z.number(),
      daysOnSale: z.number().nullable(),
    })
    .nullable(),
  silent: z.array(z.string()),
  /** Everything is there that the hand waits for. */
  isDone: z.boolean(),
  /** No catalogue is asked any more, and what they told of the thing is kept. */
  isSettled: z.boolean(),
  isUndone: z.boolean(),
  byName: z.string(),
  at: z.string(),
});
export type LineView = z.infer<typeof lineViewSchema>;

type Shop = { accounts: readonly LoadedAccount[]; live: ReadonlyMap<number, number> };

/** Lines as they are shown, in the order of the ids. */
export async function viewsOf(ids: readonly number[]): Promise<LineView[]> {
  if (ids.length === 0) return [];
  const db = database();
  const rows = await db
    .select()
    .from(batchLine)
    .where(inArray(batchLine.id, [...ids]))
    .orderBy(asc(batchLine.id));
  const itemIds = [...new Set(rows.flatMap((row) => row.itemId ?? []))];
  const [items, listings, accounts] = await Promise.all([
    loadItems(db, itemIds),
    itemIds.length ? db.select().from(listing).where(inArray(listing.itemId, itemIds)) : [],
    accountsAtHand(),
  ]);
  const shop: Shop = { accounts, live: await liveCounts(db, accounts) };
  const byId = new Map(items.map((one) => [one.id, one]));
  const listingsOf = groupByItem(listings);
  const broken = rows.filter((row) => row.finding === 'broken' && !row.isUndone);
  const near = await nearKnown(
    db,
    broken.map((row) => row.scanned),
  );
  const views = new Map(
    rows.map((row) => {
      const item = row.itemId === null ? undefined : byId.get(row.itemId);
      const view = viewOf(row, item, listingsOf.get(row.itemId ?? 0) ?? [], shop);
      return [row.id, { ...view, near: row.finding === 'broken' ? (near.get(row.scanned) ?? []) : [] }];
    }),
  );
  return ids.flatMap((id) => views.get(id) ?? []);
}

/** What would be left on each account, and what its rules still ask for. */
function thereOf(item: Item, rows: readonly ListingRow[], { accounts, live }: Shop) {
  const nets: LineView['nets'] = [];
  const asked: string[] = [];
  let best: LineView['best'] = null;
  for (const account of accounts) {
    const row = rows.find((one) => one.accountId === account.id);
    if (!row || row.wanted === 'none') continue;
    const { content, issues } = computeRow(item, row, account);
    const found = netOfContent(account, content, item, live.get(account.id) ?? 0);
    const { currency, name } = account.compiled.rules;
    if (found) {
      nets.push({ accountId: account.id, currency, net: found.net });
      const home = homeAmount(found.net, currency, account.rate);
      if (home !== null && (best === null || home > best.net)) best = { accountId: account.id, net: home };
    }
    for (const issue of issues)
      if (issue.blocks && askedFor.test(issue.field) && (issue.field !== 'condition' || item.condition !== null))
        asked.push(`${name}: ${issue.message}`);
  }
  return { nets, best, asked };
}

/** What has to be said while the piece is in the hand: its date, its battery and hazard, a condition that is not taken there. */
const askedFor = /^(extra\.(expires|battery|hazard)|condition$)/;

function viewOf(
  row: BatchLineRow,
  item: Item | undefined,
  listings: readonly ListingRow[],
  shop: Shop,
): Omit<LineView, 'near'> {
  const { found, settings, at, lookAt, doneAt, unitsBefore: _u, costBefore: _c, ...line } = row;
  const there = item && !line.isUndone ? thereOf(item, listings, shop) : { nets: [], best: null, asked: [] };
  const worth = {
    net: there.best?.net ?? null,
    cost: item?.cost ?? settings.cost,
    days: line.sales?.daysOnSale ?? null,
  };
  return {
    id: line.id,
    key: line.key,
    batchId: line.batchId,
    scanned: line.scanned,
    code: line.code,
    kind: line.kind,
    finding: line.finding,
    said: line.said,
    units: line.units,
    item: item
      ? {
          id: item.id,
          sku: item.sku,
          title: item.title,
          condition: item.condition,
          conditionNote: item.conditionNote,
          price: item.price,
          cost: item.cost,
          quantity: item.quantity,
          location: item.location,
          category: item.category,
          brand: item.brand,
          model: item.model,
          photo: item.photos[0]?.hash ?? null,
        }
      : null,
    needs: line.isUndone ? [] : needsOf(row, item, there.asked),
    nets: there.nets,
    best: there.best,
    leave: line.isUndone ? null : whyLeave(worth, settings, (amount) => formatMoney(amount, homeCurrency)),
    found: found.map(({ market, id, from, name, category }) => ({ entry: `${market}/${id}`, from, name, category })),
    sales: line.sales,
    silent: line.silent,
    isDone: doneAt !== null,
    isSettled: lookAt === null,
    isUndone: line.isUndone,
    byName: line.byName,
    at: at.toISOString(),
  };
}

function needsOf(row: BatchLineRow, item: Item | undefined, asked: readonly string[]): LineView['needs'] {
  if (row.kind === 'none') return [{ what: 'code', words: row.said }];
  if (row.kind === 'stock' || !item) return [];
  return [
    ...(row.finding === 'unsure'
      ? [{ what: 'entry' as const, words: `Which of ${row.found.length} entries is it?` }]
      : []),
    ...(row.asksGrade ? [{ what: 'grade' as const, words: 'In which condition is it?' }] : []),
    ...(row.asksPrice ? [{ what: 'price' as const, words: 'What does it cost?' }] : []),
    ...(item.title === '' && row.finding === 'unknown'
      ? [{ what: 'title' as const, words: 'Found nowhere: write what it is' }]
      : []),
    ...[...new Set(asked)].slice(0, 3).map((words) => ({ what: 'rules' as const, words })),
  ];
}
