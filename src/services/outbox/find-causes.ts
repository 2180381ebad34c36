import { and, count, eq, gt, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { listingField } from '../../core/field';
import { liveStates } from '../../core/sync';
import { database } from '../../db/client';
import { account, item, job, listing } from '../../db/schema';
import { findViolationsAmong, type Violation, violationSchema } from '../accounts/rules/find-violations';

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
  const refusal = sql`if(${listing.remote} = 'refused', ${listing.refusal}, null)`;
  const told = sql<string>`coalesce(${refusal}, ${job.message}, 'It failed')`;
  const rows = await database()
    .select({
      accountId: listing.accountId,
      accountName: account.name,
      message: told,
      isRefused: sql<number>`max(${refusal} is not null)`,
      fix: sql<string | null>`min(${job.fix})`,
      errorCode: sql<string | null>`min(${job.errorCode})`,
      field: sql<string | null>`min(${job.field})`,
      refusalField: sql<string | null>`min(${listing.refusalField})`,
      count: count(),
      itemIds: sql<string>`group_concat(${listing.itemId} order by ${listing.itemId} limit ${sql.raw(String(most))})`,
    })
    .from(listing)
    .leftJoin(job, sql`${job.id} = (select max(j.id) from job j where j.listing_id = ${listing.id})`)
    .innerJoin(account, eq(account.id, listing.accountId))
    .where(eq(listing.state, 'attention'))
    .groupBy(listing.accountId, account.name, told);
  const causes = rows.map(({ isRefused, refusalField, itemIds, ...row }) => ({
    ...row,
    kind: isRefused ? ('refused' as const) : ('failed' as const),
    fix: isRefused ? mendFor(refusalField) : row.fix,
    errorCode: isRefused ? 'market-refused' : row.errorCode,
    field: isRefused ? refusalField : row.field,
    mayPass: !isRefused && !lasting.has(row.errorCode ?? ''),
    itemIds: itemIds.split(',').map(Number),
    violation: null,
  }));
  const shown = await namesOf(causes.flatMap((one) => one.itemIds.slice(0, shownItems)));
  const mends = await mendsFor(causes);
  const failed = causes.map(
    (one): Cause => ({
      ...one,
      violation: mends(one),
      items: one.itemIds.slice(0, shownItems).flatMap((id) => shown.get(id) ?? []),
    }),
  );
  return [...failed, ...(await unfitting())].sort((a, b) => b.count - a.count);
}

/**
 * What failed because it does not fit is mended as what is live and fits no longer: where one of its items does not fit in the very
 * field that they named, or in any that Netting named itself.
 */
async function mendsFor(
  causes: readonly Pick<Cause, 'accountId' | 'mayPass'>[],
): Promise<(cause: Pick<Cause, 'accountId' | 'mayPass' | 'field' | 'itemIds'>) => Violation | null> {
  const accounts = [...new Set(causes.flatMap((one) => (one.mayPass ? [] : [one.accountId])))];
  const violations = await findViolationsAmong('failed', accounts);
  return ({ accountId, mayPass, field, itemIds }) => {
    if (mayPass) return null;
    const ids = new Set(itemIds);
    const found = violations.find(
      (one) =>
        one.accountId === accountId &&
        one.how !== 'item' &&
        (field === null || one.field === field) &&
        one.itemIds.some((id) => ids.has(id)),
    );
    if (!found) return null;
    const { itemIds: _ids, ...violation } = found;
    return violation;
  };
}

async function namesOf(ids: number[]): Promise<Map<number, Cause['items'][number]>> {
  if (ids.length === 0) return new Map();
  const rows = await database()
    .select({ id: item.id, sku: item.sku, title: item.title })
    .from(item)
    .where(inArray(item.id, [...new Set(ids)]));
  return new Map(rows.map((row) => [row.id, row]));
}

/** Live listings that no longer fit the rules of their marketplaces, before anything of them failed. */
async function unfitting(): Promise<Cause[]> {
  const rows = await database()
    .selectDistinct({ accountId: listing.accountId })
    .from(listing)
    .where(and(gt(listing.blocking, 0), inArray(listing.state, liveStates)));
  const violations = await findViolationsAmong(
    'live',
    rows.map((row) => row.accountId),
  );
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
