import { and, asc, eq, gt, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import type { Change } from '../../core/change';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { droppedFile, run, type TaskRow, task } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { knownPhotos } from '../records/photos/known-photos';
import { advanceTask } from '../records/tasks/advance-task';
import { startTask } from '../records/tasks/start-task';
import { openDrop } from './open-drop';

export const addDroppedSchema = z
  .object({
    where: z.enum(['behind', 'first']).default('behind').describe('Behind the photos that an item has, or before them'),
  })
  .strict();

type PhotosTask = { drop: number; where: 'behind' | 'first' };

const tied = (dropId: number) =>
  and(eq(droppedFile.dropId, dropId), eq(droppedFile.state, 'here'), sql`${droppedFile.itemId} is not null`);

/** Puts everything that is tied onto its items, in the background; a change of many like others, which can be taken back. */
export async function addDropped(
  actor: Actor,
  dropId: number,
  { where }: z.infer<typeof addDroppedSchema>,
): Promise<{ taskId: number; runId: number; files: number; items: number }> {
  return transaction(async (tx) => {
    await openDrop(tx, dropId);
    const [under] = await tx
      .select({ id: task.id })
      .from(task)
      .where(
        and(
          eq(task.kind, 'photos'),
          inArray(task.state, ['waiting', 'running']),
          sql`json_value(${task.input}, '$.drop') = ${dropId}`,
        ),
      );
    if (under) throw new NettingError('conflict', 'Photos of this drop are being added already');
    const [counted] = await tx
      .select({ files: sql<number>`count(*)`, items: sql<number>`count(distinct ${droppedFile.itemId})` })
      .from(droppedFile)
      .where(tied(dropId));
    const [files, items] = [Number(counted?.files ?? 0), Number(counted?.items ?? 0)];
    if (files === 0) throw new NettingError('invalid', 'None of these files is tied to an item', { field: 'files' });
    const title = `${files.toLocaleString('en')} ${files === 1 ? 'photo' : 'photos'} to ${items.toLocaleString('en')} ${items === 1 ? 'item' : 'items'}`;
    const [{ insertId: runId }] = await tx
      .insert(run)
      .values({ kind: 'edit', title, detail: { drop: dropId }, byName: actor.name });
    const input: PhotosTask = { drop: dropId, where };
    const { id: taskId } = await startTask(tx, actor, { kind: 'photos', title, input, total: items, runId });
    return { taskId, runId, files, items };
  });
}

const portion = 20;

/** Puts the photos of the next items on them, and keeps that it did, in one short transaction. */
export async function photosStep(row: TaskRow, holder: string): Promise<TaskRow> {
  const { drop, where } = row.input as PhotosTask; // written by `addDropped`
  const { after } = (row.cursor ?? { after: 0 }) as { after: number }; // written below
  const runId = row.runId ?? 0;
  return transaction(async (tx) => {
    const ids = (
      await tx
        .selectDistinct({ id: droppedFile.itemId })
        .from(droppedFile)
        .where(and(tied(drop), gt(droppedFile.itemId, after)))
        .orderBy(asc(droppedFile.itemId))
        .limit(portion)
    ).flatMap(({ id }) => id ?? []);
    let changed = 0;
    if (ids.length) {
      let files: { id: number; itemId: number | null; hash: string | null }[] = [];
      const hashes = await tx
        .select({ hash: droppedFile.hash })
        .from(droppedFile)
        .where(and(tied(drop), inArray(droppedFile.itemId, ids)));
      const { items, refused } = await commitItems(
        tx,
        ids,
        async (held): Promise<Change[]> => {
          // With the items held: a file may have been moved to another one meanwhile.
          files = await tx
            .select({ id: droppedFile.id, itemId: droppedFile.itemId, hash: droppedFile.hash })
            .from(droppedFile)
            .where(and(tied(drop), inArray(droppedFile.itemId, ids)))
            .orderBy(asc(droppedFile.place), asc(droppedFile.id))
            .for('update');
          return held.items.flatMap((item): Change[] => {
            const here = item.photos.map((photo) => photo.hash);
            const fresh = [
              ...new Set(files.flatMap((one) => (one.itemId === item.id && one.hash ? [one.hash] : []))),
            ].filter((hash) => !here.includes(hash));
            return fresh.length
              ? [
                  {
                    target: { item: item.id },
                    field: 'photos',
                    to: where === 'first' ? [...fresh, ...here] : [...here, ...fresh],
                  },
                ]
              : [];
          });
        },
        {
          actor: { id: row.byId, name: row.byName },
          why: 'bulk',
          at: new Date(),
          runId,
          send: 'falls',
          photos: await knownPhotos(
            tx,
            hashes.flatMap((one) => one.hash ?? []),
          ),
        },
      );
      changed = items.filter((one) => one.changes.length > 0).length;
      const there = new Set(items.map((one) => one.itemId));
      // What could not be put on its item stays in the drop, and says why.
      for (const { item: itemId, why } of refused) {
        there.delete(itemId);
        const own = files.filter((one) => one.itemId === itemId).map((one) => one.id);
        if (own.length) await tx.update(droppedFile).set({ said: why }).where(inArray(droppedFile.id, own));
      }
      const done = files.filter((one) => one.itemId !== null && there.has(one.itemId)).map((one) => one.id);
      if (done.length) await tx.update(droppedFile).set({ state: 'added' }).where(inArray(droppedFile.id, done));
      await tx
        .update(run)
        .set({ itemCount: sql`${run.itemCount} + ${changed}` })
        .where(eq(run.id, runId));
    }
    return advanceTask(tx, row, holder, {
      cursor: { after: ids.at(-1) ?? after },
      done: ids.length,
      finished: ids.length < portion,
      result: null,
    });
  });
}
