import fc from 'fast-check';
import { feeKinds } from '.';

test('a fee as its table explains it is divided to the cent', () => {
  expect(feeKinds(655, { commission: 500, payment: 120, handling: 35 })).toEqual({
    commission: 500,
    payment: 120,
    handling: 35,
    other: 0,
  });
});

test('what is charged besides is other; a lower fee is never divided into more than it is', () => {
  expect(feeKinds(800, { commission: 500, payment: 120, handling: 0 }).other).toBe(180);
  // Of an order of several lines the fixed part of the payment is charged once.
  expect(feeKinds(560, { commission: 500, payment: 120, handling: 0 })).toEqual({
    commission: 500,
    payment: 60,
    handling: 0,
    other: 0,
  });
  expect(feeKinds(-40, { commission: 500, payment: 0, handling: 0 })).toEqual({
    commission: 0,
    payment: 0,
    handling: 0,
    other: -40,
  });
});

test('law: the parts add up to what was charged', () => {
  const amount = fc.integer({ min: 0, max: 100_000 });
  fc.assert(
    fc.property(
      fc.integer({ min: -500, max: 200_000 }),
      amount,
      amount,
      amount,
      (fee, commission, payment, handling) => {
        const parts = feeKinds(fee, { commission, payment, handling });
        expect(parts.commission + parts.payment + parts.handling + parts.other).toBe(fee);
      },
    ),
  );
});
