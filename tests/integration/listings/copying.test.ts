import { publishItems, readyItem, stateOn } from '../../support/items';
import { accountOf, call, marketListings, until } from '../../support/stack';

type Plan = { live: number; there: number; leftOut: number; copied: number };
type Copied = { runId: number; queued: number; notReady: number; copied: number };
let from: number;
let to: number;
let abroad: number;

beforeAll(async () => {
  [from = 0, to = 0, abroad = 0] = await Promise.all(['Hallowick', 'Shopfront', 'Selasar'].map(accountOf));
});

async function liveItems(count: number): Promise<{ id: number; sku: string }[]> {
  const items = await Promise.all(Array.from({ length: count }, () => readyItem()));
  await publishItems(
    items.map((one) => one.id),
    [from],
  );
  for (const { id } of items)
    await until(
      () => stateOn(id, from),
      (state) => state === 'live',
    );
  return items;
}
const given = (ids: number[], target: number, more = {}) => ({
  from,
  to: target,
  selection: { kind: 'items', ids },
  as: 'draft',
  takeOwn: true,
  ...more,
});
const overridesOn = async (id: number, account: number) => {
  const { body } = await call<{
    columns: { accountId: number; fields: { field: string; value: unknown; origin: string }[] }[];
  }>('GET', `/items/${id}`);
  const column = body.columns.find((one) => one.accountId === account);
  return Object.fromEntries(
    (column?.fields ?? []).filter((one) => one.origin === 'override').map((one) => [one.field, one.value]),
  );
};

test('the plan says what is live, what is there already, and what was left out there', async () => {
  const [one, two, three] = await liveItems(3);
  if (!one || !two || !three) throw new Error('three were made');
  await publishItems([two.id], [to]);
  await until(
    () => stateOn(two.id, to),
    (state) => state === 'live',
  );
  await call('PUT', `/items/${three.id}/listings/${to}/target`, { here: false });
  const plan = await call<Plan>('POST', '/copies/plan', given([one.id, two.id, three.id], to));
  expect(plan.body).toEqual({ live: 3, there: 1, leftOut: 1, copied: 1 });
});

test('what was written for the first shop alone goes along; what is written there already stays', async () => {
  const [one] = await liveItems(1);
  if (!one) throw new Error('one was made');
  const write = (account: number, field: string, value: unknown) =>
    call('PUT', `/items/${one.id}/listings/${account}`, { field, value });
  await write(from, 'title', 'Written for the first shop');
  await write(from, 'price', 15_900);
  await write(to, 'title', 'Written there before');
  await call<Copied>('POST', '/copies', given([one.id], to));
  expect(await overridesOn(one.id, to)).toMatchObject({ title: 'Written there before', price: 15_900 });
});

test('a price does not go along into another currency', async () => {
  const [one] = await liveItems(1);
  if (!one) throw new Error('one was made');
  await call('PUT', `/items/${one.id}/listings/${from}`, { field: 'price', value: 15_900 });
  await call<Copied>('POST', '/copies', given([one.id], abroad));
  expect(await overridesOn(one.id, abroad)).not.toHaveProperty('price');
});

test('made live it is sent once; asked for again there is nothing to do', async () => {
  const items = await liveItems(2);
  const ids = items.map((one) => one.id);
  const copied = await call<Copied>('POST', '/copies', given(ids, to, { as: 'live', takeOwn: false }));
  expect(copied.body).toMatchObject({ copied: 2, queued: 2 });
  for (const { id, sku } of items) {
    await until(
      () => stateOn(id, to),
      (state) => state === 'live',
    );
    expect(await marketListings('shopfront', sku)).toHaveLength(1);
  }
  expect(await call('POST', '/copies', given(ids, to, { as: 'live' }))).toMatchObject({
    status: 422,
    body: { title: 'Everything is there already' },
  });
});

test('a shop is not copied onto itself', async () => {
  const [one] = await liveItems(1);
  expect(await call('POST', '/copies/plan', given([one?.id ?? 0], from))).toMatchObject({
    status: 422,
    body: { field: 'to' },
  });
});
