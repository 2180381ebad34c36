import { eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import type { Json } from '../core/json';
import { cutText, fitTitle, productTitle } from '../core/listing';
import { priorities } from '../core/sync';
import { database, transaction } from '../db/client';
import { listing, run } from '../db/schema';
import { type LoadedAccount, loadAccounts } from './account-context';
import { mapCategory, updateAccount } from './accounts';
import type { Actor } from './actor';
import { enqueueJobs } from './enqueue-jobs';
import { findProducts } from './find-products';
import { learn } from './knowledge';
import { type MisfitRow, misfitKey, misfitRows } from './misfits';
import { recordChanges } from './record-change';
import { refreshListings } from './refresh-listings';

export const mendAllSchema = z
  .object({
    accountId: z.number().int().positive(),
    code: z.string().max(60),
    field: z.string().max(80),
    message: z.string().max(400),
    /** What was chosen or written, where the mend needs it. */
    value: z.string().max(300).optional(),
    /** Also send what differs then from what is live. */
    send: z.boolean().default(false),
  })
  .strict();
type MendAll = z.infer<typeof mendAllSchema>;

async function concerned(account: LoadedAccount, input: MendAll): Promise<MisfitRow[]> {
  const wanted = misfitKey(input);
  const found: MisfitRow[] = [];
  for await (const some of misfitRows(database(), account))
    found.push(...some.filter((one) => one.issues.some((issue) => misfitKey(issue) === wanted)));
  return found;
}

/** What is written for this marketplace alone, so that the listing fits; undefined when this mend is not of that kind. */
function written(account: LoadedAccount, one: MisfitRow, input: MendAll): Json | undefined {
  const { rules } = account.compiled;
  const present = one.computed.content[input.field];
  const text = typeof present === 'string' ? present : '';
  switch (input.code) {
    case 'title-long':
      return rules.title
        ? fitTitle(text, rules.title.max, [one.item.brand, one.item.model], [one.item.category]).text
        : undefined;
    case 'title-pattern': {
      const colour = one.computed.values.find((value) => /^attr\.(colour|shade)/.test(value.field))?.value;
      return rules.title
        ? productTitle({ ...one.item, title: text }, String(colour ?? ''), rules.title.max).text
        : undefined;
    }
    case 'description-long':
      return rules.description ? cutText(text, rules.description.max).text : undefined;
    case 'note-long':
      return rules.conditionNote ? cutText(text, rules.conditionNote.max).text : undefined;
    default:
      return input.value;
  }
}

async function writeAll(actor: Actor, account: LoadedAccount, rows: MisfitRow[], input: MendAll): Promise<void> {
  await transaction(async (tx) => {
    const at = new Date();
    for (const one of rows) {
      const value = written(account, one, input);
      if (value === undefined) continue;
      const differences = { ...one.row.differences, [input.field]: value };
      await tx.update(listing).set({ differences }).where(eq(listing.id, one.row.id));
      await recordChanges(tx, { actor, why: 'typing', at }, [
        {
          itemId: one.item.id,
          listingId: one.row.id,
          itemVersion: one.item.version,
          field: input.field,
          from: one.row.differences[input.field] ?? null,
          to: value,
        },
      ]);
    }
    await refreshListings(tx, [...new Set(rows.map((one) => one.item.id))]);
  });
}

/** One mend for every listing that does not fit for the same reason. What was typed elsewhere stays. */
export async function mendAll(
  actor: Actor,
  input: MendAll,
): Promise<{ listings: number; left: number; queued: number }> {
  const [account] = await loadAccounts(database(), [input.accountId]);
  if (!account) throw new NettingError('not-found', 'There is no such account');
  const rows = await concerned(account, input);
  const issue = rows[0]?.issues.find((one) => misfitKey(one) === misfitKey(input));
  if (!issue) throw new NettingError('conflict', 'Nothing is left to mend here', { mend: 'Load the page again' });
  const needsValue = () => {
    if (!input.value) throw new NettingError('invalid', 'Choose or write what it shall be', { field: 'value' });
    return input.value;
  };
  switch (issue.mend.kind) {
    case 'map-category': {
      const categoryId = needsValue();
      const own = new Set(rows.map((one) => one.item.category).filter(Boolean));
      for (const ownCategory of own) await mapCategory(actor, account.id, { ownCategory, categoryId });
      // What was chosen for one listing alone stands before the mapping: it is taken back.
      const typed = rows.filter((one) => one.row.differences.category !== undefined);
      if (typed.length) await writeAll(actor, account, typed, { ...input, code: 'category', field: 'category' });
      break;
    }
    case 'account-default':
      await updateAccount(actor, account.id, { defaults: { [issue.mend.field]: needsValue() } });
      break;
    case 'map-value':
      await learn(actor, {
        market: account.compiled.rules.market,
        kind: 'value',
        attribute: input.field.slice('attr.'.length),
        said: issue.mend.said,
        theirs: needsValue(),
      });
      break;
    case 'find-product':
      for (let at = 0; at < rows.length; at += 500)
        await findProducts(actor, {
          accountId: account.id,
          itemIds: rows.slice(at, at + 500).map((one) => one.item.id),
        });
      break;
    case 'edit-own':
    case 'edit-master':
      if (!['title-long', 'title-pattern', 'description-long', 'note-long'].includes(input.code)) needsValue();
      await writeAll(actor, account, rows, input);
      break;
    default:
      throw new NettingError('invalid', 'This has to be mended at its own place');
  }
  const [fresh] = await loadAccounts(database(), [account.id]);
  const left = fresh ? (await concerned(fresh, input)).length : 0;
  const queued = input.send
    ? await sendChanged(
        actor,
        rows.map((one) => one.row.id),
        issue.mend.label,
      )
    : 0;
  return { listings: rows.length - left, left, queued };
}

/** Sends what differs from what is live, of these listings. */
async function sendChanged(actor: Actor, ids: number[], title: string): Promise<number> {
  if (ids.length === 0) return 0;
  return transaction(async (tx) => {
    const where = sql`l.id in ${ids} and l.remote = 'live' and l.dirty = 1 and l.blocking = 0`;
    const changed = await tx
      .select({ id: listing.id })
      .from(listing)
      .where(
        sql`${inArray(listing.id, ids)} and ${listing.remote} = 'live' and ${listing.dirty} = 1 and ${listing.blocking} = 0`,
      );
    if (changed.length === 0) return 0;
    const [{ insertId: runId }] = await tx.insert(run).values({
      kind: 'publish',
      title: title.slice(0, 200),
      detail: {},
      itemCount: changed.length,
      byName: actor.name,
    });
    await enqueueJobs(tx, { where, priority: priorities.content, runId });
    return changed.length;
  });
}
