import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { type Executor, transaction } from '../../db/client';
import { droppedFile, photoDrop } from '../../db/schema';
import type { Actor } from '../access/actor';

/** So many files in one drop; a folder of a whole season. */
export const mostFiles = 20_000;

export const dropFilesSchema = z
  .object({
    drop: z.number().int().positive().optional().describe('The drop that they belong to; a new one when left out'),
    files: z
      .array(z.object({ path: z.string().min(1).max(300), bytes: z.number().int().min(0) }).strict())
      .min(1)
      .max(500),
  })
  .strict();

/** The drop, held; a word where it is not there or done with. */
export async function openDrop(tx: Executor, id: number) {
  const [found] = await tx.select().from(photoDrop).where(eq(photoDrop.id, id)).for('update');
  if (!found) throw new NettingError('not-found', 'These files are not there any more');
  if (found.state !== 'open')
    throw new NettingError('too-late', 'These files are done with', { fix: 'Drop them again' });
  return found;
}

/**
 * Notes files that were dropped, before their bytes come. The same folder dropped again is the same files: what is here
 * already does not come twice.
 */
export async function dropFiles(
  actor: Actor,
  { drop, files }: z.infer<typeof dropFilesSchema>,
): Promise<{ drop: number; wanted: { id: number; path: string; bytes: number }[] }> {
  return transaction(async (tx) => {
    const id = drop ?? (await tx.insert(photoDrop).values({ byName: actor.name, at: new Date() }))[0].insertId;
    await openDrop(tx, id);
    const [{ count } = { count: 0 }] = await tx
      .select({ count: sql<number>`count(*)` })
      .from(droppedFile)
      .where(eq(droppedFile.dropId, id));
    if (Number(count) + files.length > mostFiles)
      throw new NettingError('invalid', `At most ${mostFiles.toLocaleString('en')} files lie in one drop`, {
        field: 'files',
        fix: 'Add these first, then drop the others',
      });
    await tx
      .insert(droppedFile)
      .values(files.map(({ path, bytes }) => ({ dropId: id, path, bytes })))
      .onDuplicateKeyUpdate({ set: { bytes: sql`values(bytes)` } });
    const rows = await tx
      .select({ id: droppedFile.id, path: droppedFile.path, bytes: droppedFile.bytes })
      .from(droppedFile)
      .where(
        and(
          eq(droppedFile.dropId, id),
          eq(droppedFile.state, 'coming'),
          inArray(
            droppedFile.path,
            files.map((one) => one.path),
          ),
        ),
      )
      .orderBy(asc(droppedFile.id));
    return { drop: id, wanted: rows };
  });
}
