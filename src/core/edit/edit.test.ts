import fc from 'fast-check';
import { invert } from '../change';
import { itemField } from '../field';
import { applySteps, type Operation, operationSchema } from '.';

const percent = (basisPoints: number, part: Partial<Extract<Operation, { op: 'price-percent' }>> = {}): Operation => ({
  op: 'price-percent',
  basisPoints,
  rounding: 'none',
  floor: null,
  ...part,
});

test('five percent less, rounded as wanted', () => {
  expect(applySteps([percent(-500)], { price: 10_000, quantity: 1 })).toMatchObject({
    price: 9_500,
    changed: ['price'],
  });
  expect(applySteps([percent(-500, { rounding: 'ninetyNine' })], { price: 10_000, quantity: 1 }).price).toBe(9_499);
});

test('a cut never ends above the old price, never under the floor, and a floor never raises', () => {
  const price = fc.integer({ min: 1, max: 1e7 });
  fc.assert(
    fc.property(
      price,
      fc.integer({ min: -9_000, max: -1 }),
      fc.constantFrom('none', 'whole', 'half', 'ninetyNine', 'ninety'),
      fc.option(price),
      (old, basisPoints, rounding, floor) => {
        const after =
          applySteps([percent(basisPoints, { rounding: rounding as 'none', floor })], { price: old, quantity: 1 })
            .price ?? 0;
        return after <= old && after >= Math.min(old, floor ?? 0) && after > 0;
      },
    ),
  );
});

test('add to stock and set stock are two different things', () => {
  expect(applySteps([{ op: 'quantity-add', delta: 3 }], { price: 1, quantity: 5 }).quantity).toBe(8);
  expect(applySteps([{ op: 'quantity-set', quantity: 3 }], { price: 1, quantity: 5 }).quantity).toBe(3);
});

test('when one step is refused the item stays as a whole, and it is said why', () => {
  const result = applySteps([percent(-500), { op: 'quantity-add', delta: -9 }], { price: 1_000, quantity: 2 });
  expect(result).toEqual({
    price: 1_000,
    quantity: 2,
    changed: [],
    refused: ['Only 2 in stock, 9 cannot be taken away'],
  });
  expect(applySteps([percent(-500)], { price: null, quantity: 2 }).refused).toEqual(['It has no price to change']);
  expect(
    applySteps([{ op: 'price-amount', amount: -500, rounding: 'none', floor: null }], { price: 400, quantity: 1 })
      .refused,
  ).toHaveLength(1);
});

test('undo undoes', () => {
  const step = fc.oneof(
    fc.record({
      op: fc.constant('price-percent' as const),
      basisPoints: fc.integer({ min: -9_000, max: 9_000 }),
      rounding: fc.constant('none' as const),
      floor: fc.constant(null),
    }),
    fc.record({ op: fc.constant('price-set' as const), amount: fc.integer({ min: 1, max: 1e6 }) }),
    fc.record({ op: fc.constant('quantity-set' as const), quantity: fc.integer({ min: 0, max: 999 }) }),
    fc.record({ op: fc.constant('quantity-add' as const), delta: fc.integer({ min: 1, max: 99 }) }),
  );
  fc.assert(
    fc.property(
      fc.array(step, { minLength: 1, maxLength: 5 }),
      fc.integer({ min: 1, max: 1e6 }),
      fc.integer({ min: 0, max: 999 }),
      (steps, price, quantity) => {
        const after = applySteps(steps, { price, quantity });
        const back = (field: 'price' | 'quantity', from: number) => {
          const known = itemField(field);
          const inverse = known && invert({ from, to: after[field] }, after[field], known);
          return inverse?.kind === 'restore' && inverse.to === from;
        };
        return back('price', price) && back('quantity', quantity);
      },
    ),
  );
});

test('operations are checked at the edge', () => {
  expect(operationSchema.safeParse({ op: 'price-percent', basisPoints: -20_000 }).success).toBe(false);
  expect(operationSchema.safeParse({ op: 'quantity-set', quantity: -1 }).success).toBe(false);
  expect(operationSchema.safeParse({ op: 'drop table' }).success).toBe(false);
});

test('a title that would grow too long is refused before it is written, as the field itself refuses it', () => {
  const before: Operation = { op: 'title-before', text: 'Sale: ' };
  const item = (title: string) => ({ price: 1, quantity: 1, title });
  expect(applySteps([before], item('Brask K-2'))).toMatchObject({ title: 'Sale: Brask K-2', changed: ['title'] });
  expect(applySteps([before], item('x'.repeat(294))).changed).toEqual(['title']);
  expect(applySteps([before], item('x'.repeat(295)))).toMatchObject({
    changed: [],
    refused: ['At most 300 characters'],
  });
});
