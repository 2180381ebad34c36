import { isReturnable } from './returnable';

test('a value that a person changed can come back; what was sold, made or counted cannot by itself', () => {
  expect(isReturnable({ field: 'price', why: 'edit' })).toBe(true);
  expect(isReturnable({ field: 'price', why: 'sale' })).toBe(false);
  expect(isReturnable({ field: 'created', why: 'edit' })).toBe(false);
  expect(isReturnable({ field: 'quantity', why: 'edit' })).toBe(false);
});
