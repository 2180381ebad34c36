import fc from 'fast-check';
import { priceAgainst } from './against-offer';

const offer = { price: 1_200, delivery: 300 };
const amount = fc.integer({ min: 1, max: 1_000_000 });

test('the same price, the same with delivery, or a little less', () => {
  expect(priceAgainst(offer, 'take', 200)).toBe(1_200);
  expect(priceAgainst(offer, 'match', 200)).toBe(1_300);
  expect(priceAgainst(offer, 'undercut', 200)).toBe(1_285);
  expect(priceAgainst({ price: 3, delivery: 0 }, 'undercut', 0)).toBe(2);
  expect(priceAgainst({ price: 100, delivery: 0 }, 'match', 500)).toBe(1);
});

test('who undercuts is cheaper with delivery than the other one, and never asks nothing', () => {
  fc.assert(
    fc.property(amount, amount, amount, (price, delivery, own) => {
      const mine = priceAgainst({ price, delivery }, 'undercut', own);
      expect(mine).toBeGreaterThanOrEqual(1);
      if (mine > 1) expect(mine + own).toBeLessThan(price + delivery);
    }),
  );
});
