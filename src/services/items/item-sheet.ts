import { and, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { kindSchema, listingField } from '../../core/field';
import { customFieldSchema } from '../../core/item/custom-fields';
import { type Item, itemSchema } from '../../core/item/item';
import { planFor, rowPlanSchema } from '../../core/item/row-plan';
import { jsonSchema } from '../../core/json';
import { type ListingValue, ownLimits, suggestCategories } from '../../core/listing';
import { listingValueSchema } from '../../core/listing/fields';
import { categorySuggestionSchema } from '../../core/listing/map/category';
import { netOfContent } from '../../core/listing/net';
import { netSchema } from '../../core/price/net';
import { knotStates } from '../../core/sync/state';
import { database } from '../../db/client';
import { job, type ListingRow, listing } from '../../db/schema';
import { type LoadedAccount, loadAccounts } from '../records/accounts/load-accounts';
import { readSettings } from '../records/accounts/read-settings';
import { loadCustomFields } from '../records/items/load-custom-fields';
import { loadItem } from '../records/items/load-items';
import { computeRow } from '../records/listings/compute-row';
import { liveCounts } from '../records/listings/live-counts';

export const sheetFieldSchema = listingValueSchema.extend({
  /** What it holds there: how it is read, shown and written. */
  kind: kindSchema,
  /** May be written for this marketplace alone. */
  editable: z.boolean(),
});
export type SheetField = z.infer<typeof sheetFieldSchema>;

export const sheetColumnSchema = z.object({
  accountId: z.number(),
  market: z.string(),
  marketName: z.string(),
  name: z.string(),
  currency: z.string(),
  listingId: z.number().nullable(),
  state: z.enum(knotStates),
  url: z.string().nullable(),
  ready: z.boolean(),
  blocking: z.number(),
  fields: z.array(sheetFieldSchema),
  net: netSchema.nullable(),
  suggestions: z.array(categorySuggestionSchema),
  /** Left out on purpose, or never added: nothing is sent there. */
  leftOut: z.boolean(),
  photoMax: z.number(),
  variations: z
    .object({
      maxAxes: z.number(),
      maxCombinations: z.number(),
      photos: z.boolean().optional(),
    })
    .nullable(),
  /** Which combinations alone are offered here. */
  narrowing: jsonSchema.optional(),
  /** How a timed sale there stands; null where it is none. */
  timed: z
    .object({
      bids: z.number(),
      highest: z.number().nullable(),
      reserve: z.number().nullable(),
      endsAt: z.string().nullable(),
    })
    .nullable(),
  lastError: z
    .object({
      message: z.string(),
      fix: z.string().nullable(),
      field: z.string().nullable(),
    })
    .nullable(),
});
export type SheetColumn = z.infer<typeof sheetColumnSchema>;

export const itemSheetSchema = z.object({
  item: itemSchema,
  columns: z.array(sheetColumnSchema),
  customFields: z.array(customFieldSchema),
  /** Which rows are shown for its category, and in which order; null as they come. */
  rowPlan: rowPlanSchema.nullable(),
});
export type ItemSheet = z.infer<typeof itemSheetSchema>;

/** What follows from the record or from their catalogue is not written by hand. */
const isWritten = (field: string): boolean => field !== 'sku' && field !== 'product';

export type ColumnFacts = {
  row: ListingRow | undefined;
  liveCount: number;
  /** Whether the item is meant for it. */
  isMeant: boolean;
  lastError: SheetColumn['lastError'];
};

/** A timed sale that is live, as they showed it last. */
function timedSale(row: ListingRow | undefined): SheetColumn['timed'] {
  if (row?.remote !== 'live' || row.sent?.['extra.format'] !== 'timed') return null;
  const reserve = row.sent['extra.reserve'];
  return {
    bids: row.bids,
    highest: row.highestBid,
    reserve: typeof reserve === 'number' ? reserve : null,
    endsAt: row.endsAt?.toISOString() ?? null,
  };
}

/** One account's column: what it will get of the item, where that comes from, what it leaves. */
export function columnOf(account: LoadedAccount, item: Item, facts: ColumnFacts): SheetColumn {
  const { row, liveCount, isMeant, lastError } = facts;
  const { rules } = account.compiled;
  const computed = computeRow(item, row, account);
  const shape = (value: ListingValue): SheetField => ({
    ...value,
    kind: listingField(value.field, rules)?.kind ?? { is: 'text', most: 0 },
    editable: isWritten(value.field),
  });
  return {
    accountId: account.id,
    market: rules.market,
    marketName: rules.name,
    name: account.name,
    currency: rules.currency,
    listingId: row?.id ?? null,
    state: row?.state ?? 'none',
    url: row?.remoteUrl ?? null,
    leftOut: !isMeant,
    photoMax: rules.photos.kind === 'catalogue' ? 0 : rules.photos.max,
    variations: ownLimits(rules),
    narrowing: row?.overrides.variations,
    ready: computed.ready,
    blocking: computed.issues.filter((issue) => issue.blocks).length,
    fields: computed.values.map(shape),
    net: netOfContent(account, computed.content, item, liveCount),
    suggestions: suggestCategories(
      account.compiled,
      { ownCategory: item.category, title: item.title, brand: item.brand, attributes: item.attributes },
      account.categoryMap,
    ),
    timed: timedSale(row),
    lastError,
  };
}

/** Everything the item sheet shows: the record, and per account what it will get, where that comes from, what it leaves. */
export async function itemSheet(itemId: number): Promise<ItemSheet> {
  const db = database();
  const [item, accounts, customFields, settings, rows, failures] = await Promise.all([
    loadItem(db, itemId),
    loadAccounts(db),
    loadCustomFields(db),
    readSettings(db),
    db.select().from(listing).where(eq(listing.itemId, itemId)),
    db
      .select({ listingId: job.listingId, message: job.message, fix: job.fix, field: job.field, state: job.state })
      .from(job)
      .innerJoin(listing, eq(listing.id, job.listingId))
      .where(
        and(
          eq(listing.itemId, itemId),
          sql`${job.id} = (select max(j.id) from job j where j.listing_id = ${listing.id})`,
        ),
      ),
  ]);
  const live = await liveCounts(db, accounts);
  const columns = accounts.map((account): SheetColumn => {
    const row = rows.find((one) => one.accountId === account.id);
    const last = failures.find((one) => one.listingId === row?.id);
    return columnOf(account, item, {
      row,
      liveCount: live.get(account.id) ?? 0,
      isMeant: (row?.wanted ?? 'none') !== 'none',
      // Also of what is tried on and does not get through.
      lastError:
        row?.remote === 'refused' && row.refusal
          ? {
              message: `Refused in review: ${row.refusal}`,
              fix: 'Change what they name, and publish it again',
              field: row.refusalField,
            }
          : last?.message && (last.state === 'failed' || (last.state === 'waiting' && row?.problem))
            ? { message: last.message, fix: last.fix, field: last.field }
            : null,
    });
  });
  return { item, columns, customFields, rowPlan: planFor(settings.sheetRows, item.category) };
}
