import { sql } from 'drizzle-orm';
import { database } from '../../src/db/client';
import { findInsight } from '../../src/services/insights/find-insight';
import { keepUp } from '../../src/services/insights/keep-up';
import { insightQuerySchema, insightViews } from '../../src/services/insights/query';
import { readFacts } from '../../src/services/insights/read-facts';
import { type Figure, limitFigure, percentile, time } from './measure';

const rounds = 7;
const day = (ago: number) => new Date(Date.now() - ago * 86_400_000).toISOString().slice(0, 10);

/** Two sales of each item, with the movements that belong to them, purchases, price cuts and places: eighteen months of them. */
async function writePast(): Promise<void> {
  const db = database();
  await db.execute(sql`update movement set at = utc_timestamp(3) - interval (120 + item_id * 7 % 400) day`);
  await db.execute(sql`update item set bought_on = utc_date() - interval (120 + id * 7 % 400) day`);
  await db.execute(
    sql`update listing set live_since = utc_timestamp(3) - interval (60 + item_id * 7 % 400 - account_id) day`,
  );
  for (const nth of [0, 1]) {
    await db.execute(sql`insert into sale (account_id, order_id, item_id, sku, title, quantity, unit_price, total, fee, fee_payment, fee_handling, fee_other, cost, buyer_postage, postage, packing, currency, rate_millionths, sold_at)
      select 1 + i.id % 12, concat('L', ${nth}, '-', i.id), i.id, i.sku, i.title, 1, i.price, i.price, floor(i.price * 0.11), floor(i.price * 0.03), 0, 0, i.cost, 390, 420, 60,
        if(i.id % 5 = 0, 'USD', 'EUR'), if(i.id % 5 = 0, 1080000, null), utc_timestamp(3) - interval (1 + (i.id * 13 + ${nth} * 31) % 110) day
      from item i where i.price is not null order by (i.id * 13 + ${nth} * 31) % 110 desc`);
    await db.execute(sql`insert into movement (item_id, delta, reason, account_id, sale_id, at, by_name)
      select item_id, -1, 'sold', account_id, id, sold_at, 'Netting' from sale where order_id like ${`L${nth}-%`} order by id`);
  }
  await db.execute(sql`insert into change_record (item_id, item_version, field, old_value, new_value, why, by_name, at)
    select id, 1, 'price', cast(price + 500 as char), cast(price as char), 'bulk', 'Netting', utc_timestamp(3) - interval (40 + id % 60) day from item where id % 3 = 0 and price is not null`);
  await db.execute(sql`analyze table sale, movement, change_record, listing, item`);
}

/** P12: each view of Insights, over everything and narrowed; read along before, as it is in the background. */
export async function lookingBack(say: (text: string) => void): Promise<Figure[]> {
  const figures: Figure[] = [];
  await writePast();
  const read = await time(async () => {
    while (!(await keepUp(60_000))) say('  reading along …');
  });
  // An hour later: what was written just now is read again each time.
  for (const [table, column] of [
    ['sale', 'changed_at'],
    ['item_milestone', 'kept_at'],
    ['item', 'updated_at'],
  ] as const)
    await database().execute(
      sql`update ${sql.identifier(table)} set ${sql.identifier(column)} = utc_timestamp(3) - interval 1 hour`,
    );
  const cold = await time(readFacts);
  figures.push(limitFigure('P12 the first view after a start', cold, 10_000));
  say(`  all of it read along in ${Math.round(read)} ms`);
  for (const view of insightViews)
    for (const [name, narrowed] of [
      ['everything', {}],
      ['one category', { where: JSON.stringify({ field: 'category', op: 'begins', value: 'cameras' }) }],
      ['one account', { soldOn: '3' }],
    ] as const) {
      const query = insightQuerySchema.parse({
        view,
        from: day(548),
        to: day(0),
        against: 'before',
        by: view === 'best' ? 'item' : 'category',
        ...narrowed,
      });
      const { tables } = await findInsight(query);
      if (tables.length === 0 || tables.some((one) => one.rows.length === 0 && one.id !== 'worst'))
        throw new Error(`${view}, ${name}: there is nothing to look back at`);
      const took: number[] = [];
      for (let round = 0; round < rounds; round++) took.push(await time(() => findInsight(query)));
      figures.push(limitFigure(`P12 ${view}, ${name}`, percentile(took, 0.5), 500));
    }
  return figures;
}
