import { buffer } from 'node:stream/consumers';
import { eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { type DroppedRow, droppedFile } from '../../db/schema';
import { eachPacked } from '../../files/unpack';
import { maxPhotoBytes } from '../../photos/intake';
import { dropFiles } from './open-drop';
import { type Received, readPicture, settle } from './settle-dropped';

const isHidden = (name: string) => name.split('/').some((part) => part.startsWith('.') || part === '__MACOSX');
const most = 2_000;

/** Takes the pictures out of a ZIP, each as a file that was dropped by itself; the ZIP is not kept. */
export async function unpackDropped(row: DroppedRow, path: string): Promise<Received> {
  let count = 0;
  try {
    await eachPacked(path, async ({ name, bytes: size, read }) => {
      if (isHidden(name) || ++count > most) return;
      const inside = `${row.path}/${name}`.slice(-300);
      const { wanted } = await dropFiles(
        { id: 'drop', name: 'drop' },
        { drop: row.dropId, files: [{ path: inside, bytes: size }] },
      );
      for (const one of wanted) {
        const picture =
          size > maxPhotoBytes
            ? { refused: `${name} is larger than 30 MB. Save it smaller and drop it again` }
            : await readPicture(await buffer(await read()), inside);
        await settle(one.id, row.dropId, picture);
      }
    });
  } catch (error) {
    if (!(error instanceof NettingError)) throw error;
    return settle(row.id, row.dropId, { refused: `${error.message}. ${error.facts.fix ?? ''}`.trim() });
  }
  if (count > most)
    return settle(row.id, row.dropId, {
      refused: `The first ${most.toLocaleString('en')} of its ${count.toLocaleString('en')} files were taken out of it. Put the others into another ZIP`,
    });
  if (count === 0) return settle(row.id, row.dropId, { refused: 'There is no picture in this ZIP' });
  await database().delete(droppedFile).where(eq(droppedFile.id, row.id));
  return { state: 'here', said: `${count} ${count === 1 ? 'file' : 'files'} taken out of it` };
}
