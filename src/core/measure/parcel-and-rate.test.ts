import fc from 'fast-check';
import {
  type Box,
  boxFor,
  convert,
  convertBack,
  countedGrams,
  fromPounds,
  packedGrams,
  type Rate,
  toInches,
  toPounds,
  volumetricGrams,
} from '.';

const box = (id: number, lengthMm: number, widthMm: number, heightMm: number): Box => ({
  id,
  name: `B${id}`,
  lengthMm,
  widthMm,
  heightMm,
  grams: 50,
  cost: null,
});

describe('boxes', () => {
  const boxes = [box(1, 400, 300, 200), box(2, 200, 150, 100), box(3, 260, 200, 160)];

  test.each([
    [[190, 130, 90], 2],
    [[90, 190, 130], 2],
    [[200, 150, 101], 3],
    [[390, 100, 100], 1],
  ] as [[number, number, number], number][])('%j goes into box %i, however it lies', (sides, id) =>
    expect(boxFor(sides, boxes)?.id).toBe(id),
  );

  test('nothing fits what is too large', () => {
    expect(boxFor([500, 10, 10], boxes)).toBeNull();
    expect(boxFor([1, 1, 1], [])).toBeNull();
  });

  test('the chosen one holds the thing, and no smaller one does', () => {
    const side = fc.integer({ min: 1, max: 420 });
    fc.assert(
      fc.property(fc.tuple(side, side, side), (sides) => {
        const found = boxFor(sides, boxes);
        if (!found) return;
        const volume = (one: Box) => one.lengthMm * one.widthMm * one.heightMm;
        for (const other of boxes) if (volume(other) < volume(found)) expect(boxFor(sides, [other])).toBeNull();
      }),
    );
  });
});

describe('weights', () => {
  test.each([
    [500, 1_000, 100, 600],
    [500, 3_000, 100, 650],
    [501, 1_000, 0, 552],
    [500, 0, 0, 500],
  ])('%i g, %i basis points, at least %i g, is packed %i g', (grams, basisPoints, atLeastGrams, packed) =>
    expect(packedGrams(grams, { basisPoints, atLeastGrams })).toBe(packed),
  );

  test('volume counts when it is more', () => {
    expect(volumetricGrams(400, 300, 200, 5_000)).toBe(4_800);
    expect(volumetricGrams(1, 1, 1, 6_000)).toBe(1);
    expect(countedGrams(100, [400, 300, 200], 6_000)).toBe(4_000);
    expect(countedGrams(9_000, [400, 300, 200], 6_000)).toBe(9_000);
    expect(countedGrams(100, null, 6_000)).toBe(100);
  });

  test('pounds and inches there and back are never less than before', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60_000 }), (value) => {
        expect(fromPounds(toPounds(value))).toBeGreaterThanOrEqual(value);
        expect(fromPounds(toPounds(value))).toBeLessThanOrEqual(value + 5);
        expect(Math.round(toInches(value) * 25.4)).toBeGreaterThanOrEqual(value);
        expect(Math.round(toInches(value) * 25.4)).toBeLessThanOrEqual(value + 3);
      }),
    );
  });
});

describe('rates', () => {
  const rate: Rate = { from: 'EUR', to: 'SGD', millionths: 1_452_000, date: '2026-02-25' };

  test('an amount is converted and rounded', () => {
    expect(convert(10_000, rate)).toBe(14_520);
    expect(convert(1, rate)).toBe(1);
    expect(convert(0, rate)).toBe(0);
  });

  test('an amount converted keeps its order', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 10_000_000 }),
        fc.integer({ min: 0, max: 10_000_000 }),
        (a, b) => a > b || convert(a, rate) <= convert(b, rate),
      ),
    );
  });
});

describe('amounts of currencies with different numbers of decimals', () => {
  const to = (currency: string, millionths: number): Rate => ({ from: 'EUR', to: currency, millionths, date: '' });

  test.each([
    [1_000, to('USD', 1_100_000), 1_100],
    [1_000, to('JPY', 160_000_000), 1_600],
    [1_000, to('KWD', 330_000), 3_300],
  ] as [number, Rate, number][])('%i cents of a euro', (amount, rate, there) => {
    expect(convert(amount, rate)).toBe(there);
    expect(convertBack(there, rate)).toBe(amount);
  });

  test('there and back loses no more than a rounding on each side', () => {
    const rates = fc.constantFrom(to('USD', 1_100_000), to('JPY', 160_000_000), to('KWD', 330_000));
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e8 }), rates, (amount, rate) => {
        const least = Math.max(1, convertBack(1, rate));
        expect(Math.abs(convertBack(convert(amount, rate), rate) - amount)).toBeLessThanOrEqual(least);
      }),
    );
  });
});
