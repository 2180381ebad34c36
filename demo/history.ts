import { feesOf } from '../src/core/price';
import type { Db } from '../src/db/client';
import { item, sale } from '../src/db/schema';
import { loadAccounts } from '../src/services/records/accounts/load-accounts';
import type { DemoItem } from './catalogue';
import { seeded } from './draw/scene';

const towns = ['Marrowby', 'Osterlund', 'Vell', 'Tarnhaven', 'Lindmoor', 'Eskerby', 'Port Solling'];
const day = 86_400_000;

/** Eighteen months of sales of what is stocked in quantity, with fees as each marketplace charges them. */
export async function writeHistory(db: Db, demo: DemoItem[]): Promise<void> {
  const accounts = (await loadAccounts(db)).filter(
    (one) => one.row.market !== 'pippet' || one.row.remoteName === 'grainhouse',
  );
  const items = await db
    .select({ id: item.id, sku: item.sku, title: item.title, cost: item.cost, price: item.price })
    .from(item);
  const stocked = demo
    .filter((one) => one.quantity > 1)
    .flatMap((one) => items.find((row) => row.sku === one.fields.sku) ?? []);
  const random = seeded(77);
  const rows: (typeof sale.$inferInsert)[] = [];
  for (let back = 540; back > 1; back -= 1) {
    const today = Math.floor(random() * 2.2);
    for (let n = 0; n < today; n++) {
      const what = stocked[Math.floor(random() * stocked.length)];
      const shop = accounts[Math.floor(random() * accounts.length)];
      if (!what?.price || !shop) continue;
      const quantity = what.price < 2_000 ? 1 + Math.floor(random() * 4) : 1;
      const unitPrice = Math.round(what.price * (0.92 + random() * 0.14));
      const total = unitPrice * quantity;
      // The buyer pays what the parcel costs.
      const postage = what.price < 2_000 ? 340 : 510;
      rows.push({
        accountId: shop.id,
        orderId: `past-${rows.length + 1}`,
        itemId: what.id,
        sku: what.sku,
        title: what.title,
        quantity,
        unitPrice,
        total,
        fee: feesOf(shop.compiled.rules.fees, { total: total + postage, categoryId: null, liveCount: 60 }).total,
        buyerPostage: postage,
        postage,
        cost: what.cost,
        currency: 'EUR',
        buyerTown: towns[Math.floor(random() * towns.length)] ?? '',
        soldAt: new Date(Date.now() - back * day + random() * day),
      });
    }
  }
  for (let at = 0; at < rows.length; at += 500) await db.insert(sale).values(rows.slice(at, at + 500));
}
