import fc from 'fast-check';
import { notTakenFields } from '.';

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
