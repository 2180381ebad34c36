import { closeDatabase } from '../../../src/db/client';
import { countItems } from '../../../src/services/records/items/count-items';
import { findItems, findItemsSchema } from '../../../src/services/records/items/find-items';
import { readyItem } from '../../support/items';

afterAll(closeDatabase);

/** All that is found, page by page. */
async function paged(input: Record<string, unknown>): Promise<number[]> {
  const ids: number[] = [];
  for (let after: string | undefined; ; ) {
    const page = await findItems(findItemsSchema.parse({ ...input, after }));
    ids.push(...page.items.map((one) => one.id));
    if (page.next === null) return ids;
    after = page.next;
  }
}
/** The same by the index of words: asked for with something besides, which everything has. */
const besides = JSON.stringify({ all: [{ field: 'titleLength', op: 'between', value: [0, null] }] });

test('words that many records have are met on the way: the same rows in the same order, none twice, none left out', async () => {
  await Promise.all(
    ['Brask kett one', 'Kettering brask two', 'Sockett brask three'].map((title) => readyItem({ title })),
  );
  for (const q of ['brask', 'film', 'brask kett', 'bra', 'nothing-of-this-name', 'k-2', '35'])
    for (const order of [
      { sort: 'created', dir: 'desc' },
      { sort: 'title', dir: 'asc' },
      { sort: 'price', dir: 'desc' },
    ]) {
      const near = await paged({ q, ...order, limit: 3 });
      const byIndex = await paged({ q, ...order, where: besides, limit: 50 });
      expect(near).toEqual(byIndex);
      expect(new Set(near).size).toBe(near.length);
    }
  expect(await paged({ q: 'kett', limit: 2 })).toHaveLength(2);
  expect(await countItems({ q: 'kett' })).toBe(2);
});

test('accents say nothing, whichever way it is found', async () => {
  const word = `caf\u00e9zone${Date.now().toString(36)}`;
  const { id } = await readyItem({ title: `${word} poster` });
  const plain = word.replace('\u00e9', 'e');
  expect(await paged({ q: plain, limit: 2 })).toEqual([id]);
  expect(await paged({ q: plain, where: besides, limit: 2 })).toEqual([id]);
});
