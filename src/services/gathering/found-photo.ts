import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { foundListing } from '../../db/schema';
import { mostPixels } from '../../photos/limits';
import { theirPicture } from './their-picture';

const side = 96;

/** The first photo of a listing that was found, small: fetched from the marketplace for whoever looks at the list. */
export async function foundPhoto(id: number): Promise<Buffer> {
  const [row] = await database()
    .select({ photos: foundListing.photos })
    .from(foundListing)
    .where(eq(foundListing.id, id));
  const [first] = row?.photos ?? [];
  if (!first) throw new NettingError('not-found', 'It has no photo');
  const bytes = await theirPicture(first.url);
  return sharp(bytes, { limitInputPixels: mostPixels })
    .rotate()
    .resize(side, side, { fit: 'cover' })
    .webp({ quality: 74 })
    .toBuffer();
}
