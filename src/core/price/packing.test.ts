import fc from 'fast-check';
import { type Packing, packingOf } from './packing';

const plain: Packing = { perParcel: 60, perKilo: 0, minutes: 0, hourly: 0 };
const box = { id: 1, name: 'Small', lengthMm: 200, widthMm: 150, heightMm: 100, grams: 90, cost: 45 };
const never = () => {
  throw new Error('the parcel was asked for');
};

test('the same for every parcel, without looking at it', () => {
  expect(packingOf(plain, [], never)).toBe(60);
  expect(packingOf({ ...plain, minutes: 6, hourly: 1_500 }, [{ cost: null }], never)).toBe(210);
});

test('the box that it goes into, its weight, one’s own time', () => {
  expect(packingOf(plain, [box], () => ({ grams: 900, box }))).toBe(45);
  expect(packingOf(plain, [box], () => ({ grams: 900, box: null }))).toBe(60);
  expect(packingOf(plain, [box], () => ({ grams: 900, box: { ...box, cost: null } }))).toBe(60);
  // 1.234 kg at 0.10 a kilogram are 12.34, rounded up; 7 minutes of 12.50 an hour are 145.83.
  expect(
    packingOf({ perParcel: 60, perKilo: 10, minutes: 7, hourly: 1_250 }, [box], () => ({ grams: 1_234, box })),
  ).toBe(45 + 13 + 146);
});

test('never less for more weight, and never less than the box', () => {
  const amount = fc.integer({ min: 0, max: 5_000 });
  fc.assert(
    fc.property(
      amount,
      amount,
      amount,
      amount,
      fc.integer({ min: 0, max: 600 }),
      (one, more, perKilo, hourly, minutes) => {
        const of = (grams: number) =>
          packingOf({ perParcel: 60, perKilo, minutes, hourly }, [box], () => ({ grams, box }));
        expect(of(one + more)).toBeGreaterThanOrEqual(of(one));
        expect(of(one)).toBeGreaterThanOrEqual(45);
      },
    ),
  );
});
