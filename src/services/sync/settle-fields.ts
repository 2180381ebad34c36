import { eq, sql } from 'drizzle-orm';
import type { Change } from '../../core/change';
import { NettingError } from '../../core/errors';
import { canBeTaken, type DriftField, driftOf, priorities } from '../../core/sync';
import type { Tx } from '../../db/client';
import type { ListingRow } from '../../db/schema';
import { listing } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import type { LoadedAccount } from '../records/accounts/load-accounts';
import { holdItems } from '../records/items/hold-items';
import { computeRow } from '../records/listings/compute-row';
import { enqueueJobs } from '../records/listings/enqueue-jobs';
import { refreshListings } from '../records/listings/refresh-listings';

/** What has to be settled on one listing, field by field. */
export function driftFields(
  row: ListingRow,
  wanted: ReturnType<typeof computeRow>,
  account: LoadedAccount,
): DriftField[] {
  if (!row.drifted || !row.base || !row.sent || !row.seen || row.remote !== 'live') return [];
  return driftOf({ base: row.base, wanted: wanted.content, sent: row.sent, seen: row.seen }, account.row.driftRules);
}

type Decision = { field: string; side: 'theirs' | 'ours' };

/**
 * Carries decisions out on one listing, in the caller's transaction: theirs becomes this listing's own value, ours
 * goes to them again.
 * @returns how many fields were settled
 */
export async function settleFields(
  tx: Tx,
  actor: Actor,
  account: LoadedAccount,
  listingId: number,
  decisions: Decision[] | ((open: DriftField[]) => Decision[]),
): Promise<number> {
  const [known] = await tx.select({ itemId: listing.itemId }).from(listing).where(eq(listing.id, listingId));
  const { items, listings } = await holdItems(tx, known ? [known.itemId] : []);
  const [item] = items;
  const row = listings.find((one) => one.id === listingId);
  if (!item || !row?.base || !row.sent || !row.seen) return 0;
  const open = driftFields(row, computeRow(item, row, account), account);
  const chosen = typeof decisions === 'function' ? decisions(open) : decisions;
  const due = chosen.filter((one) => open.some((field) => field.field === one.field));
  if (due.length === 0) return 0;
  const overrides = { ...row.overrides };
  const base = { ...row.base };
  const sent = { ...row.sent };
  const changes: Change[] = [];
  for (const { field, side } of due) {
    const seen = row.seen[field] ?? null;
    if (seen === null) delete base[field];
    else base[field] = seen;
    if (side === 'theirs') {
      if (!canBeTaken(field))
        throw new NettingError('invalid', 'This cannot be taken over from a marketplace; put yours back instead', {
          field,
        });
      changes.push({ target: { item: item.id, account: row.accountId }, field, to: seen });
      overrides[field] = seen;
    } else if (seen === null) delete sent[field];
    else sent[field] = seen;
  }
  const now = computeRow(item, { ...row, overrides, sent }, account);
  for (const { field } of changes) {
    const value = now.content[field];
    if (value === undefined || value === null) delete sent[field];
    else sent[field] = value;
  }
  const numberOr = (value: unknown) => (typeof value === 'number' ? value : null);
  const left = driftOf({ base, wanted: now.content, sent, seen: row.seen }, {});
  await tx
    .update(listing)
    .set({
      base,
      sent,
      drifted: left.length > 0,
      ...(due.some((one) => one.field === 'price') ? { sentPrice: numberOr(sent.price) } : {}),
    })
    .where(eq(listing.id, row.id));
  allCommitted(
    await commitItems(tx, [item.id], () => changes, { actor, why: 'marketplace', at: new Date(), send: 'falls' }),
  );
  await refreshListings(tx, [item.id], [account]);
  if (due.some((one) => one.side === 'ours'))
    await enqueueJobs(tx, { where: sql`l.id = ${row.id}`, priority: priorities.content, runId: null });
  return due.length;
}

/** What the rules decide by themselves. */
export const byRule = (open: DriftField[]): Decision[] =>
  open.flatMap((one): Decision[] =>
    one.answer === 'ask' || (one.answer === 'take' && !canBeTaken(one.field))
      ? []
      : [{ field: one.field, side: one.answer === 'take' ? 'theirs' : 'ours' }],
  );
