import { createHash } from 'node:crypto';
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type { Change, Refusal } from '../../core/change';
import { type Item, itemPatchSchema } from '../../core/item';
import type { Json } from '../../core/json';
import { type CellPlan, placeOf } from '../../core/table';
import { type Executor, transaction } from '../../db/client';
import { fileImport, fileImportRow, run, type TaskRow } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit-items';
import { recordChanges } from '../changes/record-changes';
import { createItemWithin } from '../items/create-item';
import { advanceTask } from '../records/advance-task';
import { loadImport } from './load-import';

/** What was seen of a file's rows before is carried out. */
export type ImportTask = { importId: number; send: boolean };
type StagedRow = typeof fileImportRow.$inferSelect;
type Decided = Record<string, 'file' | 'ours'>;

const portion = 200;

/** Which cells of a row hold: of those changed on both sides only what somebody decided for the file. */
const holding = (row: StagedRow, decided: Decided): CellPlan[] =>
  (row.cells as CellPlan[]).filter(
    (cell) => !cell.isConflict || (row.decided ?? decided[cell.column] ?? 'ours') === 'file',
  ); // written by `checkStep`

function changesOf(row: StagedRow, item: Item, decided: Decided): Change[] {
  return holding(row, decided).flatMap((cell): Change[] => {
    const place = placeOf(cell.column);
    if (!place || place.of === 'row' || place.of === 'remote') return [];
    if (place.of === 'listing')
      return [{ target: { item: item.id, account: place.account }, field: place.field, ...overrideOf(cell) }];
    const combination = row.combination || undefined;
    const units = combination ? item.variations.find((one) => one.key === combination)?.quantity : item.quantity;
    const to = cell.more === undefined ? cell.to : (units ?? 0) + cell.more;
    // What was changed since it was compared is not overwritten unseen; units that are added stay so many more.
    const from = cell.more === undefined ? { from: cell.from } : {};
    return [{ target: { item: item.id, ...(combination ? { combination } : {}) }, field: place.field, to, ...from }];
  });
}

/** Nothing said for an account alone: the listing follows the item again. */
const overrideOf = ({ to }: CellPlan): { to?: Json } =>
  to === null || to === '' || (Array.isArray(to) && to.length === 0) ? {} : { to };

/** The same row makes one item, however often it is carried out. */
const keyOf = (importId: number, line: number): string => {
  const hash = createHash('sha256').update(`file ${importId} line ${line}`).digest('hex');
  return `${hash.slice(0, 8)}-${hash.slice(8, 12)}-4${hash.slice(13, 16)}-8${hash.slice(17, 20)}-${hash.slice(20, 32)}`;
};

async function makeNew(tx: Executor, row: StagedRow, task: TaskRow, send: boolean): Promise<string | null> {
  const actor: Actor = { id: task.byId, name: task.byName };
  const cells = row.cells as CellPlan[]; // written by `checkStep`
  const fields: Record<string, Json> = {};
  const attributes: Record<string, string> = {};
  const own: Record<string, Json> = {};
  let quantity = 1;
  const there: { account: number; field: string; to: Json }[] = [];
  for (const { column, to } of cells) {
    const place = placeOf(column);
    if (place?.of === 'listing') there.push({ account: place.account, field: place.field, to });
    if (place?.of !== 'item') continue;
    if (place.field.startsWith('attributes.')) attributes[place.field.slice('attributes.'.length)] = String(to);
    else if (place.field.startsWith('own.')) own[place.field.slice('own.'.length)] = to;
    else if (place.field === 'quantity') quantity = Number(to);
    else if (place.field !== 'photos') fields[place.field] = to;
  }
  const parsed = itemPatchSchema.safeParse({ ...fields, attributes, own });
  if (!parsed.success) return parsed.error.issues[0]?.message ?? 'It is no item';
  const { id } = await createItemWithin(tx, actor, {
    fields: parsed.data,
    quantity,
    key: keyOf(row.importId, row.line),
  });
  // Taken back with the run, it is gone from the inventory again.
  const context = { actor, why: 'import' as const, at: new Date(), runId: task.runId ?? undefined };
  await recordChanges(tx, context, [{ itemId: id, itemVersion: 1, field: 'standing', from: 'deleted', to: 'active' }]);
  if (there.length)
    await commitItems(
      tx,
      [id],
      () => there.map(({ account, field, to }) => ({ target: { item: id, account }, field, to })),
      { actor, why: 'import', at: new Date(), runId: task.runId ?? undefined, send: send ? 'all' : 'falls' },
    );
  return null;
}

/** Carries out the next rows and keeps that it did, in one short transaction. */
export const importStep = (task: TaskRow, holder: string): Promise<TaskRow> =>
  transaction(async (tx) => {
    const { importId, send } = task.input as ImportTask; // written by `beginImport`
    const { options } = await loadImport(tx, importId);
    const rows = await tx
      .select()
      .from(fileImportRow)
      .where(
        and(
          eq(fileImportRow.importId, importId),
          inArray(fileImportRow.kind, ['change', 'conflict', 'new']),
          eq(fileImportRow.leftOut, false),
          eq(fileImportRow.isDone, false),
        ),
      )
      .orderBy(asc(fileImportRow.line))
      .limit(portion);
    const actor: Actor = { id: task.byId, name: task.byName };
    const known = rows.filter((row) => row.itemId !== null);
    const ids = [...new Set(known.flatMap((row) => row.itemId ?? []))];
    const refused = new Map<number, Refusal>();
    let items = 0;
    if (ids.length) {
      const committed = await commitItems(
        tx,
        ids,
        (held) =>
          held.items.flatMap((item) =>
            known.filter((row) => row.itemId === item.id).flatMap((row) => changesOf(row, item, options.decided)),
          ),
        { actor, why: 'import', at: new Date(), runId: task.runId ?? undefined, send: send ? 'all' : 'falls' },
      );
      for (const one of committed.refused) refused.set(one.item, one);
      items += committed.items.filter((one) => one.changes.length).length;
    }
    const faults = new Map<number, string>();
    for (const row of rows.filter((one) => one.kind === 'new')) {
      const fault = await makeNew(tx, row, task, send).catch((error: unknown) => {
        if (error instanceof Error && error.name === 'NettingError') return error.message;
        throw error;
      });
      if (fault === null) items++;
      else faults.set(row.line, fault);
    }
    for (const row of known) {
      const fault = row.itemId === null ? undefined : refused.get(row.itemId);
      if (fault) faults.set(row.line, fault.why);
    }
    for (const [line, why] of faults)
      await tx
        .update(fileImportRow)
        .set({ kind: 'refused', why: why.slice(0, 300) })
        .where(and(eq(fileImportRow.importId, importId), eq(fileImportRow.line, line)));
    const fine = rows.filter((row) => !faults.has(row.line)).map((row) => row.line);
    if (fine.length)
      await tx
        .update(fileImportRow)
        .set({ isDone: true })
        .where(and(eq(fileImportRow.importId, importId), inArray(fileImportRow.line, fine)));
    const isDone = rows.length < portion;
    await tx
      .update(run)
      .set({ itemCount: sql`${run.itemCount} + ${items}` })
      .where(eq(run.id, task.runId ?? 0));
    if (faults.size || isDone)
      await tx
        .update(fileImport)
        .set({
          ...(isDone ? { state: 'applied' as const } : {}),
          counts: sql`json_set(${fileImport.counts}, '$.refused', json_value(${fileImport.counts}, '$.refused') + ${faults.size})`,
        })
        .where(eq(fileImport.id, importId));
    const before = (task.result as { items: number; refused: number } | null) ?? { items: 0, refused: 0 }; // written here
    return advanceTask(tx, task, holder, {
      cursor: rows.at(-1)?.line ?? task.cursor,
      done: rows.length,
      finished: isDone,
      result: { items: before.items + items, refused: before.refused + faults.size },
    });
  });
