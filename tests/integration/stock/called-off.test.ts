import { eq } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { sale } from '../../../src/db/schema';
import { publishItems, readyFilm, sheet, stateOn } from '../../support/items';
import { accountOf, call, control, marketListings, until } from '../../support/stack';

afterAll(closeDatabase);

test('called off while the others were still being ended: they are made again, as if they had ended before', async () => {
  const [hallowick, oakhand] = await Promise.all(['Hallowick', 'Oakhand'].map(accountOf));
  const places = [hallowick, oakhand] as number[]; // both are found, or the test has failed by now
  const item = await readyFilm(1);
  await publishItems([item.id], places);
  const states = () => Promise.all(places.map((one) => stateOn(item.id, one)));
  await until(states, (all) => all.every((state) => state === 'live'));
  await control('oakhand', 'fault', { kind: 'slow', times: 4, ms: 4_000 });
  const { order } = await control('hallowick', 'buy', { reference: item.sku, quantity: 1 });
  await until(
    async () => (await sheet(item.id)).item.quantity,
    (quantity) => quantity === 0,
  );
  await control('hallowick', 'cancel', { order });
  await until(
    async () => (await sheet(item.id)).item.quantity,
    (quantity) => quantity === 1,
  );
  const there = async () => (await marketListings('oakhand', item.sku)).map((one) => one.state).sort();
  await until(there, (all) => all.join() === 'ended,live' || all.join() === 'live', 60_000);
  await until(states, (all) => all.every((state) => state === 'live'), 60_000);
  expect((await call<{ jobs: { state: string }[] }>('GET', `/jobs?item=${item.id}&state=failed`)).body.jobs).toEqual(
    [],
  );
});

test('a marketplace that asks for a moment is asked again; one that asks for longer is told at once', async () => {
  const hallowick = await accountOf('Hallowick');
  const item = await readyFilm(2);
  await publishItems([item.id], [hallowick]);
  await until(
    () => stateOn(item.id, hallowick),
    (state) => state === 'live',
  );
  await control('hallowick', 'buy', { reference: item.sku, quantity: 1 });
  await until(
    async () => (await sheet(item.id)).item.quantity,
    (quantity) => quantity === 1,
  );
  const [sold] = await database().select({ id: sale.id }).from(sale).where(eq(sale.itemId, item.id));
  const id = sold?.id;
  // Only what calls off is busy: hearing goes on beside it.
  const busy = (ms: number) =>
    control('hallowick', 'fault', { kind: 'busy-429', times: 1, ms, method: 'POST', path: '/cancel' });
  try {
    await busy(8_000);
    expect(await call('POST', `/sales/${id}/cancel`, {})).toMatchObject({ status: 503, body: { code: 'market-busy' } });
    await control('hallowick', 'calm');
    await busy(1_000);
    expect(await call('POST', `/sales/${id}/cancel`, {})).toMatchObject({ status: 201, body: { quantity: 2 } });
  } finally {
    await control('hallowick', 'calm');
  }
});
