import { readyItem } from '../../support/items';
import { accountOf, call, until } from '../../support/stack';

type Sheet = { item: { version: number }; columns: { accountId: number; leftOut: boolean; state: string }[] };
let glintfeed: number;
const isThere = async (id: number): Promise<boolean> => {
  const { columns } = (await call<Sheet>('GET', `/items/${id}`)).body;
  return columns.find((one) => one.accountId === glintfeed)?.leftOut === false;
};
const change = async (id: number, patch: Record<string, unknown>): Promise<void> => {
  const { version } = (await call<Sheet>('GET', `/items/${id}`)).body.item;
  expect((await call('PATCH', `/items/${id}`, { baseVersion: version, patch })).status).toBe(200);
};
const belongs = (filter: unknown) => call('PATCH', `/accounts/${glintfeed}`, { belongs: filter });
/** Artwork alone, of the items of this test; all others stay as they are. */
const artwork = {
  all: [
    {
      any: [
        { field: 'category', op: 'begins', value: 'belonging/prints' },
        {
          all: [
            { field: 'category', op: 'not', value: 'belonging/film' },
            { field: 'category', op: 'filled' },
          ],
        },
      ],
    },
  ],
};

beforeAll(async () => {
  glintfeed = await accountOf('Glintfeed');
});
afterAll(() => belongs(null));

test('what belongs to an account becomes a draft there, and is left out again when it does not any more', async () => {
  const before = await readyItem({ category: 'belonging/film' });
  expect(await isThere(before.id)).toBe(true);
  expect((await belongs(artwork)).status).toBe(200);
  // Those that were there already follow it, too.
  await until(
    () => isThere(before.id),
    (there) => !there,
  );

  const roll = await readyItem({ category: 'belonging/film' });
  const print = await readyItem({ category: 'belonging/prints/framed' });
  expect([await isThere(roll.id), await isThere(print.id)]).toEqual([false, true]);
  await change(roll.id, { category: 'belonging/prints' });
  await change(print.id, { category: 'belonging/film' });
  expect([await isThere(roll.id), await isThere(print.id)]).toEqual([true, false]);
});

test('a person’s choice on the item wins, and so does what was written there', async () => {
  await belongs(artwork);
  const [film, print, written] = [
    await readyItem({ category: 'belonging/film' }),
    await readyItem({ category: 'belonging/prints' }),
    await readyItem({ category: 'belonging/prints' }),
  ];
  await call('PUT', `/items/${film.id}/listings/${glintfeed}/target`, { here: true });
  await call('PUT', `/items/${print.id}/listings/${glintfeed}/target`, { here: false });
  await call('PUT', `/items/${written.id}/listings/${glintfeed}`, { field: 'description', value: 'Own words' });
  for (const { id } of [film, print]) await change(id, { title: 'Changed' });
  await change(written.id, { category: 'belonging/film' });
  expect(await Promise.all([film, print, written].map((one) => isThere(one.id)))).toEqual([true, false, true]);
});

test('a filter that cannot be read is told, at its place', async () => {
  const wrong = await call<{ code: string }>('PATCH', `/accounts/${glintfeed}`, {
    belongs: { all: [{ field: 'category', op: 'like', value: 'x' }] },
  });
  expect(wrong.status).toBe(422);
});
