import { eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { artwork } from '../../db/schema';
import { sidecar, withDetails } from '../../files/xmp';
import { photoStore } from '../../photos/store';
import { loadItem } from '../records/items/load-items';
import { detailsOf } from './item-details';

/**
 * The picture as it came, with what the item says of it now; or that alone, as a file beside it.
 * @throws NettingError where the file cannot hold it: then only the file beside it does
 */
export async function artworkFile(
  itemId: number,
  of: 'picture' | 'details',
): Promise<{ bytes: Buffer; name: string; mime: string }> {
  const db = database();
  const [art] = await db.select().from(artwork).where(eq(artwork.itemId, itemId));
  if (!art) throw new NettingError('not-found', 'This item is no artwork');
  const details = detailsOf(await loadItem(db, itemId));
  const base = art.name.replace(/\.[^.]+$/, '') || `artwork-${itemId}`;
  if (of === 'details')
    return { bytes: Buffer.from(sidecar(details)), name: `${base}.xmp`, mime: 'application/rdf+xml' };
  const told = withDetails(await photoStore.read(art.hash), details);
  if (!told)
    throw new NettingError(
      'conflict',
      `${art.name} cannot hold what is said of it, or says something that cannot be read`,
      {
        fix: 'Take the details as a file beside it',
      },
    );
  // A drawing of lines was made a picture.
  const name = art.name === '' || /\.svg$/i.test(art.name) ? `${base}.png` : art.name;
  return { bytes: told, name, mime: 'application/octet-stream' };
}
