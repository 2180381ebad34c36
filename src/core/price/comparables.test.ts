import fc from 'fast-check';
import { type Comparable, distributionOf, slopePerDay, splitOutliers, statisticsOf, weightedQuantile } from '.';

const today = '2026-03-01';
const day = (ago: number) => new Date(Date.parse(today) - ago * 86_400_000).toISOString().slice(0, 10);
const sale = (price: number, ago = 1, part: Partial<Comparable> = {}): Comparable => ({
  price,
  quantity: 1,
  date: day(ago),
  ...part,
});

describe('quantiles', () => {
  test.each([
    [[1, 2, 3], 2],
    [[1, 2, 3, 4], 2.5],
    [[5], 5],
    [[], 0],
    [[3, 1, 2], 2],
  ])('the median of %j is %d', (values, median) =>
    expect(
      weightedQuantile(
        values.map((value) => ({ value, weight: 1 })),
        0.5,
      ),
    ).toBe(median),
  );

  test('weight counts like so many equal values', () => {
    const weighted = fc.array(
      fc.record({ value: fc.integer({ min: 1, max: 1_000 }), weight: fc.integer({ min: 1, max: 5 }) }),
      { minLength: 1, maxLength: 20 },
    );
    fc.assert(
      fc.property(weighted, fc.constantFrom(0.25, 0.5, 0.75), (values, share) => {
        const spread = values.flatMap(({ value, weight }) =>
          Array.from({ length: weight }, () => ({ value, weight: 1 })),
        );
        expect(weightedQuantile(values, share)).toBe(weightedQuantile(spread, share));
      }),
    );
  });
});

describe('statistics', () => {
  test('median, spread, mean, pieces, days on sale', () => {
    const sales = [sale(1_000), sale(1_200, 10, { quantity: 3, daysOnSale: 4 }), sale(1_400, 20, { daysOnSale: 8 })];
    expect(statisticsOf(sales, today, 90)).toEqual({
      count: 3,
      pieces: 5,
      median: 1_200,
      low: 1_200,
      high: 1_200,
      mean: 1_200,
      trend: null,
      daysOnSale: 6,
      outliers: [],
    });
  });

  test('only the window counts, and nothing of tomorrow', () => {
    const sales = [sale(1_000, 5), sale(9_000, 200), sale(9_000, -3)];
    expect(statisticsOf(sales, today, 90)).toMatchObject({ count: 1, median: 1_000 });
    expect(statisticsOf(sales, today, 365)).toMatchObject({ count: 2 });
  });

  test('no sale, no statistics', () => {
    expect(statisticsOf([], today, 90)).toBeNull();
    expect(statisticsOf([sale(0), sale(100, 2, { quantity: 0 })], today, 90)).toBeNull();
  });

  test('what lies too far from the others is left out and told', () => {
    const usual = Array.from({ length: 12 }, (_, index) => sale(1_000 + index * 10, index));
    const { kept, outliers } = splitOutliers([...usual, sale(9_900), sale(90)]);
    expect(kept).toHaveLength(12);
    expect(outliers.map((one) => one.price)).toEqual([9_900, 90]);
    expect(statisticsOf([...usual, sale(9_900)], today, 90)?.outliers).toHaveLength(1);
  });

  test('few sales are all kept', () => expect(splitOutliers([sale(1), sale(100), sale(100_000)]).outliers).toEqual([]));

  test('a steady rise is told in a year’s share of the median', () => {
    const rising = Array.from({ length: 11 }, (_, index) => sale(1_000 + index * 10, (10 - index) * 10));
    expect(slopePerDay(rising)).toBeCloseTo(1);
    expect(statisticsOf(rising, today, 365)?.trend).toBe(Math.round((365 * 10_000) / 1_050));
  });

  test('one wild price does not bend the trend', () => {
    const level = Array.from({ length: 9 }, (_, index) => sale(1_000, index * 10));
    expect(slopePerDay([...level, sale(50_000, 1)])).toBeCloseTo(0);
  });

  test('scaling all prices scales the figures, order does not matter', () => {
    const some = fc.array(
      fc.tuple(fc.integer({ min: 100, max: 9_999 }), fc.integer({ min: 0, max: 80 }), fc.integer({ min: 1, max: 4 })),
      { minLength: 1, maxLength: 25 },
    );
    fc.assert(
      fc.property(some, (rows) => {
        const sales = rows.map(([price, ago, quantity]) => sale(price, ago, { quantity }));
        const one = statisticsOf(sales, today, 90);
        const turned = statisticsOf([...sales].reverse(), today, 90);
        expect(turned?.median).toBe(one?.median);
        expect(turned?.pieces).toBe(one?.pieces);
        const tenfold = statisticsOf(
          sales.map((each) => ({ ...each, price: each.price * 10 })),
          today,
          90,
        );
        expect(Math.abs((tenfold?.median ?? 0) - (one?.median ?? 0) * 10)).toBeLessThanOrEqual(5);
      }),
    );
  });
});

describe('distribution', () => {
  test('bars of equal width on round borders, empty ones between included', () => {
    expect(distributionOf([sale(100), sale(150), sale(410, 1, { quantity: 2 })], 4)).toEqual([
      { from: 100, to: 200, pieces: 2 },
      { from: 200, to: 300, pieces: 0 },
      { from: 300, to: 400, pieces: 0 },
      { from: 400, to: 500, pieces: 2 },
    ]);
  });

  test('nothing in, nothing out', () => expect(distributionOf([])).toEqual([]));

  test('every piece is in just one bar, bars touch, and there are not too many', () => {
    const prices = fc.array(fc.tuple(fc.integer({ min: 1, max: 500_000 }), fc.integer({ min: 1, max: 5 })), {
      minLength: 1,
      maxLength: 60,
    });
    fc.assert(
      fc.property(prices, (rows) => {
        const bars = distributionOf(rows.map(([price, quantity]) => sale(price, 1, { quantity })));
        expect(bars.reduce((sum, bar) => sum + bar.pieces, 0)).toBe(
          rows.reduce((sum, [, quantity]) => sum + quantity, 0),
        );
        expect(bars.length).toBeLessThanOrEqual(15);
        for (const [index, bar] of bars.slice(1).entries()) expect(bar.from).toBe(bars[index]?.to);
      }),
    );
  });
});
