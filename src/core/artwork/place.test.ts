import fc from 'fast-check';
import { type Area, dotsPerInch, isOutside, largestGood, type Picture, placeOn, placingOf, placingSchema } from '.';

const area: Area = {
  widthMm: 300,
  heightMm: 400,
  widthPx: 3_543,
  heightPx: 4_724,
  safeMm: 10,
  bleedMm: 3,
  profile: 'srgb',
};
const whole: Picture = {
  width: 2_000,
  height: 1_000,
  visible: { box: { x: 0, y: 0, width: 1, height: 1 }, centre: { x: 0.5, y: 0.5 } },
};

test('in the middle of what is free, as large as is wanted, in proportion', () => {
  const placed = placeOn(area, whole, placingSchema.parse({ scale: 1 }));
  // 280 mm are free across; twice as wide as high.
  expect(placed).toEqual({ x: 10, y: 130, width: 280, height: 140, degrees: 0 });
  expect(isOutside(area, placed)).toBe(false);
  const upright = placeOn(area, whole, placingSchema.parse({ scale: 1, degrees: 90 }));
  expect(upright.width).toBeCloseTo(380, 6);
  expect(isOutside(area, upright)).toBe(false);
});

test('only what is visible counts, and by the eye’s middle where one wants it', () => {
  const low: Picture = {
    ...whole,
    visible: { box: { x: 0.25, y: 0, width: 0.5, height: 1 }, centre: { x: 0.5, y: 0.75 } },
  };
  const box = placeOn(area, low, placingSchema.parse({ scale: 0.5 }));
  expect(box.width).toBeCloseTo(140, 6);
  const optical = placeOn(area, low, placingSchema.parse({ scale: 0.5, isOptical: true }));
  // The weight lies a quarter below the middle: all of it goes up by that.
  expect(optical.y).toBeCloseTo(box.y - box.height / 4, 6);
});

test('scaled to another area and back it is the same; in proportion on every other', () => {
  const areas = fc.record({
    widthMm: fc.integer({ min: 50, max: 900 }),
    heightMm: fc.integer({ min: 50, max: 900 }),
    widthPx: fc.constant(1_000),
    heightPx: fc.constant(1_000),
    safeMm: fc.integer({ min: 0, max: 15 }),
    bleedMm: fc.constant(0),
    profile: fc.constant('srgb' as const),
  });
  const placings = fc.record({
    x: fc.double({ min: 0.2, max: 0.8, noNaN: true }),
    y: fc.double({ min: 0.2, max: 0.8, noNaN: true }),
    scale: fc.double({ min: 0.1, max: 1, noNaN: true }),
    degrees: fc.integer({ min: -180, max: 180 }),
    isOptical: fc.boolean(),
  });
  fc.assert(
    fc.property(areas, areas, placings, (one, other, placing) => {
      const there = placingOf(one, whole, placeOn(one, whole, placing), placing.isOptical);
      const back = placingOf(other, whole, placeOn(other, whole, there), placing.isOptical);
      for (const field of ['x', 'y', 'scale', 'degrees'] as const) expect(back[field]).toBeCloseTo(placing[field], 6);
    }),
  );
});

test('dots an inch at its size, and the largest size at which they are enough', () => {
  const placed = placeOn(area, whole, placingSchema.parse({ scale: 1 }));
  expect(dotsPerInch(whole, placed)).toBeCloseTo((2_000 * 25.4) / 280, 6);
  expect(largestGood(whole, 150)).toBeCloseTo(338.67, 1);
  expect(isOutside(area, { ...placed, x: -5 })).toBe(true);
});
