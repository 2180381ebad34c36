import { eq, sql } from 'drizzle-orm';
import { partsKey } from '../../core/kit';
import { database, type Tx, transaction } from '../../db/client';
import { type KitRow, run, type TaskRow } from '../../db/schema';
import { loadAccounts } from '../records/accounts/load-accounts';
import { settled } from '../records/accounts/settled';
import { advanceTask } from '../records/tasks/advance-task';
import { startTask } from '../records/tasks/start-task';
import { addPortion } from './add-portion';
import { changePortion } from './change-portion';
import { type LotNow, lotsOf } from './find-kit';
import { itemsOfRun } from './items-of-run';
import { keepEntries } from './keep-entries';
import { loadKit, refuseClosed } from './load-kit';
import type { LotsResult, LotsTask } from './lots-task';

/** So many lots go in one transaction. */
const atOnce = 20;
const mostNamed = 200;

const nothing: LotsResult = { made: 0, added: 0, changed: 0, items: 0, left: [] };

/** Adds or changes the next lots, with the note that it did in the same transaction. */
export async function lotsStep(task: TaskRow, holder: string): Promise<TaskRow> {
  const input = task.input as LotsTask; // written when it was begun
  const { at } = (task.cursor ?? { at: 0 }) as { at: number }; // written below
  const before = (task.result ?? nothing) as LotsResult; // written below
  const actor = { id: task.byId, name: task.byName };
  const ids = input.lots.slice(at, at + atOnce);
  const kit = await loadKit(database(), input.kit);
  // Once for all of it: whatever listings are computed with becomes another by it.
  if (input.do === 'add' && at === 0) {
    const meant = new Set(input.lots);
    const all = await lotsOf(database(), input.kit);
    await keepEntries(
      actor,
      kit,
      all.filter((lot) => meant.has(lot.id)),
    );
  }
  return settled(() =>
    transaction(async (tx) => {
      const now = await loadKit(tx, input.kit, true);
      refuseClosed(now);
      const lots = await named(tx, input.kit, ids);
      const runId = task.runId ?? 0;
      const portion = input.do === 'add' ? untilSame(lots) : lots;
      const done =
        input.do === 'add'
          ? await addPortion(tx, { actor, kit: now, input, runId, lots: portion })
          : await changePortion(tx, { actor, kit: now, input, runId, lots: portion });
      // Up to the last one that was looked at; lots that are gone are passed over.
      const next = portion.length < lots.length ? at + ids.indexOf(portion.at(-1)?.id ?? 0) + 1 : at + ids.length;
      const result: LotsResult = {
        made: before.made + done.made,
        added: before.added + done.added,
        changed: before.changed + done.changed,
        items: before.items + done.items,
        left: [...before.left, ...done.left].slice(0, mostNamed),
      };
      await tx
        .update(run)
        .set({ itemCount: sql`${run.itemCount} + ${done.items}` })
        .where(eq(run.id, runId));
      const finished = next >= input.lots.length;
      if (finished && input.do === 'add' && input.publish) await publishAll(tx, actor, now, runId);
      return advanceTask(tx, task, holder, { cursor: { at: next }, done: next - at, finished, result });
    }),
  );
}

/** Lots in the order in which they are meant; one that is gone is left out. */
async function named(db: Parameters<typeof lotsOf>[0], kit: number, ids: number[]): Promise<LotNow[]> {
  const found = new Map((await lotsOf(db, kit, { ids })).map((lot) => [lot.id, lot]));
  return ids.flatMap((id) => found.get(id) ?? []);
}

/** Up to the first lot that is the same as one before it: that one is added to what the other has become. */
function untilSame(lots: readonly LotNow[]): LotNow[] {
  const keys = new Set<string>();
  const end = lots.findIndex((lot) => {
    const key = partsKey(lot);
    if (keys.has(key)) return true;
    keys.add(key);
    return false;
  });
  return end === -1 ? [...lots] : lots.slice(0, end);
}

/** Goes on with what has come into stock: on the marketplace, in a piece of work of its own. */
async function publishAll(tx: Tx, actor: { id: string; name: string }, kit: KitRow, runId: number): Promise<void> {
  const account = (await loadAccounts(tx)).find((one) => one.id === kit.accountId);
  const ids = await itemsOfRun(tx, runId);
  if (!account || ids.length === 0) return;
  const input = { selection: { kind: 'items', ids }, accounts: [account.id], as: 'live' };
  await startTask(tx, actor, { kind: 'publish', title: `Publish the parts of ${kit.name}`, input, total: 1 });
}
