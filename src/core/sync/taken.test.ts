import fc from 'fast-check';
import type { Json } from '../json';
import type { Content } from '../listing/fields';
import { driftedFields, mergeFields, notTakenFields } from '.';

test('a field that shows what it showed before was not taken', () => {
  const before = { title: 'old', price: 100, tags: ['a'] };
  expect(notTakenFields(['title', 'price'], { title: 'new', price: 90 }, before, { ...before, price: 90 })).toEqual([
    'title',
  ]);
});

test('what they write in their own way was taken, and units that were sold meanwhile are fewer', () => {
  expect(notTakenFields(['title'], { title: 'new' }, { title: 'old' }, { title: 'NEW' })).toEqual([]);
  expect(notTakenFields(['quantity'], { quantity: 5 }, { quantity: 6 }, { quantity: 4 })).toEqual([]);
  expect(notTakenFields(['quantity'], { quantity: 5 }, {}, { quantity: 6 })).toEqual(['quantity']);
});

test('what is shown as it was sent was always taken', () => {
  fc.assert(
    fc.property(fc.dictionary(fc.string(), fc.jsonValue()), (sent) => {
      expect(notTakenFields(Object.keys(sent), sent as never, sent as never, sent as never)).toEqual([]);
    }),
  );
});

describe('combinations', () => {
  type Part = Record<string, Json>;
  const row = (stock: number, price = 100, more: Part = {}): Part => ({
    values: ['Tan'],
    sku: 'A-1',
    quantity: stock,
    price,
    ...more,
  });
  const table = (one: Part, axis: Part = {}): Content => ({
    variations: { axes: [{ name: 'Colour', values: ['Tan'], ...axis }], rows: [one] },
  });
  const shown = (one: Part) => table(one);
  const sent = (one: Part) => table({ ...one, barcode: '123' }, { photos: { Tan: 'a'.repeat(64) } });

  test('what they show without pictures and barcodes was taken; a price or stock that stayed was not', () => {
    const fields = ['variations'];
    expect(notTakenFields(fields, sent(row(2)), shown(row(3)), shown(row(2)))).toEqual([]);
    expect(notTakenFields(fields, sent(row(2)), shown(row(2)), shown(row(2)))).toEqual([]);
    expect(notTakenFields(fields, sent(row(2)), shown(row(3)), shown(row(3)))).toEqual(fields);
    expect(notTakenFields(fields, sent(row(2, 200)), shown(row(2)), shown(row(2)))).toEqual(fields);
  });

  test('stock that fell by a sale is no difference, another price, number or value is', () => {
    expect(driftedFields(shown(row(3)), shown(row(1)))).toEqual([]);
    for (const other of [row(3, 101), row(3, 100, { sku: 'B' }), row(3, 100, { values: ['Black'] })])
      expect(driftedFields(shown(row(3)), shown(other))).toEqual(['variations']);
    expect(mergeFields(shown(row(3)), sent(row(3)), shown(row(3, 101)))).toEqual([
      expect.objectContaining({ field: 'variations', verdict: 'theirs' }),
    ]);
  });
});
