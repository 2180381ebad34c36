import { randomUUID } from 'node:crypto';
import type { ConsignmentView } from '../../src/services/consignments/find-consignment';
import type { StockView } from '../../src/services/stock/find-movements';
import { act, bookCode, newBatch, scan, settled, whole } from './intake';
import { sheet } from './items';
import { accounts, call } from './stack';

/** The account whose marketplace has warehouses. */
export async function warehouseAccount(): Promise<number> {
  const found = (await accounts()).find((one) => one.market === 'crateway');
  if (!found) throw new Error('no account with warehouses');
  return found.id;
}

/** The first of the books that only these tests take. */
const firstBook = 150;
const lastBook = 170;

/** Books as they come in, found in the catalogue: so many of each, none of which was in stock before. */
export async function shelfOf(count: number, quantity: number) {
  const batch = await newBatch();
  const books: { id: number; sku: string; code: string }[] = [];
  for (let index = firstBook; index <= lastBook && books.length < count; index++) {
    const line = await scan(batch, bookCode(index), { grade: 'good', quantity, cost: 200 });
    if (line.kind !== 'item') {
      await act(batch, { act: 'undo', of: line.key });
      continue;
    }
    const done = await whole(batch, line.id);
    if (!done.item) throw new Error(`no book was made of ${bookCode(index)}: ${done.said}`);
    const { id, sku } = done.item;
    books.push({ id, sku, code: bookCode(index) });
    const { version } = (await sheet(id)).item;
    await call('PATCH', `/items/${id}`, { patch: { weightGrams: 400 }, baseVersion: version });
  }
  await settled(batch);
  if (books.length < count) throw new Error('the shelf is empty: these tests ran here too often');
  return { batch, books };
}

export const consignmentOf = async (id: number): Promise<ConsignmentView> =>
  (await call<ConsignmentView>('GET', `/consignments/${id}`)).body;

export async function newConsignment(more: Record<string, unknown> = {}): Promise<number> {
  const { status, body } = await call<{ id: number }>('POST', '/consignments', {
    name: `Send in ${randomUUID().slice(0, 8)}`,
    account: await warehouseAccount(),
    ...more,
  });
  if (status >= 300) throw new Error(`no consignment was made: ${JSON.stringify(body)}`);
  return body.id;
}

export type Packed = { is: string; message: string; to: { name: string; box: number } | null; left: number };
export const pack = async (id: number, text: string, key: string = randomUUID()): Promise<Packed> =>
  (await call<Packed>('POST', `/consignments/${id}/packed`, { key, text })).body;

export const stockOf = async (item: number): Promise<StockView> =>
  (await call<StockView>('GET', `/items/${item}/stock`)).body;

/** Units of an item here, set aside, on the way and there. */
export async function placesOf(item: number): Promise<{ here: number; aside: number; way: number; there: number }> {
  const { quantity, elsewhere } = await stockOf(item);
  const at = (place: string) => elsewhere.filter((one) => one.place === place).reduce((sum, one) => sum + one.units, 0);
  return { here: quantity, aside: at('aside'), way: at('way'), there: at('there') };
}

/** A consignment of which a unit is packed and the others wait. */
export async function halfPacked(name: string): Promise<number> {
  const { batch, books } = await shelfOf(1, 3);
  const id = await newConsignment({ name });
  await call('POST', `/consignments/${id}/units`, { batch });
  const plan = await call<{ planId: string }>('POST', `/consignments/${id}/plans`, {});
  await call('POST', `/consignments/${id}/take`, { plan: plan.body.planId });
  await pack(id, books[0]?.sku ?? '');
  return id;
}
