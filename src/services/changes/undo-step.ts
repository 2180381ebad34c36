import { and, asc, eq, gt, inArray, sql } from 'drizzle-orm';
import { type Change, invert } from '../../core/change';
import { fieldsFor, fieldValue } from '../../core/field';
import type { Item } from '../../core/item';
import { type Json, ownValue } from '../../core/json';
import type { Db } from '../../db/client';
import { ownTransaction, readRows } from '../../db/raw';
import { changeRecord, listing, run, type TaskRow } from '../../db/schema';
import { advanceTask } from '../records/advance-task';
import type { Held } from '../records/hold-items';
import { knownPhotos } from '../records/known-photos';
import { loadCustomFields } from '../records/load-custom-fields';
import { commitItems } from './commit-items';
import { type Planned, writeNumbers } from './write-numbers';

export type UndoTask = { run: number; send: boolean };
export type ChangedSince = { itemId: number; sku: string; title: string; field: string };
export type UndoResult = { items: number; changedSince: ChangedSince[] };

export const noUndoResult: UndoResult = { items: 0, changedSince: [] };
const portion = 500;
const mostNamed = 1_000;

type Recorded = {
  id: number;
  itemId: number;
  accountId: number | null;
  combination: string | null;
  field: string;
  from: Json;
  to: Json;
};
type Slim = [id: number, price: number | null, quantity: number, varied: number, sku: string, title: string];

/** What the run changed of the next items, newest first. */
async function nextRecords(db: Db, runId: number, after: number): Promise<Recorded[]> {
  const items = await db
    .selectDistinct({ id: changeRecord.itemId })
    .from(changeRecord)
    .where(and(eq(changeRecord.runId, runId), gt(changeRecord.itemId, after)))
    .orderBy(asc(changeRecord.itemId))
    .limit(portion);
  if (items.length === 0) return [];
  const rows = await db
    .select({ record: changeRecord, accountId: listing.accountId })
    .from(changeRecord)
    .leftJoin(listing, eq(listing.id, changeRecord.listingId))
    .where(
      and(
        eq(changeRecord.runId, runId),
        inArray(
          changeRecord.itemId,
          items.map((one) => one.id),
        ),
      ),
    )
    .orderBy(asc(changeRecord.itemId), sql`${changeRecord.id} desc`);
  // the record holds JSON values only
  return rows.map(({ record, accountId }) => ({
    ...record,
    accountId,
    from: (record.from ?? null) as Json,
    to: (record.to ?? null) as Json,
  }));
}

const isNumbers = (one: Recorded) =>
  one.accountId === null && one.combination === null && (one.field === 'price' || one.field === 'quantity');

/** Takes the next portion of a run back and keeps that it did, in one short transaction. */
export async function undoStep(task: TaskRow, holder: string): Promise<TaskRow> {
  const { run: undone, send } = task.input as UndoTask; // written by `undoRun`
  const { after } = (task.cursor ?? { after: 0 }) as { after: number }; // written below
  const before = (task.result ?? noUndoResult) as UndoResult; // written below
  const actor = { id: task.byId, name: task.byName };
  const runId = task.runId ?? 0;
  return ownTransaction(async (db, connection) => {
    const records = await nextRecords(db, undone, after);
    const ids = [...new Set(records.map((one) => one.itemId))];
    const changedSince: ChangedSince[] = [];
    let items = 0;
    if (ids.length) {
      const rows = await readRows<Slim>(
        connection,
        sql`select i.id, i.price, i.quantity, i.axes <> '[]', i.sku, i.title from item i where i.id in ${ids} order by i.id for update`,
      );
      const catalogue = fieldsFor(await loadCustomFields(db));
      const plain = new Set(
        rows
          .filter(([id, , , varied]) => varied === 0 && records.every((one) => one.itemId !== id || isNumbers(one)))
          .map(([id]) => id),
      );
      const planned: Planned[] = [];
      for (const [id, price, quantity, , sku, title] of rows.filter(([id]) => plain.has(id))) {
        const plan: Planned = { id, price, newPrice: price, quantity, newQuantity: quantity };
        for (const one of records.filter((record) => record.itemId === id)) {
          const field = catalogue.item(one.field);
          const now = one.field === 'price' ? plan.newPrice : plan.newQuantity;
          const inverse = field && invert(one, now, field);
          if (inverse?.kind !== 'restore') changedSince.push({ itemId: id, sku, title, field: one.field });
          else if (one.field === 'price') plan.newPrice = typeof inverse.to === 'number' ? inverse.to : null;
          else plan.newQuantity = Number(inverse.to);
        }
        if (plan.price !== plan.newPrice || plan.quantity !== plan.newQuantity) planned.push(plan);
      }
      await writeNumbers(db, planned, { connection, actor, runId, why: 'undo', send: send ? 'all' : 'falls' });
      const whole = ids.filter((id) => !plain.has(id));
      const photos = await knownPhotos(db, photosIn(records));
      const committed = whole.length
        ? await commitItems(db, whole, (held) => inverses(held, records, catalogue, changedSince), {
            actor,
            why: 'undo',
            at: new Date(),
            runId,
            send: send ? 'all' : 'falls',
            stock: { reason: 'undo' },
            photos,
          })
        : { items: [] };
      items = planned.length + committed.items.filter((one) => one.changes.length).length;
      await db
        .update(run)
        .set({ itemCount: sql`${run.itemCount} + ${items}` })
        .where(eq(run.id, runId));
    }
    return advanceTask(db, task, holder, {
      cursor: { after: ids.at(-1) ?? after },
      done: ids.length,
      finished: ids.length < portion,
      result: {
        items: before.items + items,
        changedSince: [...before.changedSince, ...changedSince].slice(0, mostNamed),
      } satisfies UndoResult,
    });
  });
}

const photosIn = (records: readonly Recorded[]): string[] =>
  records.flatMap((one) => (one.field === 'photos' && Array.isArray(one.from) ? one.from.map(String) : []));

/** What takes the records back, seen from what is there now; what was changed since is named and left. */
function inverses(
  { items, listings }: Held,
  records: readonly Recorded[],
  catalogue: ReturnType<typeof fieldsFor>,
  changedSince: ChangedSince[],
): Change[] {
  return items.flatMap((item) =>
    records
      .filter((one) => one.itemId === item.id)
      .flatMap((one): Change[] => {
        const target = {
          item: item.id,
          ...(one.accountId === null ? {} : { account: one.accountId }),
          ...(one.combination === null ? {} : { combination: one.combination }),
        };
        const overrides = listings.find((row) => row.itemId === item.id && row.accountId === one.accountId)?.overrides;
        const field =
          one.combination !== null
            ? catalogue.combination(one.field)
            : one.accountId !== null
              ? catalogue.listing(one.field)
              : catalogue.item(one.field);
        const inverse = field && invert(one, presentValue(item, overrides, one), field);
        if (inverse?.kind === 'restore')
          return one.accountId !== null && inverse.to === null
            ? [{ target, field: one.field }]
            : [{ target, field: one.field, to: inverse.to }];
        changedSince.push({ itemId: item.id, sku: item.sku, title: item.title, field: one.field });
        return [];
      }),
  );
}

function presentValue(item: Item, overrides: Record<string, Json> | undefined, one: Recorded): Json {
  if (one.combination !== null) {
    const row = item.variations.find((other) => other.key === one.combination);
    return (row as unknown as Record<string, Json> | undefined)?.[one.field] ?? null; // a combination holds JSON values only
  }
  return one.accountId !== null ? (ownValue(overrides ?? {}, one.field) ?? null) : fieldValue(item, one.field);
}
