import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { type Change, type Inverse, invert } from '../../../core/change';
import { type Catalogue, type Field, fieldsFor } from '../../../core/field';
import type { Item } from '../../../core/item';
import type { Json } from '../../../core/json';
import { ownTransaction, readRows } from '../../../db/raw';
import { run, type TaskRow } from '../../../db/schema';
import { isInFamily } from '../../records/items/family';
import type { Held } from '../../records/items/hold-items';
import { isOfSeveral } from '../../records/items/is-artwork';
import { loadCustomFields } from '../../records/items/load-custom-fields';
import { knownPhotos } from '../../records/photos/known-photos';
import { advanceTask } from '../../records/tasks/advance-task';
import { commitItems } from '../commit/commit-items';
import { giveBackDropped } from '../commit/give-back-dropped';
import { type Planned, writeNumbers } from '../commit/write-numbers';
import { shortly } from '../many/shortly';
import { presentValue, recordedField } from '../preview/present-value';
import { type Recorded, runRecords } from './run-records';
import { notTakenBack } from './taken-back';

export type UndoTask = {
  run: number;
  send: boolean;
  /** Only these items; all of the run where nothing is said. */
  items?: number[];
  /** Only these changes, whatever was changed since. */
  overwrite?: number[];
};
export const changedSinceSchema = z.object({
  /** The change that is left as it is. */
  change: z.number(),
  itemId: z.number(),
  sku: z.string(),
  title: z.string(),
  field: z.string(),
  /** Before the run, what the run made of it, and what it is now, in words. */
  before: z.string(),
  made: z.string(),
  now: z.string(),
});
export type ChangedSince = z.infer<typeof changedSinceSchema>;
export type UndoResult = { items: number; changedSince: ChangedSince[] };

export const noUndoResult: UndoResult = { items: 0, changedSince: [] };
const portion = 500;
const mostNamed = 1_000;

type Slim = [id: number, price: number | null, quantity: number, varied: number, sku: string, title: string];

const isNumbers = (one: Recorded) =>
  one.accountId === null && one.combination === null && (one.field === 'price' || one.field === 'quantity');

/** Takes the next portion of a run back and keeps that it did, in one short transaction. */
export async function undoStep(task: TaskRow, holder: string): Promise<TaskRow> {
  const { run: undone, send, items: some, overwrite } = task.input as UndoTask; // written by `undoRun`
  const { after } = (task.cursor ?? { after: 0 }) as { after: number }; // written below
  const before = (task.result ?? noUndoResult) as UndoResult; // written below
  const actor = { id: task.byId, name: task.byName };
  const runId = task.runId ?? 0;
  return ownTransaction(async (db, connection) => {
    const found = await runRecords(db, undone, after, portion, { items: some, changes: overwrite });
    const ids = [...new Set(found.map((one) => one.itemId))];
    const isForced = overwrite !== undefined;
    const changedSince: ChangedSince[] = [];
    let items = 0;
    if (ids.length) {
      const rows = await readRows<Slim>(
        connection,
        sql`select i.id, i.price, i.quantity, (${isOfSeveral} or i.archived <> 0 or ${isInFamily('i')}), i.sku, i.title from item i where i.id in ${ids} order by i.id for update`,
      );
      // With the items held: somebody else may be taking some of it back at the same moment, and units move only once.
      const records = await notTakenBack(db, undone, found);
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
          const inverse = field && inverseOf(one, now, field, isForced);
          if (!field) continue;
          if (inverse?.kind !== 'restore') changedSince.push(since({ id, sku, title }, one, now, field));
          else if (one.field === 'price') plan.newPrice = typeof inverse.to === 'number' ? inverse.to : null;
          else plan.newQuantity = Number(inverse.to);
        }
        if (plan.price !== plan.newPrice || plan.quantity !== plan.newQuantity) planned.push(plan);
      }
      await writeNumbers(db, planned, { connection, actor, runId, why: 'undo', send: send ? 'all' : 'falls' });
      const whole = ids.filter((id) => !plain.has(id));
      const photos = await knownPhotos(db, photosIn(records));
      const committed = whole.length
        ? await commitItems(db, whole, (held) => inverses(held, records, { catalogue, changedSince, isForced }), {
            actor,
            why: 'undo',
            at: new Date(),
            runId,
            send: send ? 'all' : 'falls',
            stock: { reason: 'undo' },
            photos,
          })
        : { items: [] };
      await giveBackDropped(db, undone, whole);
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

const inverseOf = (one: Recorded, now: Json, field: Field, isForced: boolean): Inverse =>
  // Units are sums: they come back by what was moved, or not at all.
  isForced && !field.traits.ledger && field.kind.is !== 'combinations'
    ? { kind: 'restore', to: one.from }
    : invert(one, now, field);

/** All three values of what was changed since. */
function since(item: Pick<Item, 'id' | 'sku' | 'title'>, one: Recorded, now: Json, field: Field): ChangedSince {
  const text = (value: Json) => shortly(field, value);
  const { id: itemId, sku, title } = item;
  const said = { before: text(one.from), made: text(one.to), now: text(now) };
  return { change: one.id, itemId, sku, title, field: field.label, ...said };
}

type Undoing = { catalogue: Catalogue; changedSince: ChangedSince[]; isForced: boolean };

/**
 * What takes the records back, seen from what is there now; what was changed since is named and left. A run may have
 * changed one place several times: each of its changes is taken back in turn, the newest first.
 */
function inverses(
  { items, listings }: Held,
  records: readonly Recorded[],
  { catalogue, changedSince, isForced }: Undoing,
): Change[] {
  return items.flatMap((item) => {
    const back = new Map<string, { change: Change; now: Json }>();
    for (const one of records.filter((record) => record.itemId === item.id)) {
      const target = {
        item: item.id,
        ...(one.accountId === null ? {} : { account: one.accountId }),
        ...(one.combination === null ? {} : { combination: one.combination }),
      };
      const row = listings.find((other) => other.itemId === item.id && other.accountId === one.accountId);
      const field = recordedField(one, catalogue);
      if (!field) continue;
      const place = `${one.accountId ?? ''}/${one.combination ?? ''}/${one.field}`;
      const now = back.get(place)?.now ?? presentValue(item, row, one);
      const inverse = inverseOf(one, now, field, isForced);
      if (inverse.kind === 'restore') {
        const isFollowed = one.accountId !== null && inverse.to === null;
        const change: Change = { target, field: one.field, ...(isFollowed ? {} : { to: inverse.to }) };
        back.set(place, { change, now: inverse.to });
      } else changedSince.push(since(item, one, now, field));
    }
    return [...back.values()].map((one) => one.change);
  });
}
