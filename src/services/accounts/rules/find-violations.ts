import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { issueSchema } from '../../../core/listing/fields';
import { database } from '../../../db/client';
import { account as accountTable } from '../../../db/schema';
import { loadAccounts } from '../../records/accounts/load-accounts';
import { choiceSchema, fixModes, fixOptions } from './fix-options';
import { violationKey, violationRows } from './violation-rows';

/** Listings of one account that the rules do not let through, for the same reason. */
export const violationSchema = z.object({
  accountId: z.number(),
  accountName: z.string(),
  code: z.string(),
  field: z.string(),
  message: z.string(),
  fix: issueSchema.shape.fix,
  /** How one mend can be carried out for all of them: not at all from here, by one click, or by choosing or writing a value. */
  how: z.enum(fixModes),
  choices: z.array(choiceSchema),
  live: z.number(),
  drafts: z.number(),
  /** The first few, to look at. */
  items: z.array(
    z.object({
      id: z.number(),
      sku: z.string(),
      title: z.string(),
    }),
  ),
});
export type Violation = z.infer<typeof violationSchema>;

type Group = Violation & { itemIds: number[] };

const shownItems = 5;
const most = 2_000;

/** What does not fit on these accounts, grouped by cause, most listings first. */
async function violationsOf(ids: number[], which: 'all' | 'live' | 'failed'): Promise<Group[]> {
  const db = database();
  const groups = new Map<string, Group>();
  for (const account of await loadAccounts(db, ids)) {
    for await (const some of violationRows(db, account, which)) {
      for (const { row, item, issues } of some) {
        for (const issue of issues) {
          const key = `${account.id}/${violationKey(issue)}`;
          const group = groups.get(key) ?? {
            accountId: account.id,
            accountName: account.name,
            code: issue.code,
            field: issue.field,
            message: issue.message,
            fix: issue.fix,
            ...fixOptions(account, issue, item),
            live: 0,
            drafts: 0,
            items: [],
            itemIds: [],
          };
          if (row.remote === 'live' || row.remote === 'review') group.live++;
          else group.drafts++;
          if (group.items.length < shownItems) group.items.push({ id: item.id, sku: item.sku, title: item.title });
          if (group.itemIds.length < most) group.itemIds.push(item.id);
          groups.set(key, group);
        }
      }
    }
  }
  return [...groups.values()].sort((a, b) => b.live + b.drafts - (a.live + a.drafts));
}

/** The same of one marketplace: what is live, and what waits. */
export async function findViolations(market: string): Promise<{ violations: Violation[] }> {
  const rows = await database()
    .select({ id: accountTable.id })
    .from(accountTable)
    .where(eq(accountTable.market, market));
  const found = await violationsOf(
    rows.map((row) => row.id),
    'all',
  );
  return { violations: found.map(({ itemIds: _ids, ...violation }) => violation) };
}

/** Of what is live and well on these accounts, or of which sending failed, with the items concerned. */
export const findViolationsAmong = (which: 'live' | 'failed', accounts: number[]): Promise<Group[]> =>
  accounts.length ? violationsOf(accounts, which) : Promise.resolve([]);
