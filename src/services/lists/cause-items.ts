import { inArray, sql } from 'drizzle-orm';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { item } from '../../db/schema';
import { violationKey, violationRows } from '../accounts/rules/violation-rows';
import type { Cause } from '../outbox/find-causes';
import { loadAccounts } from '../records/accounts/load-accounts';
import { filterTerm } from '../records/items/filter-sql';

type Named = { sku: string; title: string };
const portion = 500;

/** Every item of a cause, of which Attention itself holds no more than one mend takes. */
export async function* causeItems(cause: Cause): AsyncGenerator<Named[]> {
  const { accountId, itemIds, count, message, violation, kind } = cause;
  const db = database();
  if (count <= itemIds.length) {
    if (count > 0)
      yield await db
        .select({ sku: item.sku, title: item.title })
        .from(item)
        .where(inArray(item.id, itemIds))
        .orderBy(item.id);
    return;
  }
  if (kind === 'rules' && violation) {
    const [account] = await loadAccounts(db, [accountId]);
    if (!account) return;
    for await (const rows of violationRows(db, account, 'live'))
      yield rows
        .filter(({ issues }) => issues.some((issue) => violationKey(issue) === violationKey(violation)))
        .map((one) => one.item);
    return;
  }
  const term = filterTerm({ listing: { account: accountId, cause: message } });
  for (let after = 0; ; ) {
    const rows = rowsOf<Named & { id: number }>(
      await db.execute(
        sql`select i.id, i.sku, i.title from item i where i.id > ${after} and ${term} order by i.id limit ${portion}`,
      ),
    );
    yield rows;
    const last = rows.at(-1);
    if (!last || rows.length < portion) return;
    after = last.id;
  }
}
