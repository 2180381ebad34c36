import { and, eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { droppedFile } from '../../db/schema';
import { type Received, readPicture, settle } from './settle-dropped';
import { unpackDropped } from './unpack-dropped';

/** The bytes of a file: in memory, or a ZIP that lies on the disk. */
export type DroppedBytes = { picture: Buffer } | { zip: string } | { refused: string };

/** Takes a file that was dropped: a picture, or a ZIP of pictures. What cannot be read is said, and kept as refused. */
export async function receiveDropped(dropId: number, fileId: number, given: DroppedBytes): Promise<Received> {
  const [row] = await database()
    .select()
    .from(droppedFile)
    .where(and(eq(droppedFile.id, fileId), eq(droppedFile.dropId, dropId)));
  if (!row) throw new NettingError('not-found', 'This file was not dropped here');
  // Sent again after an answer that was lost.
  if (row.state !== 'coming') return { state: row.state, said: row.said };
  if ('refused' in given) return settle(row.id, dropId, given);
  if ('zip' in given) return unpackDropped(row, given.zip);
  return settle(row.id, dropId, await readPicture(given.picture, row.path));
}
