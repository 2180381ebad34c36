import { type SQL, sql } from 'drizzle-orm';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { account } from '../../db/schema';
import { unseal } from '../access/vault';
import { isThere } from '../records/items/is-there';

/** One thing that does not add up: what it is called, and where to look. */
export type Finding = { text: string; item: number | null };
export type Check = {
  id: string;
  /** What the finding is, in one sentence. */
  says: string;
  /** A part of the shop at a time; without it everything at once. Items are numbered up to `last`. */
  look(range: { from: number; to: number }): Promise<Finding[]>;
  /** Whether it is looked at item range by item range. */
  byItem: boolean;
};

/** Of one check no more are named. */
const most = 200;

const named = async (query: SQL): Promise<Finding[]> =>
  rowsOf<{ text: string; item: number | null }>(await database().execute(query)).map(({ text, item }) => ({
    text: String(text),
    item: item === null ? null : Number(item),
  }));

/** Offered there and not what shall be offered, with nothing on its way: more units than there are, or ended here. */
export const staleOffer = sql`${isThere} and l.busy = 0 and l.problem = 0 and l.remote <> 'maybe' and (l.wanted = 'ended' or l.sent_quantity is null or l.sent_quantity > l.wanted_quantity)`;

const offers: Check = {
  id: 'offers',
  says: 'A live listing offers something else than it shall, and nothing is on its way to it',
  byItem: true,
  look: ({ from, to }) =>
    named(sql`select concat(i.sku, ' on ', a.name, ': ', coalesce(l.sent_quantity, 'unknown'), ' offered, ', if(l.wanted = 'ended', 0, l.wanted_quantity), ' wanted') as text, i.id as item
      from listing l join item i on i.id = l.item_id join account a on a.id = l.account_id
      where l.item_id between ${from} and ${to} and ${staleOffer} limit ${most}`),
};

const leases: Check = {
  id: 'leases',
  says: 'A job is marked as running and nobody holds it',
  byItem: false,
  look: () =>
    named(sql`select concat('job ', j.id, ' on ', a.name) as text, l.item_id as item
      from job j join account a on a.id = j.account_id left join listing l on l.id = j.listing_id
      where j.state = 'running' and (j.lease_owner is null or a.lane_owner is null or a.lane_owner <> j.lease_owner or a.lane_until < utc_timestamp(3) - interval 20 second) limit ${most}`),
};

const stock: Check = {
  id: 'stock',
  says: 'The units of an item are not the sum of its movements',
  byItem: true,
  look: ({ from, to }) =>
    named(sql`select concat(i.sku, ': ', i.quantity, ' here, ', coalesce(sum(m.delta), 0), ' by the ledger') as text, i.id as item
      from item i left join movement m on m.item_id = i.id and m.place = 'here'
      where i.id between ${from} and ${to} and i.axes = '[]' group by i.id, i.sku, i.quantity having i.quantity <> coalesce(sum(m.delta), 0) limit ${most}`),
};

const layers: Check = {
  id: 'layers',
  says: 'What one looks back at is not the sum of the movements',
  byItem: true,
  look: ({ from, to }) =>
    // Only what is read to its end; artwork lies nowhere.
    named(sql`select concat(i.sku, ': ', l.here, ' in layers, ', g.units, ' by the ledger') as text, i.id as item
      from (select item_id, sum(delta) as units, max(id) as last from movement where item_id between ${from} and ${to} group by item_id) g
      join item_milestone m on m.item_id = g.item_id and m.moved_up_to = g.last
      join item i on i.id = g.item_id
      join (select i.id, coalesce(sum(y.units), 0) as here from item i left join stock_layer y on y.item_id = i.id and y.how = 'here'
        where i.id between ${from} and ${to} group by i.id) l on l.id = g.item_id
      where l.here <> greatest(0, g.units) and not exists (select 1 from artwork w where w.item_id = i.id) limit ${most}`),
};

const elsewhere: Check = {
  id: 'elsewhere',
  says: 'The units of an item at a warehouse, or on the way there, are not the sum of its movements',
  byItem: true,
  look: ({ from, to }) =>
    named(sql`select concat(i.sku, ', ', m.place, ': ', m.units, ' by the ledger') as text, i.id as item
      from (select item_id, place, account_id, sum(delta) as units from movement
        where item_id between ${from} and ${to} and place <> 'here' group by item_id, place, account_id) m
      join item i on i.id = m.item_id
      where m.units <> coalesce(cast(json_value(i.elsewhere, concat('$."', m.place, ':', m.account_id, '"')) as int), 0) limit ${most}`),
};

const dispatches: Check = {
  id: 'dispatches',
  says: 'A warehouse did not send what was sold elsewhere: send it from here, or call the order off',
  byItem: false,
  look: () =>
    named(sql`select concat(d.quantity, ' of ', d.sku, ' for ', s.order_id, ': ', coalesce(d.message, '')) as text, d.item_id as item
      from dispatch d join sale s on s.id = d.sale_id where d.state = 'refused' order by d.id desc limit ${most}`),
};

const combinations: Check = {
  id: 'combinations',
  says: 'The units of a combination are not the sum of its movements',
  byItem: true,
  look: ({ from, to }) =>
    named(sql`select concat(concat_ws(', ', i.sku, v.one, v.two, v.three), ': ', v.units, ' here, ', coalesce(sum(m.delta), 0), ' by the ledger') as text, i.id as item
      from item i
      join json_table(i.variations, '$[*]' columns (combination varchar(16) path '$.key', units int path '$.quantity', one varchar(60) path '$.values[0]', two varchar(60) path '$.values[1]', three varchar(60) path '$.values[2]')) v
      left join movement m on m.item_id = i.id and m.combination = v.combination
      where i.id between ${from} and ${to} and i.axes <> '[]'
      group by i.id, i.sku, v.combination, v.units, v.one, v.two, v.three having v.units <> coalesce(sum(m.delta), 0) limit ${most}`),
};

const wholes: Check = {
  id: 'wholes',
  says: 'Whole sets are not as many as their parts allow',
  byItem: true,
  look: ({ from, to }) =>
    named(sql`select concat(i.sku, ': ', i.quantity, ' here, ', f.units, ' by the parts') as text, i.id as item
      from (select p.set_id, greatest(0, min(floor(if(o.archived = 0, o.quantity, 0) / p.pieces))) as units
        from item_part p join item o on o.id = p.part_id where p.set_id between ${from} and ${to} group by p.set_id) f
      join item i on i.id = f.set_id where i.quantity <> f.units limit ${most}`),
};

const orders: Check = {
  id: 'orders',
  says: 'An order belongs to no item, or to none of its combinations: assign it under Sales',
  byItem: false,
  look: () =>
    named(sql`select concat(s.order_id, ' on ', coalesce(a.name, 'nowhere'), ': ', s.title) as text, s.item_id as item
      from sale s left join account a on a.id = s.account_id where s.unassigned = 1 order by s.id desc limit ${most}`),
};

const twins: Check = {
  id: 'twins',
  says: 'One listing of a marketplace is linked with two items',
  byItem: false,
  look: () =>
    named(sql`select concat(a.name, ', listing ', l.remote_id, ': ', group_concat(i.sku separator ', ')) as text, min(i.id) as item
      from listing l join item i on i.id = l.item_id join account a on a.id = l.account_id
      where l.remote_id is not null group by l.account_id, a.name, l.remote_id having count(*) > 1 limit ${most}`),
};

const events: Check = {
  id: 'events',
  says: 'Something that a marketplace told could not be understood after many tries',
  byItem: false,
  look: () =>
    named(sql`select concat(a.name, ', ', n.type, ' ', coalesce(json_value(n.data, '$.order'), json_value(n.data, '$.listing'), ''), ': ', left(coalesce(n.message, ''), 160)) as text, null as item
      from inbox n join account a on a.id = n.account_id
      where n.state = 'failed' and n.type in ('sale', 'cancelled') and n.received_at > utc_timestamp() - interval 60 day order by n.id desc limit ${most}`),
};

const secrets: Check = {
  id: 'secrets',
  says: 'The access of an account cannot be read: connect it again',
  byItem: false,
  async look() {
    const rows = await database().select({ name: account.name, secrets: account.secrets }).from(account);
    return rows.flatMap(({ name, secrets: sealed }) => {
      try {
        unseal(sealed);
        return [];
      } catch {
        return [{ text: name, item: null }];
      }
    });
  },
};

/** Everything that is looked at in the database; photos are looked at in their folder. */
export const checks: readonly Check[] = [
  offers,
  leases,
  stock,
  layers,
  elsewhere,
  dispatches,
  combinations,
  wholes,
  orders,
  twins,
  events,
  secrets,
];
