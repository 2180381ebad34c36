import { z } from 'zod';

/** One past sale of such a thing, or one present offer: minor units a piece, pieces, and when. */
export const comparableSchema = z.object({
  price: z.number(),
  quantity: z.number(),
  /** Day of the sale, YYYY-MM-DD. */
  date: z.string(),
  condition: z.string().optional(),
  /** Colour or finish, where they tell it. */
  finish: z.string().optional(),
  /** How long it stood before it went. */
  daysOnSale: z.number().nullable().optional(),
  source: z.string().optional(),
});
export type Comparable = z.infer<typeof comparableSchema>;

export const statisticsSchema = z.object({
  /** Sales (not pieces) that counted, and pieces among them. */
  count: z.number(),
  pieces: z.number(),
  /** Weighted by pieces. */
  median: z.number(),
  low: z.number(),
  high: z.number(),
  mean: z.number(),
  /** Change of price a year in basis points of the median, by the median of slopes; null with fewer than 5 sales. */
  trend: z.number().nullable(),
  /** Median days on sale; null when nobody told. */
  daysOnSale: z.number().nullable(),
  /** Left out because they lie too far from the others. */
  outliers: z.array(comparableSchema),
});
export type Statistics = z.infer<typeof statisticsSchema>;

/** The value below which the given share of the weight lies; between two values their middle. */
export function weightedQuantile(values: readonly { value: number; weight: number }[], share: number): number {
  const sorted = [...values].filter((one) => one.weight > 0).sort((a, b) => a.value - b.value);
  const total = sorted.reduce((sum, one) => sum + one.weight, 0);
  const wanted = total * share;
  let seen = 0;
  for (const [index, one] of sorted.entries()) {
    seen += one.weight;
    if (seen > wanted) return one.value;
    if (seen === wanted) return (one.value + (sorted[index + 1]?.value ?? one.value)) / 2;
  }
  return sorted.at(-1)?.value ?? 0;
}

const median = (values: number[]) =>
  weightedQuantile(
    values.map((value) => ({ value, weight: 1 })),
    0.5,
  );

const dayNumber = (date: string) => Math.floor(Date.parse(date) / 86_400_000);

/**
 * Outliers by Tukey's fences on the logarithm of price (a price is too high or too low by a factor, not by an
 * amount): beyond one and a half times the middle half's width. With fewer than six sales nothing is left out.
 * Source: J. W. Tukey, Exploratory Data Analysis, 1977.
 */
export function splitOutliers(sales: readonly Comparable[]): { kept: Comparable[]; outliers: Comparable[] } {
  const usable = sales.filter((one) => one.price > 0 && one.quantity > 0);
  if (usable.length < 6) return { kept: usable, outliers: [] };
  const logs = usable.map((one) => ({ value: Math.log(one.price), weight: one.quantity }));
  const low = weightedQuantile(logs, 0.25);
  const high = weightedQuantile(logs, 0.75);
  const reach = Math.max(1.5 * (high - low), Math.log(1.1));
  const fits = (one: Comparable) => Math.log(one.price) >= low - reach && Math.log(one.price) <= high + reach;
  return { kept: usable.filter(fits), outliers: usable.filter((one) => !fits(one)) };
}

/** Median of the slopes between all pairs of sales, in minor units a day. Source: P. K. Sen, 1968 (Theil–Sen). */
export function slopePerDay(sales: readonly Comparable[], most = 300): number | null {
  if (sales.length < 5) return null;
  const some = sales.slice(-most);
  const slopes: number[] = [];
  for (const [index, one] of some.entries()) {
    for (const other of some.slice(index + 1)) {
      const days = dayNumber(other.date) - dayNumber(one.date);
      if (days !== 0) slopes.push((other.price - one.price) / days);
    }
  }
  return slopes.length === 0 ? null : median(slopes);
}

/**
 * What such things sold for within a window, weighted by pieces.
 * @param today YYYY-MM-DD
 * @param windowDays how far back sales count
 * @returns null when there is no sale in the window
 */
export function statisticsOf(sales: readonly Comparable[], today: string, windowDays: number): Statistics | null {
  const from = dayNumber(today) - windowDays;
  const inside = sales
    .filter((one) => dayNumber(one.date) >= from && dayNumber(one.date) <= dayNumber(today))
    .sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0));
  const { kept, outliers } = splitOutliers(inside);
  if (kept.length === 0) return null;
  const weighted = kept.map((one) => ({ value: one.price, weight: one.quantity }));
  const pieces = kept.reduce((sum, one) => sum + one.quantity, 0);
  const middle = weightedQuantile(weighted, 0.5);
  const slope = slopePerDay(kept);
  const days = kept.flatMap((one) => (typeof one.daysOnSale === 'number' ? [one.daysOnSale] : []));
  return {
    count: kept.length,
    pieces,
    median: Math.round(middle),
    low: Math.round(weightedQuantile(weighted, 0.25)),
    high: Math.round(weightedQuantile(weighted, 0.75)),
    mean: Math.round(weighted.reduce((sum, one) => sum + one.value * one.weight, 0) / pieces),
    trend: slope === null || middle === 0 ? null : Math.round((slope * 365 * 10_000) / middle),
    daysOnSale: days.length ? Math.round(median(days)) : null,
    outliers,
  };
}

export const barSchema = z.object({
  from: z.number(),
  to: z.number(),
  pieces: z.number(),
});
export type Bar = z.infer<typeof barSchema>;

/** How prices are spread: bars of equal width on round borders, at most `most` of them, empty ones between included. */
export function distributionOf(sales: readonly Comparable[], most = 14): Bar[] {
  const usable = sales.filter((one) => one.price > 0 && one.quantity > 0);
  if (usable.length === 0) return [];
  const prices = usable.map((one) => one.price);
  const least = Math.min(...prices);
  const largest = Math.max(...prices);
  const rough = Math.max(1, (largest - least + 1) / most);
  const power = 10 ** Math.floor(Math.log10(rough));
  const width =
    [1, 2, 2.5, 5, 10]
      .map((step) => step * power)
      .find((step) => step >= rough && Math.floor(largest / step) - Math.floor(least / step) < most) ?? 20 * power;
  const step = Math.max(1, Math.ceil(width));
  const first = Math.floor(least / step);
  const bars = Array.from(
    { length: Math.floor(largest / step) - first + 1 },
    (_, index): Bar => ({
      from: (first + index) * step,
      to: (first + index + 1) * step,
      pieces: 0,
    }),
  );
  for (const one of usable) {
    const bar = bars[Math.floor(one.price / step) - first];
    if (bar) bar.pieces += one.quantity;
  }
  return bars;
}
