import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database, type Executor, type Tx, transaction } from '../../db/client';
import { fileImport, fileImportRow, run, type TaskRow } from '../../db/schema';
import { commitItems } from '../changes/commit/commit-items';
import type { SendPart } from '../changes/commit/queue-changes';
import { knownPhotos } from '../records/photos/known-photos';
import { advanceTask } from '../records/tasks/advance-task';
import { changesOf, type StagedRow } from './changes-of';
import { fetchPhotos } from './fetch-photos';
import { archivePath } from './import-path';
import { loadImport } from './load-import';
import { makeNewItem } from './make-new-item';
import { openImport } from './open-import';
import { photoRefs, withPhotos } from './with-photos';

/** What was seen of a file's rows before is carried out. */
export type ImportTask = { importId: number; send: boolean; part?: SendPart };

const portion = 200;
/** Of rows that name photos, which are fetched first. */
const withPhotosAtOnce = 20;

/** The rows that are carried out next. */
const nextStaged = (db: Executor, importId: number, most: number): Promise<StagedRow[]> =>
  db
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
    .limit(most);

/**
 * Carries out the next rows and keeps that it did, in one short transaction; the photos that they name are fetched
 * before, while nothing is held.
 */
export async function importStep(task: TaskRow, holder: string): Promise<TaskRow> {
  const { importId, send, part } = task.input as ImportTask; // written by `beginImport`
  const { options, contents } = await loadImport(database(), importId);
  const coming = await nextStaged(database(), importId, portion);
  const some = coming.some((row) => photoRefs(row).length) ? coming.slice(0, withPhotosAtOnce) : coming;
  const refs = some.flatMap(photoRefs);
  const fetched = refs.length ? await fetchPhotos(refs, await openImport(archivePath(contents))) : new Map();
  return transaction(async (tx) => {
    const found = await nextStaged(tx, importId, some.length);
    const faults = new Map<number, string>();
    const rows = found.flatMap((row): StagedRow[] => {
      const made = withPhotos(row, fetched);
      if ('row' in made) return [made.row];
      faults.set(row.line, made.fault);
      return [];
    });
    const order: Order = { task, send, part, decided: options.decided, faults };
    const items = (await changeKnown(tx, rows, order)) + (await makeNew(tx, rows, order));
    const isDone = coming.length < portion && some.length === coming.length;
    await keepOutcome(tx, importId, { found, faults, isDone });
    await tx
      .update(run)
      .set({ itemCount: sql`${run.itemCount} + ${items}` })
      .where(eq(run.id, task.runId ?? 0));
    const before = (task.result as { items: number; refused: number } | null) ?? { items: 0, refused: 0 }; // written here
    return advanceTask(tx, task, holder, {
      cursor: found.at(-1)?.line ?? task.cursor,
      done: found.length,
      finished: isDone,
      result: { items: before.items + items, refused: before.refused + faults.size },
    });
  });
}

type Order = {
  task: TaskRow;
  send: boolean;
  part?: SendPart;
  decided: Record<string, 'file' | 'ours'>;
  /** Rows that are not carried out, and why; filled on the way. */
  faults: Map<number, string>;
};

/** Rows of items that are there: each item changes whole or not at all. Returns how many became different. */
async function changeKnown(tx: Tx, rows: readonly StagedRow[], order: Order): Promise<number> {
  const { task, send, part, decided, faults } = order;
  const known = rows.filter((row) => row.itemId !== null);
  const ids = [...new Set(known.flatMap((row) => row.itemId ?? []))];
  if (ids.length === 0) return 0;
  const committed = await commitItems(
    tx,
    ids,
    ({ items }) =>
      items.flatMap((item) =>
        known.filter((row) => row.itemId === item.id).flatMap((row) => changesOf(row, item, decided)),
      ),
    {
      actor: { id: task.byId, name: task.byName },
      why: 'import',
      at: new Date(),
      runId: task.runId ?? undefined,
      send: send ? 'all' : 'falls',
      part,
      photos: await knownPhotos(tx, known.flatMap(photoRefs)),
    },
  );
  const refused = new Map(committed.refused.map((one) => [one.item, one.why]));
  for (const row of known) {
    const why = refused.get(row.itemId ?? 0);
    if (why !== undefined) faults.set(row.line, why);
  }
  return committed.items.filter((one) => one.changes.length).length;
}

/** Rows of no item: each becomes one, or leaves nothing behind. Returns how many were made. */
async function makeNew(tx: Tx, rows: readonly StagedRow[], { task, send, faults }: Order): Promise<number> {
  let made = 0;
  for (const row of rows.filter((one) => one.kind === 'new')) {
    const fault = await tx
      .transaction((own) => makeNewItem(own, row, task, send))
      .catch((error: unknown) => {
        if (error instanceof NettingError) return error.message;
        throw error;
      });
    if (fault === null) made++;
    else faults.set(row.line, fault);
  }
  return made;
}

/** Which rows are done, which are refused after all, and whether that was everything. */
async function keepOutcome(
  tx: Tx,
  importId: number,
  { found, faults, isDone }: { found: readonly StagedRow[]; faults: ReadonlyMap<number, string>; isDone: boolean },
): Promise<void> {
  for (const [line, why] of faults)
    await tx
      .update(fileImportRow)
      .set({ kind: 'refused', why: why.slice(0, 300) })
      .where(and(eq(fileImportRow.importId, importId), eq(fileImportRow.line, line)));
  const fine = found.filter((row) => !faults.has(row.line)).map((row) => row.line);
  if (fine.length)
    await tx
      .update(fileImportRow)
      .set({ isDone: true })
      .where(and(eq(fileImportRow.importId, importId), inArray(fileImportRow.line, fine)));
  if (faults.size === 0 && !isDone) return;
  await tx
    .update(fileImport)
    .set({
      ...(isDone ? { state: 'applied' as const } : {}),
      counts: sql`json_set(${fileImport.counts}, '$.refused', json_value(${fileImport.counts}, '$.refused') + ${faults.size})`,
    })
    .where(eq(fileImport.id, importId));
}
