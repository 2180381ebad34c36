import { publishItems, readyFilm, sheet, stateOn } from '../../support/items';
import { accountOf, call, until } from '../../support/stack';

test('listings of which less than so much is left are found, and what is dearer, or cheaper to buy, is not any more', async () => {
  const oakhand = await accountOf('Oakhand');
  const film = await readyFilm(4);
  await publishItems([film.id], [oakhand]);
  await until(
    () => stateOn(film.id, oakhand),
    (state) => state === 'live',
  );
  const below = async (netBelow: number) => {
    const where = JSON.stringify({
      all: [{ field: 'sku', op: 'is', value: film.sku }, { listing: { account: oakhand, netBelow } }],
    });
    const query = new URLSearchParams({ where });
    const { body } = await call<{ items: { id: number }[] }>('GET', `/items?${query}`);
    return body.items.length === 1;
  };
  /** The bound under which it is found, to the cent. */
  const bound = async () => {
    let [low, high] = [-20_000, 20_000];
    while (high - low > 1) {
      const middle = Math.floor((low + high) / 2);
      if (await below(middle)) high = middle;
      else low = middle;
    }
    return low;
  };
  /** The same twice: nothing was computed anew between two looks. */
  const settled = async () => {
    const one = await bound();
    return (await bound()) === one ? one : null;
  };
  const first = (await until(settled, (now) => now !== null)) ?? 0;
  expect(first).toBeGreaterThan(-20_000);
  // Dearer by the way of many: what is left grows by less than the price does.
  const edit = (steps: unknown[]) =>
    call('POST', '/edits', { selection: { kind: 'items', ids: [film.id] }, steps, send: false });
  await edit([{ field: 'price', do: { verb: 'amount', amount: 1_000 } }]);
  const dearer = (await until(settled, (now) => now !== null && now !== first)) ?? 0;
  expect(dearer).toBeGreaterThan(first);
  expect(dearer).toBeLessThan(first + 1_000);
  // Dearer to buy: just so much less is left.
  const { version } = (await sheet(film.id)).item;
  const cost = (await call<{ item: { cost: number | null } }>('GET', `/items/${film.id}`)).body.item.cost ?? 0;
  await call('PATCH', `/items/${film.id}`, { baseVersion: version, patch: { cost: cost + 300 } });
  await until(settled, (now) => now === dearer - 300);
});
