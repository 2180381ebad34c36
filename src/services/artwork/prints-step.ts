import { and, asc, eq, gt, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import { offeredPrints, printReference } from '../../core/artwork';
import { NettingError } from '../../core/errors';
import type { Item } from '../../core/item';
import { chooseTemplate, printTemplates } from '../../core/listing';
import { database, transaction } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { artwork, item, printable, type TaskRow, task as taskTable } from '../../db/schema';
import { makePrint, printKey } from '../../photos/print-store';
import type { Actor } from '../access/actor';
import { type LoadedAccount, loadAccounts } from '../records/accounts/load-accounts';
import { loadItems } from '../records/items/load-items';
import { advanceTask } from '../records/tasks/advance-task';
import { startTask } from '../records/tasks/start-task';

export const begunPrintsSchema = z.object({ taskId: z.number(), artworks: z.number() });

/** Every printable that is needed of an item's artwork, on all accounts with product templates. */
function referencesOf(one: Item, accounts: readonly LoadedAccount[]): string[] {
  const all = accounts.flatMap((account) => {
    const print = chooseTemplate(printTemplates(account.templates), one, account.today)?.print;
    if (!print) return [];
    return offeredPrints(one, print, account.compiled).prints.flatMap(
      (each) => printReference(one, each, print.background) ?? [],
    );
  });
  return [...new Set(all)];
}

/** Begins to make the printables of all artwork, so that sending has them at hand. */
export async function beginPrints(actor: Actor): Promise<z.infer<typeof begunPrintsSchema>> {
  return transaction(async (tx) => {
    const [count] = rowsOf<{ count: number }>(
      await tx.execute(
        sql`select count(*) as count from artwork a join item i on i.id = a.item_id where i.archived <> 2`,
      ),
    );
    const total = Number(count?.count ?? 0);
    if (total === 0) throw new NettingError('invalid', 'There is no artwork yet', { fix: 'Bring pictures in first' });
    const { id } = await startTask(tx, actor, { kind: 'prints', title: 'Making printables', input: {}, total });
    return { taskId: id, artworks: total };
  });
}

/** Pictures of which files are made in one step: it is kept, and can be stopped after. */
const atOnce = 4;
const sideBySide = 2;

export type PrintsResult = { made: number; there: number; failed: string[] };

const wordsOf = ({ made, there, failed }: PrintsResult): string =>
  [
    `${made.toLocaleString('en')} made`,
    there ? `${there.toLocaleString('en')} there already` : '',
    failed.length ? `not made, as their pictures cannot be read: ${failed.join(', ')}` : '',
  ]
    .filter(Boolean)
    .join('; ')
    .slice(0, 500);

/** Makes the printables of the next pictures; one that cannot be read is told and passed over. */
export async function printsStep(task: TaskRow, holder: string): Promise<TaskRow> {
  const db = database();
  const { after } = (task.cursor ?? { after: 0 }) as { after: number }; // written below
  const result = (task.result ?? { made: 0, there: 0, failed: [] }) as PrintsResult; // written below
  const rows = await db
    .select({ id: artwork.itemId })
    .from(artwork)
    .innerJoin(item, eq(item.id, artwork.itemId))
    .where(and(gt(artwork.itemId, after), ne(item.standing, sql`2`)))
    .orderBy(asc(artwork.itemId))
    .limit(atOnce);
  const accounts = await loadAccounts(db);
  const items = await loadItems(
    db,
    rows.map((one) => one.id),
  );
  const open = items.flatMap((one) =>
    referencesOf(one, accounts).map((reference) => ({ reference, title: one.title })),
  );
  const kept: (typeof printable.$inferInsert)[] = [];
  const failed = [...result.failed];
  let there = 0;
  const work = async () => {
    for (let next = open.pop(); next; next = open.pop()) {
      const { reference, title } = next;
      try {
        const bytes = await makePrint(reference);
        if (bytes === null) there++;
        else kept.push({ key: printKey(reference), bytes, at: new Date() });
      } catch {
        if (!failed.includes(title) && failed.length < 50) failed.push(title);
      }
    }
  };
  await Promise.all(Array.from({ length: sideBySide }, work));
  return transaction(async (tx) => {
    if (kept.length) await tx.insert(printable).ignore().values(kept);
    const now = { made: result.made + kept.length, there: result.there + there, failed };
    const isDone = rows.length < atOnce;
    if (isDone)
      await tx
        .update(taskTable)
        .set({ message: wordsOf(now) })
        .where(eq(taskTable.id, task.id));
    return advanceTask(tx, task, holder, {
      cursor: { after: rows.at(-1)?.id ?? after },
      done: rows.length,
      finished: isDone,
      result: now,
    });
  });
}
