import { publishItems, readyItem, sheet, stateOn } from '../../support/items';
import { accountOf, call, control, marketListings, until } from '../../support/stack';

const field = 'extra.stockPlace';
const stockThere = async (sku: string) => {
  const [there] = await marketListings('shopfront', sku);
  return (there as unknown as { data: { stock: Record<string, number> } }).data.stock;
};
const map = async (maps: Record<string, Record<string, string>>) =>
  call('PATCH', `/accounts/${await accountOf('Shopfront')}`, { maps });

afterAll(() => map({}));

test('two places of one’s own are mapped to theirs; only the right one is lowered, the other’s stock stays', async () => {
  const shopfront = await accountOf('Shopfront');
  expect((await map({ [field]: { A: 'shop', '': 'store' } })).status).toBe(200);
  const item = await readyItem({ location: 'A3' }, 5);
  await publishItems([item.id], [shopfront]);
  await until(
    () => stateOn(item.id, shopfront),
    (state) => state === 'live',
  );
  expect(await stockThere(item.sku)).toEqual({ shop: 5 });
  // Somebody keeps some of it at the other place.
  const [there] = await marketListings('shopfront', item.sku);
  await control('shopfront', 'change', { listing: there?.id, set: { stock: { shop: 5, store: 7 } } });
  await call('POST', `/items/${item.id}/sold`, { quantity: 2, unitPrice: 9_900 });
  await until(
    () => stockThere(item.sku),
    (stock) => stock.shop === 3,
  );
  expect(await stockThere(item.sku)).toEqual({ shop: 3, store: 7 });
  // Moved to the storeroom it is stock of that, and no more of the shop.
  const { version } = (await sheet(item.id)).item;
  await call('PATCH', `/items/${item.id}`, { baseVersion: version, patch: { location: 'C1' } });
  await publishItems([item.id], [shopfront]);
  await until(
    () => stockThere(item.sku),
    (stock) => stock.shop === 0,
  );
  expect((await stockThere(item.sku)).store).toBe(3);
});

test('a condition is told as the account says, where the nine grades do not fit', async () => {
  const shopfront = await accountOf('Shopfront');
  const item = await readyItem({ condition: 'poor' }, 1);
  type Column = { accountId: number; fields: { field: string; value: unknown; origin: string }[] };
  const condition = async () =>
    (await call<{ columns: Column[] }>('GET', `/items/${item.id}`)).body.columns
      .find((one) => one.accountId === shopfront)
      ?.fields.find((one) => one.field === 'condition');
  expect(await condition()).toMatchObject({ value: 'used' });
  await map({ condition: { poor: 'defective' } });
  expect(await condition()).toMatchObject({ value: 'defective', origin: 'account' });
});
