import { sql } from 'drizzle-orm';
import type { Photo } from '../../../core/item';
import { database } from '../../../db/client';
import { photoFile } from '../../../db/schema';
import { storePhoto } from '../../../photos/intake';

/** Stores a picture that came as a file, once however often it comes, and keeps what is known of it. */
export async function keepPhoto(
  file: { bytes: Buffer; name: string },
  as: 'photo' | 'artwork' = 'photo',
): Promise<Photo & { bytes: number }> {
  const stored = await storePhoto(file.bytes, file.name, 'now', as);
  await database()
    .insert(photoFile)
    .values({ ...stored, createdAt: new Date() })
    .onDuplicateKeyUpdate({ set: { mime: sql`values(mime)` } });
  const { hash, width, height, bytes } = stored;
  return { hash, width, height, bytes };
}
