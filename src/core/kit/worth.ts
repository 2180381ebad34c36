import { z } from 'zod';
import { type FeeTable, feesOf } from '../price';

const amount = z.number().int().min(0).max(100_000_000);
export const worthInputSchema = z
  .object({
    /** Within so many days. */
    days: z.number().int().min(1).max(3_650).default(90),
    /** What an hour is worth, minor units. */
    hourly: amount.default(1_500),
    minutesPerLot: z.number().min(0).max(600).default(2),
    minutesPerOrder: z.number().min(0).max(600).default(6),
    minutesPerSet: z.number().min(0).max(6_000).default(30),
    /** Pieces that go together in one order. */
    perOrder: z.number().int().min(1).max(1_000).default(2),
    /** Box and filling of an order, and of a whole set. */
    packing: amount.default(60),
    packingWhole: amount.default(400),
    /** Postage that one pays oneself for a whole set; of parts the buyer pays it. */
    postageWhole: amount.default(0),
    sets: z.number().int().min(1).max(10_000),
    /** What a whole set brings; null where that is not known. */
    wholePrice: amount.nullable(),
  })
  .strict();
export type WorthInput = z.output<typeof worthInputSchema>;

/** What the worth of a lot hangs on. Minor units of one piece; `perDay` pieces are sold a day by everybody, among `others` offers. */
export type WorthLot = {
  quantity: number;
  price: number | null;
  /** The middle of the days that such things stood; null where nobody tells. */
  paceDays: number | null;
  perDay: number | null;
  others: number;
};

export const waySchema = z.object({
  pieces: z.number(),
  revenue: z.number(),
  fees: z.number(),
  postage: z.number(),
  packing: z.number(),
  minutes: z.number(),
  /** The time at the own rate. */
  time: z.number(),
  net: z.number(),
});
export type Way = z.infer<typeof waySchema>;

export const worthSchema = z.object({
  /** In parts: what is likely to go in the time, and all of it. */
  likely: waySchema,
  parts: waySchema,
  whole: waySchema.nullable(),
  unpriced: z.number(),
  /** From which share of the pieces on (basis points), and after how many days at this pace, parts bring as much as the whole. */
  paysAt: z.number().nullable(),
  paysAfterDays: z.number().nullable(),
});
export type Worth = z.infer<typeof worthSchema>;

/** Where nobody tells how long such things stand. */
const usualPaceDays = 120;
const longestDays = 3_650;

/**
 * How many pieces of a lot are likely to go in so many days. Each stands as long as such things did, half of them up to the
 * median (the times between are taken as exponential); and not more go than one's share of what everybody sells.
 */
export function likelyPieces({ quantity, paceDays, perDay, others }: WorthLot, days: number): number {
  const gone = quantity * (1 - 2 ** (-days / Math.max(1, paceDays ?? usualPaceDays)));
  return perDay === null ? gone : Math.min(gone, (days * perDay) / (1 + others));
}

/** Costs of so many pieces of a lot in orders of so many. */
function wayOf(lots: readonly WorthLot[], piecesOf: (lot: WorthLot) => number, fees: FeeTable, input: WorthInput): Way {
  const { perOrder, minutesPerLot, minutesPerOrder, hourly, packing } = input;
  let [pieces, revenue, feeSum] = [0, 0, 0];
  for (const lot of lots) {
    const count = piecesOf(lot);
    const price = lot.price ?? 0;
    pieces += count;
    revenue += count * price;
    // Fees are taken of orders: a fixed one falls on several pieces.
    feeSum += (count / perOrder) * feesOf(fees, { total: price * perOrder, categoryId: null, liveCount: 0 }).total;
  }
  const orders = pieces / perOrder;
  const minutes = lots.length * minutesPerLot + orders * minutesPerOrder;
  const time = (minutes / 60) * hourly;
  return whole({ pieces, revenue, fees: feeSum, postage: 0, packing: orders * packing, minutes, time });
}

const whole = (way: Omit<Way, 'net'>): Way => {
  const [revenue, fees, postage, packing, time] = [way.revenue, way.fees, way.postage, way.packing, way.time].map(
    Math.round,
  ) as [number, number, number, number, number]; // as many as there are above
  const rounded = { revenue, fees, postage, packing, time };
  return {
    ...rounded,
    pieces: Math.round(way.pieces * 10) / 10,
    minutes: Math.round(way.minutes),
    net: revenue - fees - postage - packing - time,
  };
};

/**
 * Sold in parts or whole, side by side: what comes in, what goes out, and the hours at one's own rate. What the sets have
 * cost is the same both ways and left out.
 */
export function worthOf(lots: readonly WorthLot[], fees: FeeTable, input: WorthInput): Worth {
  const priced = lots.filter((lot) => lot.price !== null && lot.quantity > 0);
  const likelyIn = (days: number) => wayOf(priced, (lot) => likelyPieces(lot, days), fees, input);
  const parts = wayOf(priced, (lot) => lot.quantity, fees, input);
  const { sets, wholePrice } = input;
  const minutes = sets * input.minutesPerSet;
  const once =
    wholePrice === null
      ? null
      : whole({
          pieces: sets,
          revenue: sets * wholePrice,
          fees: sets * feesOf(fees, { total: wholePrice, categoryId: null, liveCount: 0 }).total,
          postage: sets * input.postageWhole,
          packing: sets * input.packingWhole,
          minutes,
          time: (minutes / 60) * input.hourly,
        });
  const nothing = wayOf(priced, () => 0, fees, input).net;
  // Between nothing and all of it what is left rises evenly with the share that is sold.
  const share = once && parts.net > nothing ? (once.net - nothing) / (parts.net - nothing) : null;
  return {
    likely: likelyIn(input.days),
    parts,
    whole: once,
    unpriced: lots.length - priced.length,
    paysAt: share === null || share > 1 ? null : Math.max(0, Math.round(share * 10_000)),
    paysAfterDays: once && daysUntil((days) => likelyIn(days).net >= once.net),
  };
}

/** The first day on which something holds that stays so; null where it never does. */
function daysUntil(holds: (days: number) => boolean): number | null {
  if (holds(0)) return 0;
  if (!holds(longestDays)) return null;
  let [low, high] = [0, longestDays];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (holds(middle)) high = middle;
    else low = middle;
  }
  return high;
}
