import { sql } from 'drizzle-orm';
import { database } from '../../src/db/client';
import { countFlaws, findFlawed } from '../../src/services/photos/find-flaws';
import { photoSummaries } from '../../src/services/records/photos/sum-up-photos';
import { type Figure, ratioFigure, sideBySide, time } from './measure';

const db = database();
const rounds = 3;

/** Every item of the inventory with three pictures of its own, told of as if they had been looked at. */
async function picturesOfItsOwn(): Promise<void> {
  await db.execute(sql`truncate item_photo`);
  await db.execute(
    sql`insert into item_photo (item_id, hash, position) select i.id, sha2(concat(i.id, '/', n.seq), 256), n.seq from item i join seq_0_to_2 n`,
  );
  await db.execute(sql`insert ignore into photo_file (hash, mime, width, height, bytes, sharp, bright, middle, empty_share, created_at)
    select p.hash, 'image/jpeg', 900 + (p.id % 700), 700 + (p.id % 500), 100000, 20 + (p.id % 500), 40 + (p.id % 200), 90, (p.id % 100) / 110, utc_timestamp(3) from item_photo p`);
  await db.execute(sql`update item set photo_count = 3`);
  await db.execute(sql`truncate photo_summary`);
  await db.execute(
    sql`insert into photo_summary (item_id, longest, shortest, ratio, is_blurred, is_dark, is_empty) ${photoSummaries(sql`1 = 1`)}`,
  );
  await db.execute(sql`analyze table item_photo, photo_file, item, photo_summary`);
}

/** P11: what is wrong with the photos of a whole inventory, counted, and a page of them, against one pass over all photos. */
export async function wall(size: number): Promise<Figure[]> {
  await picturesOfItsOwn();
  const raw = () =>
    time(() =>
      db.execute(
        sql`select count(*) from (select p.item_id, min(f.width), min(f.height), min(f.sharp), min(f.bright) from item_photo p join photo_file f on f.hash = p.hash group by p.item_id) s`,
      ),
    );
  // Something is found before it is said how fast.
  const [{ counts }, page] = [await countFlaws(), await findFlawed({ flaw: 'blurred', after: 0, limit: 60 })];
  if (!counts.some(({ flaw, items }) => flaw === 'blurred' && items > 0) || page.items.length < 60)
    throw new Error('nothing was found of what is blurred');
  const counted = await sideBySide(rounds, () => time(countFlaws), raw);
  const paged = await sideBySide(rounds, () => time(() => findFlawed({ flaw: 'blurred', after: 0, limit: 60 })), raw);
  return [
    ratioFigure(`P11 what is wrong with photos, counted, ${size} items`, counted, 3),
    ratioFigure(`P11 a page of what is blurred, ${size} items`, paged, 1),
  ];
}
