import { and, eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { droppedFile, item, photoDrop } from '../../db/schema';
import { openDrop } from './open-drop';

const ids = z.array(z.number().int().positive()).min(1).max(2_000);

export const moveDroppedSchema = z
  .object({
    files: ids,
    to: z
      .discriminatedUnion('kind', [
        z
          .object({
            kind: z.literal('item'),
            item: z.number().int().positive(),
            before: z.number().int().positive().nullable().default(null),
          })
          .strict(),
        z.object({ kind: z.literal('tray') }).strict(),
        z.object({ kind: z.literal('aside') }).strict(),
      ])
      .describe('To an item, before another file of it or at its end; to the tray; or put aside'),
  })
  .strict();

const behind = 1_000_000;

/** Ties files to an item by hand, or unties them; whatever is tried afterwards, they stay so. */
export async function moveDropped(dropId: number, { files, to }: z.infer<typeof moveDroppedSchema>): Promise<void> {
  await transaction(async (tx) => {
    await openDrop(tx, dropId);
    const movable = and(
      eq(droppedFile.dropId, dropId),
      inArray(droppedFile.id, files),
      inArray(droppedFile.state, ['here', 'sheet', 'twice', 'left']),
    );
    if (to.kind !== 'item') {
      const state = to.kind === 'aside' ? ('left' as const) : ('here' as const);
      const said = to.kind === 'aside' ? null : 'Untied by hand';
      await tx.update(droppedFile).set({ itemId: sql`null`, tiedBy: 'hand', state, said }).where(movable);
      return;
    }
    const [there] = await tx.select({ id: item.id }).from(item).where(eq(item.id, to.item));
    if (!there) throw new NettingError('not-found', `There is no item ${to.item}`);
    const others = await tx
      .select({ id: droppedFile.id })
      .from(droppedFile)
      .where(and(eq(droppedFile.dropId, dropId), eq(droppedFile.itemId, to.item), eq(droppedFile.state, 'here')))
      .orderBy(droppedFile.place, droppedFile.id);
    await tx.update(droppedFile).set({ itemId: to.item, tiedBy: 'hand', state: 'here', said: null }).where(movable);
    const rest = others.map((one) => one.id).filter((id) => !files.includes(id));
    if (to.before === null) {
      // Behind all others, whatever places those get.
      for (const [at, id] of files.entries())
        await tx
          .update(droppedFile)
          .set({ place: behind + at })
          .where(and(eq(droppedFile.id, id), eq(droppedFile.dropId, dropId)));
      return;
    }
    // A person has put the whole row in order: all of it is by hand from now on.
    const at = Math.max(0, rest.indexOf(to.before));
    for (const [place, id] of [...rest.slice(0, at), ...files, ...rest.slice(at)].entries())
      await tx
        .update(droppedFile)
        .set({ place, tiedBy: 'hand' })
        .where(and(eq(droppedFile.id, id), eq(droppedFile.dropId, dropId)));
  });
}

/** Done with a drop: what is still in it is let go. Photos that were added stay on their items. */
export async function closeDrop(dropId: number): Promise<void> {
  await transaction(async (tx) => {
    await openDrop(tx, dropId);
    await tx.update(photoDrop).set({ state: 'closed' }).where(eq(photoDrop.id, dropId));
  });
}
