import { and, eq, gt, inArray } from 'drizzle-orm';
import type { Item } from '../core/item';
import { type CategorySuggestion, type ComputedListing, type Issue, suggestCategories } from '../core/listing';
import { database, type Executor } from '../db/client';
import { account as accountTable, listing } from '../db/schema';
import { type LoadedAccount, loadAccounts } from './account-context';
import { loadItems } from './load-items';
import { computeRow, type ListingRow } from './refresh-listings';

export type Choice = { id: string; label: string };

/** Listings of one account that the rules do not let through, for the same reason. */
export type Misfit = {
  accountId: number;
  accountName: string;
  code: string;
  field: string;
  message: string;
  mend: Issue['mend'];
  /** How one mend can be carried out for all of them: not at all from here, by one click, or by choosing or writing a value. */
  how: 'item' | 'click' | 'choose' | 'write';
  choices: Choice[];
  live: number;
  drafts: number;
  /** The first few, to look at. */
  items: { id: number; sku: string; title: string }[];
};

export type MisfitRow = { row: ListingRow; item: Item; issues: Issue[]; computed: ComputedListing };

/** Every listing of an account that does not fit, computed now, in portions. */
export async function* misfitRows(db: Executor, account: LoadedAccount, portion = 300): AsyncGenerator<MisfitRow[]> {
  for (let after = 0; ; ) {
    const rows = await db
      .select()
      .from(listing)
      .where(
        and(
          eq(listing.accountId, account.id),
          gt(listing.blocking, 0),
          inArray(listing.wanted, ['draft', 'live']),
          gt(listing.id, after),
        ),
      )
      .orderBy(listing.id)
      .limit(portion);
    const last = rows.at(-1);
    if (!last) return;
    const items = new Map(
      (await loadItems(db, [...new Set(rows.map((row) => row.itemId))])).map((one) => [one.id, one]),
    );
    yield rows.flatMap((row): MisfitRow[] => {
      const item = items.get(row.itemId);
      if (!item) return [];
      const computed = computeRow(item, row, account);
      const issues = computed.issues.filter((issue) => issue.blocks && issue.code !== 'quantity-none');
      return issues.length ? [{ row, item, issues, computed }] : [];
    });
    after = last.id;
  }
}

const suggestionsFor = (account: LoadedAccount, item: Item): CategorySuggestion[] =>
  suggestCategories(
    account.compiled,
    { ownCategory: item.category, title: item.title, brand: item.brand, attributes: item.attributes },
    account.categoryMap,
  );

/** What can be chosen or written to mend an issue for all listings that share it. */
export function mendOptions(
  account: LoadedAccount,
  issue: Issue,
  item: Item,
): { how: Misfit['how']; choices: Choice[] } {
  const { rules } = account.compiled;
  const { kind } = issue.mend;
  if (kind === 'map-category') {
    const first = suggestionsFor(account, item).map(({ id, path }) => ({ id, label: path.join(' › ') }));
    const leaves = rules.categories.filter((one) => one.leaf && !first.some((known) => known.id === one.id));
    return { how: 'choose', choices: [...first, ...leaves.map(({ id, path }) => ({ id, label: path.join(' › ') }))] };
  }
  if (kind === 'find-product' || issue.code === 'title-long' || issue.code === 'title-pattern')
    return { how: 'click', choices: [] };
  if (kind === 'edit-template' || kind === 'pricing') return { how: 'item', choices: [] };
  if (issue.field.startsWith('attr.')) {
    const attribute = rules.categories.flatMap((one) => one.attributes).find((one) => `attr.${one.id}` === issue.field);
    if (!attribute) return { how: 'item', choices: [] };
    return attribute.values
      ? { how: 'choose', choices: attribute.values.map((value) => ({ id: value, label: value })) }
      : { how: 'write', choices: [] };
  }
  if (issue.field.startsWith('extra.')) {
    const extra = rules.extras.find((one) => `extra.${one.id}` === issue.field);
    if (extra?.values) return { how: 'choose', choices: extra.values };
    return { how: extra?.type === 'text' || extra?.type === 'date' ? 'write' : 'item', choices: [] };
  }
  if (issue.field === 'condition' && kind === 'edit-own') return { how: 'choose', choices: rules.conditions };
  if (issue.code === 'description-long' || issue.code === 'note-long') return { how: 'click', choices: [] };
  return { how: 'item', choices: [] };
}

export const misfitKey = (issue: Pick<Issue, 'code' | 'field' | 'message'>): string =>
  `${issue.code}/${issue.field}/${issue.message}`;

/** What does not fit on these accounts, grouped by cause, most listings first. */
export async function findMisfits(market: string): Promise<{ misfits: Misfit[] }> {
  const db = database();
  const rows = await db.select({ id: accountTable.id }).from(accountTable).where(eq(accountTable.market, market));
  const groups = new Map<string, Misfit>();
  for (const account of await loadAccounts(
    db,
    rows.map((row) => row.id),
  )) {
    for await (const some of misfitRows(db, account)) {
      for (const { row, item, issues } of some) {
        for (const issue of issues) {
          const key = `${account.id}/${misfitKey(issue)}`;
          const group = groups.get(key) ?? {
            accountId: account.id,
            accountName: account.name,
            code: issue.code,
            field: issue.field,
            message: issue.message,
            mend: issue.mend,
            ...mendOptions(account, issue, item),
            live: 0,
            drafts: 0,
            items: [],
          };
          if (row.remote === 'live' || row.remote === 'review') group.live++;
          else group.drafts++;
          if (group.items.length < 5) group.items.push({ id: item.id, sku: item.sku, title: item.title });
          groups.set(key, group);
        }
      }
    }
  }
  return { misfits: [...groups.values()].sort((a, b) => b.live + b.drafts - (a.live + a.drafts)) };
}
