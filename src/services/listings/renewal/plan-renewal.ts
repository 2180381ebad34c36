import { z } from 'zod';
import { netOfContent } from '../../../core/listing/net';
import { fullPace, paceOn, renewalVerdict, secondsFor } from '../../../core/sync';
import { database } from '../../../db/client';
import { loadAccounts } from '../../records/accounts/load-accounts';
import { loadItems } from '../../records/items/load-items';
import { computeRow } from '../../records/listings/compute-row';
import { accountCounts } from '../../records/listings/count-listings';
import { chosenRows, factsOf, type renewSchema } from './renewal-facts';

export const renewalPlanSchema = z.object({
  count: z.number(),
  blocked: z.array(
    z.object({
      reason: z.string(),
      count: z.number(),
    }),
  ),
  accounts: z.array(
    z.object({
      accountId: z.number(),
      name: z.string(),
      count: z.number(),
      fees: z.number(),
      currency: z.string(),
      seconds: z.number(),
      reviewed: z.boolean(),
    }),
  ),
});
export type RenewalPlan = z.infer<typeof renewalPlanSchema>;

/** What renewing these would mean: how many, what the marketplaces charge for it, how long it takes, what blocks which. */
export async function planRenewal(input: z.infer<typeof renewSchema>): Promise<RenewalPlan> {
  const db = database();
  const now = new Date();
  const rows = await chosenRows(db, input.listings);
  const accounts = await loadAccounts(db, [...new Set(rows.map((row) => row.listing.accountId))]);
  const items = new Map(
    (await loadItems(db, [...new Set(rows.map((row) => row.listing.itemId))])).map((one) => [one.id, one]),
  );
  const countsOf = await accountCounts(db);
  const blocked = new Map<string, number>();
  const lines = new Map<number, RenewalPlan['accounts'][number]>();
  for (const { listing: row, quantity } of rows) {
    const account = accounts.find((one) => one.id === row.accountId);
    const thing = items.get(row.itemId);
    if (!account || !thing) continue;
    const { blocks } = renewalVerdict(factsOf(row, quantity), { minDays: 0, withinDays: null }, now);
    const computed = computeRow(thing, { ...row, remote: 'none', sent: null }, account);
    const why = blocks ?? (computed.ready ? null : `Not ready: ${computed.issues.find((one) => one.blocks)?.message}`);
    if (why) {
      blocked.set(why, (blocked.get(why) ?? 0) + 1);
      continue;
    }
    const { rules } = account.compiled;
    const line = lines.get(account.id) ?? {
      accountId: account.id,
      name: account.name,
      count: 0,
      fees: 0,
      currency: rules.currency,
      seconds: 0,
      reviewed: rules.reviewed ?? false,
    };
    const { live } = countsOf(account.id);
    line.count++;
    line.fees += netOfContent(account, computed.content, thing, live)?.fees.listing ?? 0;
    lines.set(account.id, line);
  }
  for (const line of lines.values()) {
    const account = accounts.find((one) => one.id === line.accountId);
    if (!account) continue;
    const pace = paceOn(account.compiled.rules.pacing, account.row.ownPace ?? fullPace, now);
    const { today } = countsOf(line.accountId);
    line.seconds = secondsFor({ create: 0, update: 0, end: 0, renew: line.count }, pace, today);
  }
  return {
    count: [...lines.values()].reduce((sum, line) => sum + line.count, 0),
    blocked: [...blocked].map(([reason, count]) => ({ reason, count })).sort((a, b) => b.count - a.count),
    accounts: [...lines.values()],
  };
}
