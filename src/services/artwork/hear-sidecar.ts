import { and, desc, eq, ne, sql } from 'drizzle-orm';
import { differing } from '../../core/artwork';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { artwork, item } from '../../db/schema';
import { readSidecar } from '../../files/xmp';
import { loadItem } from '../records/items/load-items';
import { detailsOf } from './item-details';

const base = (name: string) => name.replace(/\.[^.]+$/, '');

/** Hears what a file beside a picture says of it, by the picture's name. It is shown, never taken over by itself. */
export async function hearSidecar(file: {
  bytes: Buffer;
  name: string;
}): Promise<{ itemId: number; differs: string[] }> {
  const { details, broken } = readSidecar(file.bytes.toString('utf8'));
  const label = file.name.slice(0, 80) || 'The file';
  if (broken) throw new NettingError('invalid', `${label} cannot be read as XMP`, { fix: 'Export it once more' });
  const [row] = await database()
    .select({ id: artwork.itemId })
    .from(artwork)
    .innerJoin(item, eq(item.id, artwork.itemId))
    .where(and(ne(item.standing, sql`2`), sql`regexp_replace(${artwork.name}, '[.][^.]+$', '') = ${base(file.name)}`))
    .orderBy(desc(artwork.itemId))
    .limit(1);
  if (!row)
    throw new NettingError('not-found', `${label}: there is no picture of this name`, {
      fix: 'Bring the picture in first',
    });
  await database().update(artwork).set({ said: details, isBroken: false }).where(eq(artwork.itemId, row.id));
  return { itemId: row.id, differs: differing(detailsOf(await loadItem(database(), row.id)), details) };
}
