import { asc, eq, inArray } from 'drizzle-orm';
import type { Visible } from '../../../core/artwork';
import { NettingError } from '../../../core/errors';
import type { Item } from '../../../core/item';
import type { Executor } from '../../../db/client';
import { artwork, item, itemPhoto, photoFile } from '../../../db/schema';

export type ItemRow = typeof item.$inferSelect;

/** Items with their photos in order, in the order of the ids given; unknown ids are left out. */
export async function loadItems(db: Executor, ids: number[]): Promise<Item[]> {
  if (ids.length === 0) return [];
  const rows = await db.select().from(item).where(inArray(item.id, ids));
  const photos = await db
    .select({
      itemId: itemPhoto.itemId,
      hash: itemPhoto.hash,
      flaw: itemPhoto.flaw,
      width: photoFile.width,
      height: photoFile.height,
      visible: photoFile.visible,
      artwork: artwork.hash,
      fileName: artwork.name,
    })
    // From the items, however few files there are: the other way round every photo of the shop would be read.
    .from(itemPhoto, { forceIndex: 'photo_item' })
    .innerJoin(photoFile, eq(photoFile.hash, itemPhoto.hash))
    // The picture of artwork is that on its own item alone; anywhere else it is a photo.
    .leftJoin(artwork, eq(artwork.itemId, itemPhoto.itemId))
    .where(inArray(itemPhoto.itemId, ids))
    .orderBy(asc(itemPhoto.itemId), asc(itemPhoto.position), asc(itemPhoto.id));
  const byItem = groupByItem(photos);
  const byId = new Map(rows.map((row) => [row.id, row]));
  return ids.flatMap((id) => {
    const row = byId.get(id);
    return row ? [toItem(row, byItem.get(id) ?? [])] : [];
  });
}

/** Rows by the item that they are of. */
export function groupByItem<T extends { itemId: number }>(rows: readonly T[]): Map<number, T[]> {
  const groups = new Map<number, T[]>();
  for (const row of rows) {
    const group = groups.get(row.itemId);
    if (group) group.push(row);
    else groups.set(row.itemId, [row]);
  }
  return groups;
}

type PhotoRow = {
  hash: string;
  width: number;
  height: number;
  flaw: string | null;
  visible: Visible | null;
  artwork: string | null;
  fileName: string | null;
};

function toItem(row: ItemRow, photos: PhotoRow[]): Item {
  const {
    mainPhoto: _main,
    photoCount: _count,
    madeBy: _by,
    isVaried: _varied,
    createdAt: _created,
    updatedAt: _updated,
    ...fields
  } = row;
  return {
    ...fields,
    photos: photos.map(({ hash, width, height, flaw, visible, artwork: of, fileName }) => ({
      hash,
      width,
      height,
      ...(flaw ? { flaw } : {}),
      ...(visible && of === hash ? { visible, ...(fileName ? { fileName } : {}) } : {}),
    })),
  };
}

export async function loadItem(db: Executor, id: number): Promise<Item> {
  const [found] = await loadItems(db, [id]);
  if (!found) throw new NettingError('not-found', `There is no item ${id}`);
  return found;
}
