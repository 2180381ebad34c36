import { publishItems, readyFilm, readyItem, stateOn } from '../../support/items';
import { accountOf, call, callLines, until } from '../../support/stack';

type Seen = { label: string; before: string; after: string; note: string | null };
type Row = { id: number; changes: Seen[]; breaks: string[]; refused: string | null; nets: { accountId: number }[] };
type Counts = {
  items: number;
  total: number;
  isWhole: boolean;
  changed: number;
  refused: { why: string; count: number }[];
  refusedItems: number[];
  accounts: {
    name: string;
    changes: number;
    fields: { label: string; count: number }[];
    breaks: { message: string; count: number }[];
    feesBefore: number;
    feesAfter: number;
    netBefore: number;
    netAfter: number;
    seconds: number;
  }[];
};

const rowsOf = async (ids: number[], steps: unknown[], account?: number) =>
  (await call<{ rows: Row[] }>('POST', '/edits/preview', { selection: { kind: 'items', ids }, steps, account })).body
    .rows;

test('a change is seen as each marketplace will get it: titles fitted, prices rounded, what would not be taken', async () => {
  const [oakhand, pippet] = await Promise.all(['Oakhand', 'Pippet'].map(accountOf));
  const [film, draft] = await Promise.all([readyFilm(3), readyItem()]);
  await publishItems([film.id], [Number(oakhand), Number(pippet)]);
  await until(
    () => Promise.all([oakhand, pippet].map((one) => stateOn(film.id, Number(one)))),
    (states) => states.every((state) => state === 'live'),
  );
  const ids = [film.id, draft.id];
  const long = 'Fresh from the cold store of the old harbour kiosk, ';
  const steps = [
    { field: 'title', do: { verb: 'before', text: long } },
    { field: 'price', do: { verb: 'percent', basisPoints: -500, rounding: 'ninety' } },
  ];
  const [there, notThere] = await rowsOf(ids, steps, Number(pippet));
  const title = there?.changes.find((one) => one.label === 'Title');
  expect(title?.note).toMatch(/^\d+ of \d+$/);
  // Fitted to what is taken there: shorter than what the item gets.
  expect(title?.after.length).toBeLessThan(long.length + 40);
  expect(there?.changes.find((one) => one.label === 'Price')?.after).toMatch(/\d+\.\d\d/);
  expect(there?.nets.map((one) => one.accountId)).toEqual([Number(pippet)]);
  expect(notThere?.refused).toBeNull();
  // What is meant for the account and only a draft there is seen, too.
  expect((await rowsOf([draft.id], steps, Number(oakhand)))[0]?.changes.map((one) => one.label)).toContain('Title');

  const lines = await callLines<Counts>('/edits/counting', { selection: { kind: 'items', ids }, steps });
  const last = lines.at(-1);
  expect(last).toMatchObject({ items: 2, total: 2, changed: 2, isWhole: true, refused: [], refusedItems: [] });
  const shop = last?.accounts.find((one) => one.name === 'Oakhand');
  expect(shop).toMatchObject({ changes: 1, breaks: [] });
  expect(shop?.fields.map((one) => one.label)).toEqual(expect.arrayContaining(['Title', 'Price']));
  expect(shop?.feesAfter).toBeLessThan(shop?.feesBefore ?? 0);
  expect(shop?.netAfter).toBeLessThan(shop?.netBefore ?? 0);
  expect(shop?.seconds).toBeGreaterThan(0);
});

test('what would not be taken any more is counted by its cause, and what is refused is named', async () => {
  const oakhand = await accountOf('Oakhand');
  const [one, other, bare] = await Promise.all([readyFilm(2), readyFilm(2), readyItem({ cost: null })]);
  await publishItems([one.id, other.id], [oakhand]);
  for (const { id } of [one, other])
    await until(
      () => stateOn(id, oakhand),
      (state) => state === 'live',
    );
  const selection = { kind: 'items', ids: [one.id, other.id, bare.id] };
  const cleared = (
    await callLines<Counts>('/edits/counting', {
      selection,
      steps: [{ field: 'category', do: { verb: 'clear' } }],
    })
  ).at(-1);
  const shop = cleared?.accounts.find((account) => account.name === 'Oakhand');
  expect(shop?.breaks.map((cause) => cause.count)).toContain(2);
  expect((await rowsOf([one.id], [{ field: 'category', do: { verb: 'clear' } }], oakhand))[0]?.breaks).toEqual(
    expect.arrayContaining(shop?.breaks.map((cause) => cause.message) ?? []),
  );

  const computed = (
    await callLines<Counts>('/edits/counting', {
      selection,
      steps: [{ field: 'price', do: { verb: 'formula', formula: 'cost * 3' } }],
    })
  ).at(-1);
  expect(computed).toMatchObject({
    refused: expect.arrayContaining([{ why: 'It has no cost to compute with', count: expect.any(Number) }]),
    refusedItems: expect.arrayContaining([bare.id]),
  });
});

test('counts come as they are found, the whole at last', async () => {
  const selection = { kind: 'filter', filter: {} };
  const steps = [{ field: 'title', do: { verb: 'before', text: 'New: ' } }];
  const all = await callLines<Counts>('/edits/counting', { selection, steps });
  expect(all.length).toBeGreaterThan(1);
  expect(all.slice(0, -1).every((line) => !line.isWhole && line.items < line.total)).toBe(true);
  expect(all.map((line) => line.items)).toEqual([...all.map((line) => line.items)].sort((a, b) => a - b));
});

test('a step that cannot be carried out at all is refused before anything is counted', async () => {
  const body = { selection: { kind: 'filter', filter: {} }, steps: [{ field: 'photos', do: { verb: 'clear' } }] };
  await expect(callLines('/edits/counting', body)).rejects.toThrow('Photos has no such change');
});
