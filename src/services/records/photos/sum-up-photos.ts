import { asc, inArray, type SQL, sql } from 'drizzle-orm';
import { flawBounds } from '../../../core/photo/flaws';
import { type Executor, transaction } from '../../../db/client';
import { item } from '../../../db/schema';

const sides = (least: SQL) => sql`coalesce(min(${least}), 0)`;

/** What there is to say of the photos of these items, as rows of `photo_summary`. */
export const photoSummaries = (which: SQL) => sql`
  select p.item_id, ${sides(sql`greatest(f.width, f.height)`)}, ${sides(sql`least(f.width, f.height)`)},
    coalesce(max(if(p.position = 0, f.width * 1e0 / f.height, null)), 1),
    coalesce(max(f.sharp < ${flawBounds.blurredBelow}), 0),
    coalesce(max(f.bright < ${flawBounds.darkBelow.bright} and f.middle < ${flawBounds.darkBelow.middle}), 0),
    coalesce(max(p.position = 0 and f.empty_share > ${flawBounds.emptyAbove}), 0)
  from item_photo p join photo_file f on f.hash = p.hash where ${which} group by p.item_id`;

/** Keeps what there is to say of the photos of these items, which the caller's transaction holds. */
export async function sumUpPhotos(db: Executor, itemIds: readonly number[]): Promise<void> {
  if (itemIds.length === 0) return;
  await db.execute(sql`delete from photo_summary where item_id in ${itemIds}`);
  await db.execute(sql`insert into photo_summary (item_id, longest, shortest, ratio, is_blurred, is_dark, is_empty)
    ${photoSummaries(sql`p.item_id in ${itemIds}`)}`);
}

const atOnce = 500;

/** The same of every item that shows one of these pictures, or one that is made of them: something is known of them now. */
export async function sumUpItemsOf(db: Executor, hashes: readonly string[]): Promise<void> {
  if (hashes.length === 0) return;
  const [rows] = (await db.execute(sql`
    select distinct p.item_id as id from item_photo p join photo_file f on f.hash = p.hash
    where f.hash in ${[...hashes]} or f.made_from in ${[...hashes]} order by p.item_id`)) as unknown as [
    { id: number }[],
  ]; // columns of the query
  const ids = rows.map((row) => Number(row.id));
  for (let at = 0; at < ids.length; at += atOnce)
    await transaction(async (tx) => {
      const some = ids.slice(at, at + atOnce);
      await tx.select({ id: item.id }).from(item).where(inArray(item.id, some)).orderBy(asc(item.id)).for('update');
      await sumUpPhotos(tx, some);
    });
}
