import { and, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import type { Item } from '../../../core/item';
import { type Content, issueSchema } from '../../../core/listing/fields';
import { netOfContent } from '../../../core/listing/net';
import {
  type Days,
  daysOf,
  daysSchema,
  fullPace,
  type KnotState,
  knotStates,
  paceOn,
  planListing,
  secondsFor,
  standsThere,
} from '../../../core/sync';
import type { Executor } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import type { ListingRow } from '../../../db/schema';
import { listing } from '../../../db/schema';
import { type LoadedAccount, loadAccounts } from '../../records/accounts/load-accounts';
import { loadItems } from '../../records/items/load-items';
import { selectionWhere } from '../../records/items/selection';
import { computeRow } from '../../records/listings/compute-row';
import { accountCounts } from '../../records/listings/count-listings';
import { isSwitchedOff } from '../../records/listings/is-switched-off';
import type { Publish } from './publish-schema';

export const plannedKnotSchema = z.object({
  itemId: z.number(),
  accountId: z.number(),
  /** How it stands there now. */
  state: z.enum(knotStates),
  action: z.enum(['create', 'update', 'end', 'nothing', 'not-ready']),
  why: z.string().nullable(),
  fields: z.array(z.string()),
  issues: z.array(issueSchema),
  price: z.number().nullable(),
  net: z.number().nullable(),
  /** The photos as they will stand there, in their order and shape, where they are sent. */
  photos: z.array(z.string()).nullable(),
});
export type PlannedKnot = z.infer<typeof plannedKnotSchema>;

export const plannedAccountSchema = z.object({
  accountId: z.number(),
  name: z.string(),
  create: z.number(),
  update: z.number(),
  nothing: z.number(),
  notReady: z.number(),
  listingFees: z.number(),
  currency: z.string(),
  /** How long it takes under the account's pace. */
  seconds: z.number(),
  /** On which days the new ones are made, where it is more than one day or not today. */
  days: daysSchema,
  /** Why it may take longer: paused, locked, warned, does not answer. */
  holdup: z.string().nullable(),
  /** Fields in which listings that are there differ, with how many; also those that are left out. */
  fields: z.array(z.object({ field: z.string(), listings: z.number() })),
  /** Nothing was ever set for it: no defaults, no template, no manner of prices. */
  isBare: z.boolean(),
});
export type PlannedAccount = z.infer<typeof plannedAccountSchema>;

const mostItems = 20_000;

const portion = 400;

async function selectedIds(db: Executor, input: Publish): Promise<number[]> {
  const rows = rowsOf<{ id: number }>(
    await db.execute(
      sql`select i.id from item i where ${selectionWhere(input.selection)} order by i.id limit ${mostItems + 1}`,
    ),
  );
  if (rows.length > mostItems)
    throw new NettingError('invalid', `Publish at most ${mostItems.toLocaleString('en')} items in one go`, {
      field: 'selection',
    });
  return rows.map((row) => row.id);
}

const quiet = (itemId: number, accountId: number, state: KnotState, why: string): PlannedKnot => ({
  itemId,
  accountId,
  state,
  action: 'nothing',
  why,
  fields: [],
  issues: [],
  price: null,
  net: null,
  photos: null,
});

/** What would happen where one item and one account cross. */
function planKnot(
  item: Item,
  row: ListingRow | undefined,
  account: LoadedAccount,
  { liveCount, left }: { liveCount: number; left: ReadonlySet<string> },
) {
  const isThere = standsThere(row?.remote);
  if (row?.wanted === 'none' && !isThere)
    return {
      knot: quiet(item.id, account.id, row.state ?? 'none', 'It is left out there on its sheet'),
      fee: 0,
      differs: [],
    };
  const computed = computeRow(item, row, account);
  const action = planListing(
    { wanted: 'live', remote: isThere && row ? row.remote : 'none' },
    computed,
    row?.sent ?? null,
  );
  const differs = action.kind === 'update' ? action.changes.map((change) => change.field) : [];
  const fields = differs.filter((field) => !left.has(field));
  if (differs.length && fields.length === 0) {
    const why = 'What differs there is left changed and not sent';
    return { knot: quiet(item.id, account.id, row?.state ?? 'none', why), fee: 0, differs };
  }
  const { photos } = computed.content;
  const sendsPhotos = action.kind === 'create' || fields.includes('photos');
  const net = netOfContent(account, computed.content, item, liveCount);
  const knot: PlannedKnot = {
    itemId: item.id,
    accountId: account.id,
    state: row?.state ?? 'none',
    action: action.kind,
    why: action.kind === 'nothing' ? action.why : (timedWarning(computed.content, account) ?? againNote(row)),
    fields,
    issues: action.kind === 'not-ready' ? action.issues : [],
    price: net?.price ?? null,
    net: net?.net ?? null,
    photos: sendsPhotos && Array.isArray(photos) ? photos.map(String) : null,
  };
  return { knot, fee: action.kind === 'create' ? (net?.fees.listing ?? 0) : 0, differs };
}

/** What a timed sale keeps one from doing, said before it begins. */
function timedWarning(content: Content, { compiled }: LoadedAccount): string | null {
  if (content['extra.format'] !== 'timed') return null;
  return `Timed sale of ${String(content['extra.timedDays'] ?? 7)} days: once somebody has bid, ${compiled.rules.name} lets it be neither changed nor ended, and a sale elsewhere meanwhile would be one too many`;
}

const againNote = (row: ListingRow | undefined): string | null =>
  row && isSwitchedOff(row) ? 'Switched on again there, under the number that it has' : null;

/** Whether nothing was set for an account, so that a listing gets there what the marketplace makes of it. */
const noDays: Days = [];

const isBare = ({ defaults, templates, footer, houseTag, row }: LoadedAccount): boolean =>
  Object.keys(defaults).length === 0 &&
  templates.length === 0 &&
  footer === '' &&
  houseTag === '' &&
  row.pricing === null;

function holdupOf({ row, compiled }: LoadedAccount, now: Date): string | null {
  const { name } = compiled.rules;
  if (row.state !== 'connected') return 'Connect the account again first';
  if (row.pausedAt) return 'Sending is stopped for this account';
  if (row.lockedUntil && row.lockedUntil > now) return `${name} has locked the account for a while`;
  if (row.unwellSince) return `${name} does not answer at present`;
  if (row.warnedUntil && row.warnedUntil > now) return `${name} warned of too many new listings`;
  return null;
}

/** Plans portion by portion, so that no more than a part of the items is in memory; `each` is told of every knot. */
export async function planPortions(
  db: Executor,
  input: Publish,
  each: (
    knots: PlannedKnot[],
    items: Item[],
    rows: Map<string, ListingRow>,
    accounts: LoadedAccount[],
  ) => Promise<void>,
): Promise<{ itemCount: number; accounts: PlannedAccount[] }> {
  const ids = await selectedIds(db, input);
  const accounts = await loadAccounts(db, input.accounts);
  const now = new Date();
  const countsOf = await accountCounts(db);
  const lines = accounts.map((account) => ({
    account,
    live: countsOf(account.id).live,
    left: new Set((input.leave ?? []).filter((one) => one.account === account.id).flatMap((one) => one.fields)),
    differing: new Map<string, number>(),
    line: {
      accountId: account.id,
      name: account.name,
      create: 0,
      update: 0,
      nothing: 0,
      notReady: 0,
      listingFees: 0,
      currency: account.compiled.rules.currency,
      seconds: 0,
      days: noDays,
      holdup: holdupOf(account, now),
      isBare: isBare(account),
    },
  }));
  const without = new Set(input.without.map((knot) => `${knot.itemId}/${knot.accountId}`));
  for (let at = 0; at < ids.length; at += portion) {
    const some = ids.slice(at, at + portion);
    const items = await loadItems(db, some);
    const rows = await db
      .select()
      .from(listing)
      .where(and(inArray(listing.itemId, some), inArray(listing.accountId, input.accounts)));
    const rowOf = new Map(rows.map((row) => [`${row.itemId}/${row.accountId}`, row]));
    const knots: PlannedKnot[] = [];
    for (const place of lines) {
      for (const item of items) {
        const key = `${item.id}/${place.account.id}`;
        if (without.has(key)) continue;
        const how = { liveCount: place.live, left: place.left };
        const { knot, fee, differs } = planKnot(item, rowOf.get(key), place.account, how);
        for (const field of differs) place.differing.set(field, (place.differing.get(field) ?? 0) + 1);
        knots.push(knot);
        place.line.listingFees += fee;
        if (knot.action === 'create') {
          place.line.create++;
          place.live++;
        } else if (knot.action === 'update') place.line.update++;
        else if (knot.action === 'not-ready') place.line.notReady++;
        else place.line.nothing++;
      }
    }
    await each(knots, items, rowOf, accounts);
  }
  for (const { account, line } of lines) {
    const pace = paceOn(account.compiled.rules.pacing, account.row.ownPace ?? fullPace, now);
    const work = { create: line.create, update: line.update, end: 0, renew: 0 };
    const made = countsOf(account.id).today;
    line.seconds = secondsFor(work, pace, made);
    const there = new Date(now.getTime() + account.row.clockAheadMs).toISOString().slice(0, 10);
    const days = daysOf(line.create, pace, made, there);
    line.days = days.length > 1 || (days[0] && days[0].on !== there) ? days : [];
  }
  return {
    itemCount: ids.length,
    accounts: lines.map(({ line, differing }) => ({
      ...line,
      fields: [...differing].map(([field, listings]) => ({ field, listings })).sort((a, b) => b.listings - a.listings),
    })),
  };
}
