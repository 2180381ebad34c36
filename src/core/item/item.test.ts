import { sampleItem } from '../testing.test-data';
import { conditionLabel, copyForNew, itemPatchSchema } from '.';

test('a copy keeps what describes and drops what identifies', () => {
  const copy = copyForNew(sampleItem({ location: 'A1', supplier: 'Auction', notes: 'private', cost: 900 }));
  expect(copy).toMatchObject({
    title: sampleItem().title,
    brand: 'Brask',
    price: 14_900,
    location: '',
    supplier: '',
    notes: '',
    conditionNote: '',
    cost: null,
  });
  for (const key of ['sku', 'id', 'version', 'quantity', 'photos']) expect(copy).not.toHaveProperty(key);
});

test('a patch takes known fields only, within their bounds', () => {
  expect(itemPatchSchema.safeParse({ title: 'x' }).success).toBe(true);
  expect(itemPatchSchema.safeParse({ title: 'x'.repeat(301) }).success).toBe(false);
  expect(itemPatchSchema.safeParse({ price: -1 }).success).toBe(false);
  expect(itemPatchSchema.safeParse({ sku: '../etc' }).success).toBe(false);
  expect(itemPatchSchema.safeParse({ quantity: 5 }).success).toBe(false);
});

test('conditions have names', () => expect(conditionLabel('mint')).toBe('Like new'));
