import { publishItems, readyItem, sheet } from '../../support/items';
import { accountOf, call, control, marketListings, until } from '../../support/stack';

const markets = [
  ['Hallowick', 'hallowick'],
  ['Oakhand', 'oakhand'],
  ['Shopfront', 'shopfront'],
] as const;
const times = 200;

/** Some at a time, so that the making of many does not take minutes. */
async function inParallel<T>(count: number, work: (index: number) => Promise<T>, hands = 8): Promise<T[]> {
  const results: T[] = [];
  let next = 0;
  await Promise.all(
    Array.from({ length: hands }, async () => {
      while (next < count) {
        const index = next++;
        results[index] = await work(index);
      }
    }),
  );
  return results;
}

type Sale = { sku: string; orderId: string; oversold: boolean };
async function salesOf(skus: Set<string>): Promise<Sale[]> {
  const found: Sale[] = [];
  for (let before = ''; ; ) {
    const { body } = await call<{ sales: Sale[]; next: number | null }>('GET', `/sales?limit=200${before}`);
    found.push(...body.sales.filter((sale) => skus.has(sale.sku)));
    if (body.next === null) return found;
    before = `&before=${body.next}`;
  }
}

test(`the last piece is sold on three marketplaces in the same second, ${times} times`, async () => {
  const items = await inParallel(times, () => readyItem());
  const skus = new Set(items.map((one) => one.sku));
  const accounts = await Promise.all(markets.map(([name]) => accountOf(name)));
  await publishItems(
    items.map((one) => one.id),
    accounts,
  );
  const liveOn = async (market: string) =>
    (await marketListings(market)).filter((one) => skus.has(one.summary.reference) && one.state === 'live');
  for (const [, market] of markets)
    await until(
      () => liveOn(market),
      (live) => live.length === times,
      240_000,
    );

  // Each marketplace sells what it still shows: nobody there knows of the others.
  const orders = new Map<string, string[]>();
  await inParallel(times, async (index) => {
    const sku = items[index]?.sku ?? '';
    const sold = await Promise.all(markets.map(([, market]) => control(market, 'buy', { reference: sku })));
    orders.set(
      sku,
      sold.flatMap((one) => (typeof one.order === 'string' ? [one.order] : [])),
    );
  });
  const expected = [...orders.values()].flat();
  expect(expected.length).toBeGreaterThan(times);

  const sales = await until(
    () => salesOf(skus),
    (seen) => seen.length >= expected.length,
    300_000,
  );
  // Every order is recorded, once.
  expect(sales.map((sale) => sale.orderId).sort()).toEqual([...expected].sort());
  // Every surplus is shown: of each item all orders but one.
  const surplus = sales.filter((sale) => sale.oversold);
  expect(surplus).toHaveLength(expected.length - times);
  for (const sku of skus) expect(sales.filter((sale) => sale.sku === sku && !sale.oversold)).toHaveLength(1);
  const { body: progress } = await call<{ oversold: number }>('GET', '/progress');
  expect(progress.oversold).toBeGreaterThanOrEqual(surplus.length);
  // None of the listings is left live.
  for (const [, market] of markets)
    await until(
      () => liveOn(market),
      (live) => live.length === 0,
      240_000,
    );
  const [one] = items;
  expect((await sheet(one?.id ?? 0)).item.quantity).toBe(1 - (orders.get(one?.sku ?? '')?.length ?? 0));
}, 1_200_000);
