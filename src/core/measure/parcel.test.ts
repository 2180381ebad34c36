import { type Box, noAllowance, parcelOf, toldGrams } from './parcel';

const box: Box = { id: 1, name: 'Camera box', lengthMm: 200, widthMm: 150, heightMm: 130, grams: 180, cost: null };
const larger: Box = { ...box, id: 2, name: 'Large', lengthMm: 400, grams: 300 };
const thing = { weightGrams: 900, lengthMm: 190, widthMm: 130, heightMm: 120 };

test('what lies in a box of its own measure weighs what was weighed', () => {
  const packed = { ...thing, lengthMm: 200, widthMm: 150, heightMm: 130 };
  expect(parcelOf(packed, [larger, box], { basisPoints: 1_000, atLeastGrams: 50 })).toEqual({
    grams: 900,
    sides: [200, 150, 130],
    box,
  });
  expect(toldGrams(packed, [box], { basisPoints: 1_000, atLeastGrams: 0 })).toBe(900);
});

test('else the smallest box that it fits into, or the allowance, whichever is heavier', () => {
  expect(parcelOf(thing, [larger, box], noAllowance)).toEqual({ grams: 1_080, sides: [200, 150, 130], box });
  expect(parcelOf(thing, [box], { basisPoints: 3_000, atLeastGrams: 0 }).grams).toBe(1_170);
  expect(toldGrams(thing, [box], { basisPoints: 1_000, atLeastGrams: 0 })).toBe(990);
});

test('of what was not weighed no weight is made up', () => {
  expect(parcelOf({ ...thing, weightGrams: null }, [box], { basisPoints: 0, atLeastGrams: 100 }).grams).toBe(0);
  expect(parcelOf({ ...thing, lengthMm: null }, [box], noAllowance)).toEqual({ grams: 900, sides: null, box: null });
});
