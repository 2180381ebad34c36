import fc from 'fast-check';
import { netOfSale, type SoldLine, shareOut } from '.';

const sold: SoldLine = {
  currency: 'EUR',
  rateMillionths: null,
  total: 6_000,
  discount: 0,
  buyerPostage: 0,
  fee: 700,
  quantity: 1,
  cost: 2_000,
  postage: 0,
  packing: 60,
};

describe('the net of a sale', () => {
  test('what the buyer paid less fees, postage, packing and cost', () => {
    expect(netOfSale(sold)).toBe(3_240);
    expect(netOfSale({ ...sold, postage: 595 })).toBe(2_645);
    expect(netOfSale({ ...sold, quantity: 2, total: 12_000 })).toBe(7_240);
    expect(netOfSale({ ...sold, discount: 500 })).toBe(2_740);
  });

  test('postage that the buyer paid covers the parcel, and no more than that', () => {
    expect(netOfSale({ ...sold, buyerPostage: 595, postage: 595 })).toBe(3_240);
    expect(netOfSale({ ...sold, buyerPostage: 595, postage: 690 })).toBe(3_145);
  });

  test('amounts of two currencies are never added: by the rate of its day, and not at all without one', () => {
    expect(netOfSale({ ...sold, currency: 'SGD', total: 9_000, fee: 0, rateMillionths: 1_500_000 })).toBe(3_940);
    expect(netOfSale({ ...sold, currency: 'SGD' })).toBeNull();
  });
});

test('parts of an amount add up to it, and each lies within a unit of its share', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 1_000_000 }),
      fc.array(fc.integer({ min: 0, max: 100_000 }), { minLength: 1, maxLength: 8 }),
      (amount, weights) => {
        const parts = shareOut(amount, weights);
        const whole = weights.reduce((sum, one) => sum + one, 0);
        expect(parts.reduce((sum, one) => sum + one, 0)).toBe(amount);
        if (whole > 0)
          parts.forEach((part, at) => {
            expect(Math.abs(part - (amount * (weights[at] ?? 0)) / whole)).toBeLessThan(1);
          });
      },
    ),
  );
});
