import fc from 'fast-check';
import { addedTo, placeChoices, priceChoices } from '.';

const stocked = fc.record({
  quantity: fc.integer({ min: 0, max: 500 }),
  price: fc.option(fc.integer({ min: 1, max: 90_000 })),
  place: fc.constantFrom('', 'A1', 'B2'),
});

test('pieces add up; a price lies between both; a known price or place is never lost', () => {
  fc.assert(
    fc.property(
      stocked,
      stocked,
      fc.constantFrom(...priceChoices),
      fc.constantFrom(...placeChoices),
      (there, lot, price, place) => {
        const now = addedTo(there, lot, { price, place });
        expect(now.quantity).toBe(there.quantity + lot.quantity);
        const prices = [there.price, lot.price].filter((one) => one !== null);
        if (prices.length === 0) return expect(now.price).toBeNull();
        expect(now.price).toBeGreaterThanOrEqual(Math.min(...prices));
        expect(now.price).toBeLessThanOrEqual(Math.max(...prices));
        return expect(now.place === '').toBe(there.place === '' && lot.place === '');
      },
    ),
  );
});

test('nine added to fourteen: kept, replaced, weighted by pieces', () => {
  const there = { quantity: 14, price: 1_000, place: 'A1' };
  const lot = { quantity: 9, price: 1_500, place: 'B2' };
  expect(addedTo(there, lot, { price: 'kept', place: 'kept' })).toEqual({ quantity: 23, price: 1_000, place: 'A1' });
  expect(addedTo(there, lot, { price: 'replaced', place: 'replaced' })).toEqual({
    quantity: 23,
    price: 1_500,
    place: 'B2',
  });
  expect(addedTo(there, lot, { price: 'weighted', place: 'kept' }).price).toBe(1_196);
});
