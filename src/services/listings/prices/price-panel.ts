import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { carrierThere, netInput, netsBelow } from '../../../core/listing/net';
import { amountIn, roundingNames, roundings } from '../../../core/measure';
import { rateSchema } from '../../../core/measure/rate';
import { netOf, type PriceGoal, priceFor } from '../../../core/price';
import { feesSchema } from '../../../core/price/fees';
import { netSchema } from '../../../core/price/net';
import { quoteSchema } from '../../../core/price/postage';
import { database } from '../../../db/client';
import { listing } from '../../../db/schema';
import { postageOf } from '../../accounts/postage/postage-of';
import { type LoadedAccount, loadAccounts } from '../../records/accounts/load-accounts';
import { loadItem } from '../../records/items/load-items';
import { computeRow } from '../../records/listings/compute-row';
import { liveCounts } from '../../records/listings/live-counts';

export const pricePanelQuerySchema = z
  .object({
    /** A price to try, in minor units of the item's currency; the item's own when left out. */
    price: z.coerce.number().int().min(0).max(100_000_000_00).optional(),
    goal: z.enum(['net', 'margin', 'return']).optional(),
    /** Net in minor units of the shop's own currency; margin and return in basis points. */
    amount: z.coerce.number().int().min(-1_000_000_00).max(1_000_000_00).optional(),
    rounding: z.enum(roundingNames).default('none'),
    /** Never under it: minor units of the shop's own currency. */
    floor: z.coerce.number().int().min(0).max(100_000_000_00).default(0),
  })
  .strict();

export const priceLineSchema = z.object({
  accountId: z.number(),
  name: z.string(),
  currency: z.string(),
  rate: rateSchema.nullable(),
  /** Why the price there is what it is. */
  how: z.string().nullable(),
  own: z.boolean(),
  price: z.number().nullable(),
  net: netSchema.nullable(),
  /** With whom the parcel is reckoned to go; null where the buyer pays, or by the marketplace's own label. */
  carrier: z.string().nullable(),
  /** What would be left when it is sold through advertising; null where there is none. */
  netAdvertised: z.number().nullable(),
  /** Lower prices at which it may be bought as well: sale price, tiers. */
  below: z.array(z.object({ label: z.string(), price: z.number(), net: z.number() })),
  monthly: z.number(),
  /** The lowest price that reaches the goal; null when none does. */
  solved: z
    .object({
      price: z.number(),
      fees: feesSchema,
      net: z.number(),
    })
    .nullable(),
});
export type PriceLine = z.infer<typeof priceLineSchema>;

export const pricePanelSchema = z.object({
  currency: z.string(),
  price: z.number().nullable(),
  cost: z.number().nullable(),
  quotes: z.array(quoteSchema),
  box: z.string().nullable(),
  perPound: z.number().nullable(),
  lines: z.array(priceLineSchema),
});
export type PricePanel = z.infer<typeof pricePanelSchema>;

const goalOf = ({ goal, amount }: z.infer<typeof pricePanelQuerySchema>): PriceGoal | null => {
  if (!goal || amount === undefined) return null;
  if (goal === 'net') return { kind: 'net', amount };
  return { kind: goal, basisPoints: amount };
};

/** A wanted net in the account's currency by the day's rate; shares stay. Null while no rate is known. */
function goalThere(goal: PriceGoal, { rate, compiled: { rules } }: LoadedAccount): PriceGoal | null {
  if (goal.kind !== 'net') return goal;
  const amount = amountIn(goal.amount, rules.currency, rate);
  return amount === null ? null : { ...goal, amount };
}

/** Per account: price, fees, postage, net, margin and return; and the price for a wanted one. Nothing is changed. */
export async function pricePanel(itemId: number, query: z.infer<typeof pricePanelQuerySchema>): Promise<PricePanel> {
  const db = database();
  const stored = await loadItem(db, itemId);
  const item = query.price === undefined ? stored : { ...stored, price: query.price };
  const [accounts, rows, postage] = await Promise.all([
    loadAccounts(db),
    db.select().from(listing).where(eq(listing.itemId, itemId)),
    postageOf(itemId),
  ]);
  const live = await liveCounts(db, accounts);
  const goal = goalOf(query);
  const lines = accounts
    .filter((account) => account.compiled.rules.price !== null)
    .map((account): PriceLine => {
      const { rules } = account.compiled;
      const row = rows.find((one) => one.accountId === account.id);
      const computed = computeRow(item, row, account);
      const liveCount = live.get(account.id) ?? 0;
      const input = netInput(account, computed.content, item, liveCount);
      const price = typeof computed.content.price === 'number' ? computed.content.price : null;
      const net = price === null ? null : netOf({ ...input, price });
      const wanted = goal && goalThere(goal, account);
      const floor = amountIn(query.floor, rules.currency, account.rate);
      const solvedPrice =
        wanted === null || floor === null || (wanted.kind === 'return' && !item.cost)
          ? null
          : priceFor(
              input,
              wanted,
              roundings[query.rounding],
              Math.max(floor, rules.price?.min ?? 0),
              rules.price?.max,
            );
      const solved = solvedPrice === null ? null : netOf({ ...input, price: solvedPrice });
      const value = computed.values.find((one) => one.field === 'price');
      return {
        accountId: account.id,
        name: account.name,
        currency: rules.currency,
        rate: account.rate,
        how: value?.how ?? null,
        own: value?.origin === 'override',
        price,
        net,
        carrier: carrierThere(account, computed.content, item)?.name ?? null,
        netAdvertised: net?.fees.advertising ? net.net - net.fees.advertising : null,
        below: netsBelow(account, computed.content, item, liveCount).map(({ label, net: lower }) => ({
          label,
          price: lower.price,
          net: lower.net,
        })),
        monthly: rules.fees.monthly ?? 0,
        solved: solved && { price: solved.price, fees: solved.fees, net: solved.net },
      };
    });
  return {
    currency: item.currency,
    price: item.price,
    cost: item.cost,
    quotes: postage.quotes,
    box: postage.box?.name ?? null,
    perPound: postage.perPound,
    lines,
  };
}
