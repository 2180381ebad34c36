import { readyFilm, readyItem } from '../../support/items';
import { accountOf, call, callLines } from '../../support/stack';

type Common = {
  field: string;
  label: string;
  different: number;
  count: number;
  commonest: { shown: string; count: number; condition: unknown }[];
};
const commonOf = async (selection: unknown, account?: number) => {
  const lines = await callLines<Common>('/edits/common', { selection, account });
  return (field: string) => lines.find((one) => one.field === field);
};

test('one value, or how many different ones with the commonest first; a click on one finds just those', async () => {
  const supplier = `Sup-${Date.now().toString(36)}`;
  const made = await Promise.all([
    readyItem({ supplier, price: 9_900, keywords: ['a'], attributes: { Colour: 'black' } }),
    readyItem({ supplier, price: 9_900, keywords: ['a', 'b'], attributes: { Colour: 'Black' } }),
    readyItem({ supplier, price: 4_500, keywords: ['a', 'b'], attributes: {} }),
  ]);
  const selection = { kind: 'items', ids: made.map((one) => one.id) };
  const common = await commonOf(selection);
  expect(common('supplier')).toMatchObject({ different: 1, count: 3, commonest: [{ shown: supplier, count: 3 }] });
  expect(common('price')).toMatchObject({
    label: 'Price',
    different: 2,
    commonest: [
      { shown: '99.00', count: 2, condition: { field: 'price', op: 'is', value: 9_900 } },
      { shown: '45.00', count: 1 },
    ],
  });
  expect(common('keywords')).toMatchObject({
    different: 2,
    commonest: [{ shown: 'a, b', count: 2, condition: null }, {}],
  });
  // Capitals count, and what is not written there is a value like any other.
  expect(common('attributes.Colour')).toMatchObject({ different: 3, count: 3 });

  const narrowed = { ...selection, narrowed: { all: [common('price')?.commonest[0]?.condition] } };
  expect((await commonOf(narrowed))('price')).toMatchObject({ different: 1, count: 2 });
  const edited = await call<{ items: number }>('POST', '/edits', {
    selection: narrowed,
    steps: [{ field: 'price', do: { verb: 'set', value: 8_800 } }],
    send: false,
  });
  expect(edited.body.items).toBe(2);
  expect((await commonOf(selection))('price')?.commonest.map((one) => one.shown)).toEqual(['88.00', '45.00']);
});

test('of an account: what is written for it alone, and how many have it', async () => {
  const oakhand = await accountOf('Oakhand');
  const made = await Promise.all([readyFilm(2), readyFilm(2), readyFilm(2)]);
  for (const { id } of made.slice(0, 2))
    await call('PUT', `/items/${id}/listings/${oakhand}`, { field: 'price', value: 1_990 });
  const selection = { kind: 'items', ids: made.map((one) => one.id) };
  const common = await commonOf(selection, oakhand);
  expect(common('price')).toMatchObject({ different: 1, count: 2, commonest: [{ shown: '19.90', count: 2 }] });
  expect(common('title')).toBeUndefined();
});
