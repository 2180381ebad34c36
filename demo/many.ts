import { sql } from 'drizzle-orm';
import type { Db } from '../src/db/client';
import { rowsOf } from '../src/db/rows';
import { progressLine } from './progress';

/**
 * Fills the inventory up to `wanted` items by repeating the demo's own with other stock numbers, prices and places;
 * photos are shared. Written set by set, as a shop that moved in with all it has.
 * They are drafts: the marketplaces know nothing of them.
 */
export async function manyItems(db: Db, wanted: number, say: (text: string) => void): Promise<void> {
  const [row] = rowsOf<{ count: number; most: number }>(
    await db.execute(sql`select count(*) as count, coalesce(max(id), 0) as most from item`),
  );
  let missing = wanted - (row?.count ?? 0);
  if (missing <= 0) return;
  say(`Adding ${missing} further items …`);
  const models = sql`i.sku not like 'N%' and i.sku not like 'GH-%' and i.sku not like 'PA-%' and i.title <> '' and i.price is not null and i.photo_count > 0`;
  const [known] = rowsOf<{ count: number; rounds: number }>(
    await db.execute(
      sql`select (select count(*) from item i where ${models}) as count, (select coalesce(max(cast(substring_index(substring(sku, 2), '-', 1) as unsigned)), 0) from item where sku regexp '^N[0-9]+-') as rounds`,
    ),
  );
  for (let round = (known?.rounds ?? 0) + 1; missing > 0; round++) {
    const most = Math.min(missing, known?.count ?? 0);
    if (most === 0) return;
    const first = rowsOf<{ most: number }>(await db.execute(sql`select max(id) as most from item`))[0]?.most ?? 0;
    await db.execute(sql`insert into item (version, sku, title, brand, model, category, condition_grade, condition_note, description, highlights, keywords, attributes, currency, price, retail_price, cost, quantity, barcode, location, supplier, bought_on, notes, weight_grams, length_mm, width_mm, height_mm, main_photo, photo_count, archived, created_at, updated_at)
      select 1, concat('N', ${round}, '-', i.sku), concat(i.title, ' no. ', ${round}), i.brand, i.model, i.category, i.condition_grade, i.condition_note, i.description, i.highlights, i.keywords, i.attributes, i.currency,
        i.price + ((i.id * 37 + ${round} * 101) % 4000), i.retail_price, i.cost, 1 + ((i.id + ${round}) % 7), '', concat(substr('ABCDEFGH', 1 + ((i.id + ${round}) % 8), 1), (${round} % 40)), i.supplier, i.bought_on, '', i.weight_grams, i.length_mm, i.width_mm, i.height_mm,
        i.main_photo, i.photo_count, 0, utc_timestamp(3) - interval (${round} * 7) hour, utc_timestamp(3) - interval (${round} * 3 + i.id) minute
      from item i where ${models} order by i.id limit ${most}`);
    await db.execute(sql`insert into used_sku (sku, at) select sku, utc_timestamp(3) from item where id > ${first}`);
    await db.execute(
      sql`insert into movement (item_id, delta, reason, at, by_name) select id, quantity, 'opening', utc_timestamp(3), 'Netting' from item where id > ${first}`,
    );
    await db.execute(
      sql`insert into item_photo (item_id, hash, position) select n.id, p.hash, p.position from item n join item o on o.sku = substring(n.sku, locate('-', n.sku) + 1) join item_photo p on p.item_id = o.id where n.id > ${first}`,
    );
    await db.execute(
      sql`insert into photo_summary (item_id, longest, shortest, ratio, is_blurred, is_dark, is_empty) select n.id, s.longest, s.shortest, s.ratio, s.is_blurred, s.is_dark, s.is_empty from item n join item o on o.sku = substring(n.sku, locate('-', n.sku) + 1) join photo_summary s on s.item_id = o.id where n.id > ${first}`,
    );
    await db.execute(
      sql`insert into listing (item_id, account_id, overrides, wanted, wanted_price, wanted_quantity, quantity_cap) select i.id, a.id, '{}', 'draft', i.price, least(i.quantity, if(a.market = 'pippet', 1, 999)), if(a.market = 'pippet', 1, 999) from item i join account a on a.market in ('hallowick', 'pippet', 'oakhand') where i.id > ${first} and (i.id + a.id) % 2 = 0`,
    );
    missing -= most;
    if (round % 100 === 0) progressLine(`${missing} left   `);
  }
  say('');
}
