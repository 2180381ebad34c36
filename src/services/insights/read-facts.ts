import { type SQL, sql } from 'drizzle-orm';
import type { Facts, ItemFact, LayerFact, SaleFact } from '../../core/insight';
import { convertBack, homeCurrency } from '../../core/measure';
import { withConnection } from '../../db/client';
import { readRows } from '../../db/raw';
import { keepUp } from './keep-up';

/** What was written while somebody else was reading may be older than what was read: the last moments are read again. */
const againMs = 30_000;

type Kept = {
  sales: Map<number, SaleFact>;
  layers: Map<number, LayerFact[]>;
  items: Map<number, ItemFact>;
  wholes: Set<number>;
  upTo: number;
};
// Next.js may load this module more than once a process; what is known must be known once.
const kept = globalThis as typeof globalThis & {
  nettingFacts?: Kept;
  nettingFactsRead?: Promise<boolean>;
  nettingFactsNext?: Promise<boolean>;
};
const known = (): Kept => {
  kept.nettingFacts ??= { sales: new Map(), layers: new Map(), items: new Map(), wholes: new Set(), upTo: 0 };
  return kept.nettingFacts;
};

type SaleRow = [
  id: number,
  day: number,
  accountId: number | null,
  itemId: number | null,
  quantity: number,
  isCancelled: number,
  currency: string,
  rate: number | null,
  paid: number,
  fee: number,
  payment: number | null,
  handling: number | null,
  other: number | null,
  postage: number,
  packing: number,
  cost: number | null,
];

/** The amounts of a sale in the shop's currency, so that they add up: what the parts of the fee do not explain is commission. */
function amountsOf([, , , , , , currency, rate, paid, fee, payment, handling, other]: SaleRow): SaleFact['amounts'] {
  if (currency !== homeCurrency && !rate) return null;
  const home = (amount: number) =>
    currency === homeCurrency
      ? amount
      : convertBack(amount, { from: homeCurrency, to: currency, millionths: rate ?? 0, date: '' });
  const taken = home(paid);
  const charged = taken - home(paid - fee);
  // Heard before fees were divided: nobody knows what it was for.
  if (other === null) return { taken, commission: 0, payment: 0, handling: 0, otherFees: charged };
  const parts = { payment: home(payment ?? 0), handling: home(handling ?? 0), otherFees: home(other) };
  return { taken, commission: charged - parts.payment - parts.handling - parts.otherFees, ...parts };
}

type ItemRow = [
  id: number,
  category: string,
  brand: string,
  supplier: string,
  batch: string,
  condition: string | null,
  price: number | null,
  cost: number | null,
  standing: number,
  listed: number | null,
  cut: number | null,
  renewed: number | null,
  crossed: number | null,
];
const standings = ['active', 'archived', 'deleted'] as const;
const number = (value: number | null): number | null => (value === null ? null : Number(value));
const dayOf = (column: SQL) => sql`to_days(${column}) - to_days('1970-01-01')`;

/** Reads what has been written since the last time, in one look at the database. */
async function readOn(): Promise<void> {
  const facts = known();
  await withConnection(async (connection) => {
    const [[now = 0] = []] = await readRows<[number]>(
      connection,
      sql`select cast(unix_timestamp(utc_timestamp(3)) * 1000 as signed)`,
    );
    const since = sql`from_unixtime(${Math.max(0, facts.upTo - againMs) / 1_000})`;
    const isFirst = facts.upTo === 0;
    const sales = await readRows<SaleRow>(
      connection,
      sql`select id, ${dayOf(sql`sold_at`)}, account_id, item_id, quantity, state = 'cancelled', currency, rate_millionths,
          total - discount + buyer_postage, fee, fee_payment, fee_handling, fee_other, postage, packing, cost
        from sale where ${isFirst ? sql`1` : sql`changed_at >= ${since}`}`,
    );
    const itemColumns = sql`select i.id, i.category, i.brand, i.supplier, i.batch, i.condition_grade, i.price, i.cost, i.archived,
        ${dayOf(sql`m.listed_at`)}, ${dayOf(sql`m.cut_at`)}, ${dayOf(sql`m.renewed_at`)}, ${dayOf(sql`m.crossed_at`)}
      from item i left join item_milestone m on m.item_id = i.id`;
    const items = await readRows<ItemRow>(
      connection,
      isFirst
        ? itemColumns
        : sql`${itemColumns} where i.archived in (0, 1, 2) and i.updated_at >= ${since}
            union ${itemColumns} where i.id in (select item_id from item_milestone where kept_at >= ${since})`,
    );
    // Asked before its layers are read: what is made anew meanwhile is read the next time.
    const again = new Set(
      isFirst
        ? []
        : (await readRows<[number]>(connection, sql`select item_id from item_milestone where kept_at >= ${since}`)).map(
            ([id]) => Number(id),
          ),
    );
    const moved = isFirst ? sql`1` : sql`item_id in (select item_id from item_milestone where kept_at >= ${since})`;
    const places = await readRows<[number, number]>(
      connection,
      sql`select item_id, account_id from first_listed where ${moved} order by item_id, nth`,
    );
    const layers = await readRows<[number, number, number, number | null, LayerFact['how']]>(
      connection,
      sql`select item_id, units, ${dayOf(sql`in_on`)}, ${dayOf(sql`out_on`)}, how from stock_layer where ${moved} order by item_id`,
    );
    // Few are, and nothing else of them is written when they become one.
    const wholes = new Set(
      (await readRows<[number]>(connection, sql`select distinct set_id from item_part`)).map(([id]) => Number(id)),
    );
    for (const row of sales) {
      const [id, day, accountId, itemId, quantity, isCancelled, , , , , , , , postage, packing, cost] = row;
      facts.sales.set(Number(id), {
        day: Number(day),
        accountId: number(accountId),
        itemId: number(itemId),
        quantity,
        isCancelled: Boolean(isCancelled),
        amounts: amountsOf(row),
        postage,
        packing,
        cost,
      });
    }
    const placesOf = new Map<number, number[]>();
    for (const [itemId, accountId] of places) {
      const some = placesOf.get(itemId);
      if (some) some.push(accountId);
      else placesOf.set(itemId, [accountId]);
    }
    for (const [id, category, brand, supplier, batch, condition, price, cost, standing, ...days] of items) {
      const [listed, cut, renewed, crossed] = days.map(number);
      facts.items.set(Number(id), {
        category,
        brand,
        supplier,
        batch,
        condition: condition ?? '',
        price,
        cost,
        standing: standings[standing] ?? 'active',
        isWhole: wholes.has(Number(id)),
        listedDay: listed ?? null,
        cutDay: cut ?? null,
        renewedDay: renewed ?? null,
        crossedDay: crossed ?? null,
        places: placesOf.get(Number(id)) ?? facts.items.get(Number(id))?.places ?? [],
      });
    }
    for (const id of new Set([...wholes, ...facts.wholes])) {
      const item = facts.items.get(id);
      if (item) facts.items.set(id, { ...item, isWhole: wholes.has(id) });
    }
    facts.wholes = wholes;
    for (const id of again) facts.layers.delete(id);
    for (const [itemId, units, inDay, outDay, how] of layers) {
      if (!isFirst && !again.has(Number(itemId))) continue;
      const layer = { units, inDay: Number(inDay), outDay: number(outDay), how };
      const some = facts.layers.get(Number(itemId));
      if (some) some.push(layer);
      else facts.layers.set(Number(itemId), [layer]);
    }
    facts.upTo = Number(now);
  });
}

async function readAlong(): Promise<boolean> {
  const isWhole = await keepUp();
  await readOn();
  return isWhole;
}

/** A reading that began before somebody asked may not know what they have just written: they wait for the next. */
function readNow(): Promise<boolean> {
  if (kept.nettingFactsRead) {
    kept.nettingFactsNext ??= kept.nettingFactsRead
      .catch(() => false)
      .then(() => {
        kept.nettingFactsNext = undefined;
        return readNow();
      });
    return kept.nettingFactsNext;
  }
  kept.nettingFactsRead = readAlong().finally(() => {
    kept.nettingFactsRead = undefined;
  });
  return kept.nettingFactsRead;
}

/**
 * All that is looked back at, as it is now: held in memory, since two hundred thousand sales are summed up there in a moment and
 * not so in the database, and read on from where it was read to. The first time in a process takes longer.
 */
export async function readFacts(): Promise<{ facts: Facts; isWhole: boolean }> {
  const isWhole = await readNow();
  const { sales, layers, items } = known();
  return { facts: { sales, layers, items, today: Math.floor(Date.now() / 86_400_000) }, isWhole };
}
