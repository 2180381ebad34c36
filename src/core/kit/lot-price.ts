import { z } from 'zod';
import { type ConditionGrade, conditionIds } from '../item/condition';
import { share } from '../measure/money';
import { roundingNames, roundings, roundTo } from '../measure/rounding';
import { type Comparable, comparableSchema, statisticsOf, weightedQuantile } from '../price/comparables';

/** Days up to now over which sales count. */
export const priceWindows = [30, 90, 180, 365] as const;
export const priceMeasures = ['median', 'mean', 'low', 'high', 'least-offer', 'greatest-offer'] as const;
/** `mean` is weighted by pieces; `low` and `high` are the first and the third quartile. */
export type PriceMeasure = (typeof priceMeasures)[number];

const offerSchema = z.object({
  price: z.number(),
  quantity: z.number(),
  condition: z.string(),
  finish: z.string().optional(),
});
/** A present offer of an entry, minor units a piece. */
export type LotOffer = z.infer<typeof offerSchema>;

/** What a marketplace told of one entry; amounts in its own currency. */
export type KeptSales = { sales: Comparable[]; offers: LotOffer[] };

/** What a piece is worth by its condition, in percent of an excellent one: by this a sale of another condition counts. */
export const usualWorth: Record<ConditionGrade, number> = {
  new: 120,
  'new-open': 112,
  mint: 106,
  excellent: 100,
  'very-good': 92,
  good: 84,
  fair: 70,
  poor: 55,
  parts: 35,
};

const amount = z.number().int().min(-100_000_000).max(100_000_000);

export const lotPricingSchema = z
  .object({
    measure: z.enum(priceMeasures).default('median'),
    days: z.union([z.literal(30), z.literal(90), z.literal(180), z.literal(365)]).default(180),
    /** With fewer sales the next step of the chain is asked. */
    least: z.number().int().min(1).max(50).default(3),
    /** Then up or down by basis points, then by an amount. */
    basisPoints: z.number().int().min(-9_900).max(100_000).default(0),
    amount: amount.default(0),
    rounding: z.enum(roundingNames).default('none'),
    /** What a sale must leave after the marketplace's fees, at least; null for nothing. */
    leastNet: amount.nullable().default(null),
    worth: z.partialRecord(z.enum(conditionIds), z.number().int().min(1).max(1_000)).default({}),
  })
  .strict();
export type LotPricing = z.output<typeof lotPricingSchema>;

export const priceSteps = ['sales', 'longer', 'condition', 'finish', 'offers', 'kind'] as const;
/** The chain: sales as wanted; over a longer time; of other conditions by their worth; of other finishes, too; what is on offer; things of the same kind. */
export type PriceStep = (typeof priceSteps)[number];

export const priceBasisSchema = z.object({
  step: z.enum(priceSteps),
  measure: z.enum(priceMeasures),
  /** Of sales: over how many days. */
  days: z.number().nullable(),
  /** How many sales, offers, or lots of the kind. */
  count: z.number(),
  /** How many pieces were sold, and the middle of the days that they stood; null where nobody tells. */
  pieces: z.number().nullable(),
  paceDays: z.number().nullable(),
  /** What it came to before it was moved up or down, in minor units. */
  found: z.number(),
  /** The fees alone made it as much as it is. */
  isFloor: z.boolean(),
  /** How many are on offer now, and when all of this was heard; empty where it was not. */
  onOffer: z.number(),
  heardAt: z.string(),
  outliers: z.array(comparableSchema.pick({ price: true, date: true })),
});
export type PriceBasis = z.infer<typeof priceBasisSchema>;

/** What the price of a lot hangs on, besides sales. `condition` is the marketplace's own; null where it is not known. */
export type Priced = { condition: string | null; finish: string };

type Found = Omit<PriceBasis, 'isFloor' | 'onOffer' | 'heardAt'>;

const mostOutliers = 12;
const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

function measured(sales: readonly Comparable[], measure: PriceMeasure, days: number, today: string, least: number) {
  const found = statisticsOf(sales, today, days);
  if (!found || found.count < least) return null;
  const by = measure === 'least-offer' || measure === 'greatest-offer' ? 'median' : measure;
  return {
    measure: by as PriceMeasure,
    days,
    count: found.count,
    pieces: found.pieces,
    paceDays: found.daysOnSale,
    found: found[by],
    outliers: found.outliers.slice(0, mostOutliers).map(({ price, date }) => ({ price, date })),
  };
}

function ofOffers(offers: readonly LotOffer[], measure: PriceMeasure): Omit<Found, 'step'> | null {
  const prices = offers.filter((one) => one.price > 0).map((one) => one.price);
  if (prices.length === 0) return null;
  const at = (part: number) =>
    Math.round(
      weightedQuantile(
        prices.map((value) => ({ value, weight: 1 })),
        part,
      ),
    );
  const found =
    measure === 'least-offer'
      ? Math.min(...prices)
      : measure === 'greatest-offer'
        ? Math.max(...prices)
        : measure === 'mean'
          ? Math.round(prices.reduce((sum, one) => sum + one, 0) / prices.length)
          : at(measure === 'low' ? 0.25 : measure === 'high' ? 0.75 : 0.5);
  return { measure, days: null, count: prices.length, pieces: null, paceDays: null, found, outliers: [] };
}

/**
 * What a lot is worth by what was told of its entry: the first step of the chain that has enough to say.
 * @param told amounts in the currency of the price
 * @param worthOf what a condition of the marketplace is worth in percent; null where that is not known
 * @returns null where nothing of it was sold or is on offer
 */
export function findPrice(
  { condition, finish }: Priced,
  told: KeptSales,
  how: Pick<LotPricing, 'measure' | 'days' | 'least'>,
  worthOf: (condition: string) => number | null,
  today: string,
): Found | null {
  const { measure, days, least } = how;
  const isFinish = (one: { finish?: string }) => one.finish === undefined || !finish || same(one.finish, finish);
  const isCondition = (one: { condition?: string }) => condition === null || one.condition === condition;
  const scaled = <T extends { price: number; condition?: string }>(one: T): T[] => {
    if (isCondition(one)) return [one];
    const [mine, theirs] = [worthOf(condition ?? ''), worthOf(one.condition ?? '')];
    return mine && theirs ? [{ ...one, price: Math.round((one.price * mine) / theirs) }] : [];
  };
  const own = told.sales.filter(isFinish);
  const exact = own.filter(isCondition);
  const offers = told.offers.filter(isFinish);
  const here = ofOffers(offers.filter(isCondition), measure) ?? ofOffers(offers.flatMap(scaled), measure);
  if (here && (measure === 'least-offer' || measure === 'greatest-offer')) return { step: 'offers', ...here };
  const first = measured(exact, measure, days, today, least);
  if (first) return { step: 'sales', ...first };
  for (const longer of priceWindows.filter((one) => one > days)) {
    const found = measured(exact, measure, longer, today, least);
    if (found) return { step: 'longer', ...found };
  }
  const longest = Math.max(days, 365);
  const conditions = measured(own.flatMap(scaled), measure, longest, today, least);
  if (conditions) return { step: 'condition', ...conditions };
  const finishes = measured(told.sales.flatMap(scaled), measure, longest, today, least);
  if (finishes) return { step: 'finish', ...finishes };
  return here && { step: 'offers', ...here };
}

/** The middle of what things of the same kind were found to be worth. */
export function kindPrice(found: readonly number[], measure: PriceMeasure): Found | null {
  if (found.length === 0) return null;
  const middle = weightedQuantile(
    found.map((value) => ({ value, weight: 1 })),
    0.5,
  );
  return {
    step: 'kind',
    measure,
    days: null,
    count: found.length,
    pieces: null,
    paceDays: null,
    found: Math.round(middle),
    outliers: [],
  };
}

/**
 * What was found, moved up or down and ending as wanted, and never under the floor.
 * @returns minor units, at least 1
 */
export function adjusted(
  found: number,
  how: Pick<LotPricing, 'basisPoints' | 'amount' | 'rounding'>,
  floor: number,
): { price: number; isFloor: boolean } {
  const moved = Math.max(1, found + share(found, how.basisPoints) + how.amount);
  const price = roundTo(moved, roundings[how.rounding]);
  return price < floor ? { price: floor, isFloor: true } : { price, isFloor: false };
}

const stepWords: Record<PriceStep, string> = {
  sales: '',
  longer: ', over a longer time than wanted',
  condition: ', other conditions counted by their worth',
  finish: ', of other finishes, too',
  offers: '',
  kind: '',
};
export const measureWords: Record<PriceMeasure, string> = {
  median: 'median',
  mean: 'weighted mean',
  low: 'lower quartile',
  high: 'upper quartile',
  'least-offer': 'least on offer',
  'greatest-offer': 'most on offer',
};

/** Where a price is from, in words; amounts are said by `say`. */
export function basisWords(basis: PriceBasis, say: (amount: number) => string): string {
  const { step, measure, days, count, found, isFloor, onOffer, heardAt, outliers } = basis;
  const many = (what: string) => `${count.toLocaleString('en')} ${what}${count === 1 ? '' : 's'}`;
  const first =
    step === 'kind'
      ? `Middle of ${many('lot')} of the same kind`
      : step === 'offers'
        ? `${measureWords[measure].replace(/^./, (sign) => sign.toUpperCase())} of ${many('present offer')}`
        : `${measureWords[measure].replace(/^./, (sign) => sign.toUpperCase())} of ${many('sale')} in ${days} days${stepWords[step]}`;
  return [
    `${first}: ${say(found)}`,
    isFloor ? 'raised to what the fees ask for' : '',
    outliers.length ? `left out: ${outliers.map((one) => `${say(one.price)} (${one.date})`).join(', ')}` : '',
    step === 'kind' || onOffer === 0 ? '' : `${onOffer.toLocaleString('en')} on offer`,
    heardAt ? `heard ${heardAt}` : '',
  ]
    .filter(Boolean)
    .join('; ');
}
