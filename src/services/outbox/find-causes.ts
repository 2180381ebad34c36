import { and, eq, gt, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { listingField } from '../../core/field';
import { database } from '../../db/client';
import { account, item, job, listing } from '../../db/schema';
import { findLiveViolations, violationSchema } from '../accounts/find-violations';

export const causeSchema = z.object({
  /** Sending failed, their review refused it, or it is live and fits their rules no more. */
  kind: z.enum(['failed', 'refused', 'rules']),
  accountId: z.number(),
  accountName: z.string(),
  message: z.string(),
  fix: z.string().nullable(),
  errorCode: z.string().nullable(),
  field: z.string().nullable(),
  /** Whether trying again just as it is can help. */
  mayPass: z.boolean(),
  count: z.number(),
  /** All of them, as far as one mend may take them. */
  itemIds: z.array(z.number()),
  items: z.array(
    z.object({
      id: z.number(),
      sku: z.string(),
      title: z.string(),
    }),
  ),
  /** How all of them are mended at once, where that can be done from here. */
  violation: violationSchema.nullable(),
});
export type Cause = z.infer<typeof causeSchema>;

const most = 2_000;
const shownItems = 20;

/** What they said no to stays a no until something is changed; everything else may pass. */
const lasting = new Set(['market-refused', 'not-ready', 'sku-taken', 'invalid']);

const mendFor = (field: string | null): string =>
  field === null
    ? 'Change what they name, and send it again'
    : `Change ${listingField(field)?.label.toLowerCase() ?? field}, and send it again`;

/** What needs a person, grouped by cause: each with the one mend for all of them. */
export async function findCauses(): Promise<Cause[]> {
  const rows = await database()
    .select({
      accountId: listing.accountId,
      accountName: account.name,
      refusal: sql<string | null>`if(${listing.remote} = 'refused', ${listing.refusal}, null)`,
      refusalField: listing.refusalField,
      message: job.message,
      fix: job.fix,
      errorCode: job.errorCode,
      field: job.field,
      itemId: item.id,
      sku: item.sku,
      title: item.title,
    })
    .from(listing)
    .leftJoin(job, sql`${job.id} = (select max(j.id) from job j where j.listing_id = ${listing.id})`)
    .innerJoin(item, eq(item.id, listing.itemId))
    .innerJoin(account, eq(account.id, listing.accountId))
    .where(eq(listing.state, 'attention'))
    .limit(5_000);
  const causes = new Map<string, Cause>();
  for (const { itemId, sku, title, refusal, refusalField, ...row } of rows) {
    const told = refusal ?? row.message ?? 'It failed';
    const key = `${row.accountId}/${told}`;
    const field = refusal === null ? row.field : refusalField;
    const cause = causes.get(key) ?? {
      kind: refusal === null ? ('failed' as const) : ('refused' as const),
      accountId: row.accountId,
      accountName: row.accountName,
      message: told,
      fix: refusal === null ? row.fix : mendFor(refusalField),
      errorCode: refusal === null ? row.errorCode : 'market-refused',
      field,
      mayPass: refusal === null && !lasting.has(row.errorCode ?? ''),
      count: 0,
      itemIds: [],
      items: [],
      violation: null,
    };
    cause.count++;
    if (cause.itemIds.length < most) cause.itemIds.push(itemId);
    if (cause.items.length < shownItems) cause.items.push({ id: itemId, sku, title });
    causes.set(key, cause);
  }
  return [...causes.values(), ...(await unfitting())].sort((a, b) => b.count - a.count);
}

/** Live listings that no longer fit the rules of their marketplaces, before anything of them failed. */
async function unfitting(): Promise<Cause[]> {
  const rows = await database()
    .selectDistinct({ accountId: listing.accountId })
    .from(listing)
    .where(and(gt(listing.blocking, 0), inArray(listing.state, ['live', 'changed', 'conflict'])));
  const violations = await findLiveViolations(rows.map((row) => row.accountId));
  return violations.map(
    ({ itemIds, ...violation }): Cause => ({
      kind: 'rules',
      accountId: violation.accountId,
      accountName: violation.accountName,
      message: violation.message,
      fix: violation.fix.label,
      errorCode: null,
      field: violation.field,
      mayPass: false,
      count: violation.live,
      itemIds,
      items: violation.items,
      violation,
    }),
  );
}
