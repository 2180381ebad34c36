import fc from 'fast-check';
import { arranged, planFor } from './row-plan';

const rows = ['a', 'b', 'c', 'd'].map((id) => ({ id }));
const ids = (order: string[]) =>
  arranged(rows, order)
    .map((row) => row.id)
    .join('');

test('rows stand as they were put; what came later stands behind its neighbour', () => {
  expect(ids([])).toBe('abcd');
  expect(ids(['d', 'a', 'b', 'c'])).toBe('dabc');
  expect(ids(['c', 'a'])).toBe('cdab');
  expect(ids(['gone', 'b', 'a', 'c', 'd'])).toBe('bacd');
});

test('no order loses or doubles a row', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom('a', 'b', 'c', 'd', 'e')), (order) => {
      expect([...ids(order)].sort().join('')).toBe('abcd');
    }),
  );
});

test('the nearest category’s plan holds', () => {
  const plan = (name: string) => ({ hidden: [name], order: [] });
  const plans = { '': plan('all'), cameras: plan('cameras'), 'cameras/slr': plan('slr') };
  expect(planFor(plans, 'cameras/slr')?.hidden).toEqual(['slr']);
  expect(planFor(plans, 'cameras/tlr/old')?.hidden).toEqual(['cameras']);
  expect(planFor(plans, 'books')?.hidden).toEqual(['all']);
  expect(planFor({}, 'books')).toBeNull();
});
