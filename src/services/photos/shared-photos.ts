import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { shotSchema, shotsOf } from '../changes/preview/preview-shots';
import { loadItems } from '../records/items/load-items';
import { knowSelection, type Selection, selectionSchema, selectionWhere } from '../records/items/selection';
import { knowPhotos } from '../records/photos/photo-knowledge';

export const sharedPhotosSchema = z.object({ selection: selectionSchema }).strict();
export const sharedPhotoSchema = z.object({ hash: z.string(), items: z.number() });

const most = 12;

const mostModels = 8;

/** Items on which steps are tried: their photos in order, each with how it is made. */
export const modelSchema = z.object({
  id: z.number(),
  sku: z.string(),
  title: z.string(),
  photos: z.array(shotSchema),
});

/** The first of the chosen items that have photos. */
async function modelsOf(selection: Selection): Promise<z.infer<typeof modelSchema>[]> {
  const db = database();
  const rows = rowsOf<{ id: number }>(
    await db.execute(
      sql`select i.id from item i where ${selectionWhere(selection)} and i.photo_count > 0 order by i.id limit ${mostModels}`,
    ),
  );
  const items = await loadItems(
    db,
    rows.map((row) => row.id),
  );
  const known = await knowPhotos(
    db,
    items.flatMap((item) => item.photos.map((photo) => photo.hash)),
  );
  return items.map(({ id, sku, title, photos }) => ({
    id,
    sku,
    title,
    photos: shotsOf(
      photos.map((photo) => photo.hash),
      known,
    ),
  }));
}

/** Pictures that stand on more than one of the chosen items, most first, and items on which steps are tried. */
export async function sharedPhotos({ selection }: z.infer<typeof sharedPhotosSchema>): Promise<{
  photos: z.infer<typeof sharedPhotoSchema>[];
  models: z.infer<typeof modelSchema>[];
}> {
  await knowSelection(selection);
  const rows = rowsOf<{ hash: string; items: number }>(
    await database().execute(sql`
      select p.hash, count(distinct p.item_id) as items from item_photo p join item i on i.id = p.item_id
      where ${selectionWhere(selection)} group by p.hash having items > 1 order by items desc, p.hash limit ${most}`),
  );
  return {
    photos: rows.map(({ hash, items }) => ({ hash, items: Number(items) })),
    models: await modelsOf(selection),
  };
}
