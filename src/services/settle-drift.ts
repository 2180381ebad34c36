import { and, eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import type { Json } from '../core/json';
import { canBeTaken, type DriftField, driftAnswers, driftOf, driftRulesSchema, priorities } from '../core/sync';
import { database, type Tx, transaction } from '../db/client';
import { account as accountTable, item as itemTable, listing } from '../db/schema';
import { type LoadedAccount, loadAccounts } from './account-context';
import type { Actor } from './actor';
import { enqueueJobs } from './enqueue-jobs';
import { rowsOf } from './find-items';
import { loadItem } from './load-items';
import { recordChanges } from './record-change';
import { computeRow, type ListingRow, refreshListings } from './refresh-listings';

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
  const [row] = await tx.select().from(listing).where(eq(listing.id, listingId)).for('update');
  if (!row?.base || !row.sent || !row.seen) return 0;
  const item = await loadItem(tx, row.itemId);
  const open = driftFields(row, computeRow(item, row, account), account);
  const chosen = typeof decisions === 'function' ? decisions(open) : decisions;
  const due = chosen.filter((one) => open.some((field) => field.field === one.field));
  if (due.length === 0) return 0;
  const differences = { ...row.differences };
  const base = { ...row.base };
  const sent = { ...row.sent };
  const taken: { field: string; from: Json; to: Json }[] = [];
  for (const { field, side } of due) {
    const seen = row.seen[field] ?? null;
    if (seen === null) delete base[field];
    else base[field] = seen;
    if (side === 'theirs') {
      if (!canBeTaken(field))
        throw new NettingError('invalid', 'This cannot be taken over from a marketplace; put yours back instead', {
          field,
        });
      taken.push({ field, from: differences[field] ?? null, to: seen });
      differences[field] = seen;
    } else if (seen === null) delete sent[field];
    else sent[field] = seen;
  }
  const now = computeRow(item, { ...row, differences, sent }, account);
  for (const { field } of taken) {
    const value = now.content[field];
    if (value === undefined || value === null) delete sent[field];
    else sent[field] = value;
  }
  const numberOr = (value: unknown) => (typeof value === 'number' ? value : null);
  const left = driftOf({ base, wanted: now.content, sent, seen: row.seen }, {});
  await tx
    .update(listing)
    .set({
      differences,
      base,
      sent,
      drifted: left.length > 0,
      ...(due.some((one) => one.field === 'price') ? { sentPrice: numberOr(sent.price) } : {}),
    })
    .where(eq(listing.id, row.id));
  const [version] = await tx.select({ version: itemTable.version }).from(itemTable).where(eq(itemTable.id, row.itemId));
  await recordChanges(
    tx,
    { actor, why: 'marketplace', at: new Date() },
    taken.map((one) => ({ ...one, itemId: row.itemId, listingId: row.id, itemVersion: version?.version ?? 1 })),
  );
  await refreshListings(tx, [row.itemId], [account]);
  if (due.some((one) => one.side === 'ours'))
    await enqueueJobs(tx, { where: sql`l.id = ${row.id}`, priority: priorities.content, runId: null });
  return due.length;
}

const which = z.union([
  z.object({ listing: z.number().int(), fields: z.array(z.string().max(80)).min(1).max(60) }).strict(),
  z
    .object({ account: z.number().int(), field: z.string().max(80), verdict: z.enum(['theirs', 'conflict']) })
    .strict()
    .describe('Every listing of the account in which this field is so'),
]);
export const settleSchema = z.object({ which, side: z.enum(['theirs', 'ours']) }).strict();

/** Settles what differs: on one listing, or the same field on every listing of an account. */
export async function settleDrift(actor: Actor, input: z.infer<typeof settleSchema>): Promise<{ settled: number }> {
  const { which: what, side } = input;
  const db = database();
  const ids =
    'listing' in what
      ? [what.listing]
      : rowsOf<{ id: number }>(
          await db.execute(
            sql`select id from listing where account_id = ${what.account} and drifted = 1 and remote = 'live' order by id limit 20000`,
          ),
        ).map((row) => row.id);
  const rows = ids.length
    ? await db.select({ id: listing.id, accountId: listing.accountId }).from(listing).where(inArray(listing.id, ids))
    : [];
  const accounts = await loadAccounts(db, [...new Set(rows.map((row) => row.accountId))]);
  let settled = 0;
  for (const row of rows) {
    const account = accounts.find((one) => one.id === row.accountId);
    if (!account) continue;
    settled += await transaction((tx) =>
      settleFields(tx, actor, account, row.id, (open) =>
        open
          .filter((one) =>
            'listing' in what
              ? what.fields.includes(one.field)
              : one.field === what.field && one.verdict === what.verdict,
          )
          .filter((one) => side === 'ours' || canBeTaken(one.field))
          .map(({ field }) => ({ field, side })),
      ),
    );
  }
  if (settled === 0) throw new NettingError('too-late', 'This has been settled already');
  return { settled };
}

export const driftRuleSchema = z
  .object({ field: z.string().max(80), answer: z.enum(driftAnswers).nullable() })
  .strict()
  .describe('A field, or * for all that have no rule of their own');

/** Says what is done from now on when only they changed a field, and does it for what is open. */
export async function setDriftRule(
  actor: Actor,
  accountId: number,
  input: z.infer<typeof driftRuleSchema>,
): Promise<{ settled: number }> {
  await transaction(async (tx) => {
    const [row] = await tx.select().from(accountTable).where(eq(accountTable.id, accountId)).for('update');
    if (!row) throw new NettingError('not-found', 'There is no such account');
    const rules = { ...row.driftRules };
    if (input.answer) rules[input.field] = input.answer;
    else delete rules[input.field];
    await tx
      .update(accountTable)
      .set({ driftRules: driftRulesSchema.parse(rules) })
      .where(eq(accountTable.id, accountId));
  });
  return { settled: await followRules(actor, accountId) };
}

/** Applies an account's rules to what is open on it. */
export async function followRules(actor: Actor, accountId: number): Promise<number> {
  const db = database();
  const [account] = await loadAccounts(db, [accountId]);
  if (!account) return 0;
  const rows = await db
    .select({ id: listing.id })
    .from(listing)
    .where(and(eq(listing.accountId, accountId), eq(listing.drifted, true), eq(listing.remote, 'live')))
    .limit(20_000);
  let settled = 0;
  for (const { id } of rows)
    settled += await transaction((tx) => settleFields(tx, actor, account, id, (open) => byRule(open)));
  return settled;
}

/** What the rules decide by themselves. */
export const byRule = (open: DriftField[]): Decision[] =>
  open.flatMap((one): Decision[] =>
    one.answer === 'ask' || (one.answer === 'take' && !canBeTaken(one.field))
      ? []
      : [{ field: one.field, side: one.answer === 'take' ? 'theirs' : 'ours' }],
  );
