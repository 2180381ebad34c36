import { and, eq, inArray, ne, sql } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { type DroppedRow, droppedFile } from '../../db/schema';
import { codesIn, takenAt } from '../../photos/facts';
import { keepPhoto } from '../records/photos/keep-photo';
import { openDrop } from './open-drop';

export type Received = { state: DroppedRow['state']; said: string | null };

type Read = Pick<DroppedRow, 'hash' | 'takenAt' | 'codes'> | { refused: string };

/** A picture with what it says of itself, or why it is none. */
export async function readPicture(bytes: Buffer, path: string): Promise<Read> {
  try {
    const { hash } = await keepPhoto({ bytes, name: path.split('/').at(-1) ?? path });
    // Without its barcodes it is a photo all the same.
    const [taken, codes] = await Promise.all([takenAt(bytes), codesIn(bytes).catch(() => [])]);
    return { hash, takenAt: taken, codes };
  } catch (error) {
    // Without room on the disk nothing is wrong with the file: it is still wanted.
    if (!(error instanceof NettingError) || error.code === 'not-ready') throw error;
    return { refused: `${error.message}. ${error.facts.fix ?? ''}`.trim() };
  }
}

/** Keeps what came of a file; the same picture a second time is told as such. */
export async function settle(fileId: number, dropId: number, read: Read): Promise<Received> {
  return transaction(async (tx) => {
    await openDrop(tx, dropId);
    if ('refused' in read) {
      await tx
        .update(droppedFile)
        .set({ state: 'refused', said: read.refused.slice(0, 500) })
        .where(eq(droppedFile.id, fileId));
      return { state: 'refused', said: read.refused };
    }
    const [first] = await tx
      .select({ path: droppedFile.path })
      .from(droppedFile)
      .where(
        and(
          eq(droppedFile.dropId, dropId),
          sql`${droppedFile.hash} = ${read.hash}`,
          ne(droppedFile.id, fileId),
          inArray(droppedFile.state, ['here', 'sheet', 'added', 'left']),
        ),
      );
    const state = first ? ('twice' as const) : ('here' as const);
    const said = first ? `The same picture as ${first.path}` : null;
    await tx
      .update(droppedFile)
      .set({ ...read, state, said })
      .where(eq(droppedFile.id, fileId));
    return { state, said };
  });
}
