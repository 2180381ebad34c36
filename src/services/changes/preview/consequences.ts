import { z } from 'zod';
import { fullPace, paceOn, secondsFor } from '../../../core/sync';
import {
  type AccountNet,
  type ItemTuple,
  type ListingTuple,
  netsAt,
  type Own,
  priceThere,
} from '../../records/listings/account-nets';

export const accountConsequenceSchema = z.object({
  accountId: z.number(),
  name: z.string(),
  /** Live listings that become different. */
  changes: z.number(),
  /** Which of their fields, and in how many listings each. */
  fields: z.array(z.object({ field: z.string(), label: z.string(), count: z.number() })),
  keepOverride: z.number(),
  belowZero: z.number(),
  /** Listings that would not be taken any more as they become. */
  blocked: z.number(),
  /** What would be wrong with them, grouped by cause. */
  breaks: z.array(z.object({ message: z.string(), fix: z.string(), count: z.number() })),
  feesBefore: z.number(),
  feesAfter: z.number(),
  netBefore: z.number(),
  netAfter: z.number(),
  currency: z.string(),
  /** How long sending takes under the account's pace. */
  seconds: z.number(),
});
export type AccountConsequence = z.infer<typeof accountConsequenceSchema>;

export const editConsequencesSchema = z.object({
  items: z.number(),
  changed: z.number(),
  unchanged: z.number(),
  refused: z.array(
    z.object({
      why: z.string(),
      count: z.number(),
    }),
  ),
  /** The first items that cannot be changed this way. */
  refusedItems: z.array(z.number()),
  accounts: z.array(accountConsequenceSchema),
  /** How many items there are to look at. */
  total: z.number(),
  /** Whether all of them have been looked at. */
  isWhole: z.boolean(),
});
export type EditConsequences = z.infer<typeof editConsequencesSchema>;

/** What would be wrong with a listing as it becomes. */
type Break = { message: string; fix: string };

/** What a change does to one listing; amounts in its account's currency. */
type ListingConsequence = {
  /** Labels of the fields that become different, by their ids. */
  fields: ReadonlyMap<string, string>;
  breaks: readonly Break[];
  keepsOverride: boolean;
  before: { net: number; fees: number } | null;
  after: { net: number; fees: number } | null;
};

const mostReasons = 20;
const mostRefusedItems = 60;

class AccountTotal {
  changes = 0;
  keepOverride = 0;
  belowZero = 0;
  blocked = 0;
  feesBefore = 0;
  feesAfter = 0;
  netBefore = 0;
  netAfter = 0;
  readonly fields = new Map<string, { label: string; count: number }>();
  readonly breaks = new Map<string, Break & { count: number }>();
  readonly there: AccountNet;

  constructor(there: AccountNet) {
    this.there = there;
  }

  add({ fields, breaks, keepsOverride, before, after }: ListingConsequence): void {
    if (keepsOverride) this.keepOverride++;
    if (fields.size) this.changes++;
    for (const [field, label] of fields) {
      const known = this.fields.get(field);
      if (known) known.count++;
      else this.fields.set(field, { label, count: 1 });
    }
    if (breaks.length) this.blocked++;
    for (const one of breaks) {
      const known = this.breaks.get(one.message);
      if (known) known.count++;
      else if (this.breaks.size < mostReasons) this.breaks.set(one.message, { ...one, count: 1 });
    }
    this.netBefore += before?.net ?? 0;
    this.netAfter += after?.net ?? 0;
    this.feesBefore += before?.fees ?? 0;
    this.feesAfter += after?.fees ?? 0;
    if ((after?.net ?? 0) < 0) this.belowZero++;
  }

  view(now: Date): AccountConsequence {
    const { account } = this.there;
    const { rules } = account.compiled;
    const pace = paceOn(rules.pacing, account.row.ownPace ?? fullPace, now);
    return {
      accountId: account.id,
      name: account.name,
      changes: this.changes,
      fields: [...this.fields].map(([field, one]) => ({ field, ...one })).sort((a, b) => b.count - a.count),
      keepOverride: this.keepOverride,
      belowZero: this.belowZero,
      blocked: this.blocked,
      breaks: [...this.breaks.values()].sort((a, b) => b.count - a.count),
      feesBefore: this.feesBefore,
      feesAfter: this.feesAfter,
      netBefore: this.netBefore,
      netAfter: this.netAfter,
      currency: rules.currency,
      seconds: this.changes ? secondsFor({ create: 0, update: this.changes, end: 0, renew: 0 }, pace) : 0,
    };
  }
}

const onPrice: ReadonlyMap<string, string> = new Map([['price', 'Price']]);
const onQuantity: ReadonlyMap<string, string> = new Map([['quantity', 'Quantity']]);
const onBoth: ReadonlyMap<string, string> = new Map([...onPrice, ...onQuantity]);
const onNothing: ReadonlyMap<string, string> = new Map();
const noBreaks: readonly Break[] = [];

/** What a change comes to, added up item by item. */
export class Consequences {
  private readonly refused = new Map<string, number>();
  private refusedCount = 0;
  private readonly refusedItems: number[] = [];
  private readonly accounts: Map<number, AccountTotal>;
  items = 0;
  changed = 0;
  total = 0;

  constructor(nets: ReadonlyMap<number, AccountNet>) {
    this.accounts = new Map([...nets].map(([id, net]) => [id, new AccountTotal(net)]));
  }

  refuse(item: number, why: string): void {
    this.refused.set(why, (this.refused.get(why) ?? 0) + 1);
    this.refusedCount++;
    if (this.refusedItems.length < mostRefusedItems) this.refusedItems.push(item);
  }

  view(isWhole: boolean): EditConsequences {
    const now = new Date();
    const reasons = [...this.refused]
      .map(([why, count]) => ({ why, count }))
      .sort((a, b) => b.count - a.count)
      .slice(0, mostReasons);
    const others = this.refusedCount - reasons.reduce((sum, one) => sum + one.count, 0);
    return {
      items: this.items,
      changed: this.changed,
      unchanged: this.items - this.changed - this.refusedCount,
      refused: others ? [...reasons, { why: 'For other reasons', count: others }] : reasons,
      refusedItems: this.refusedItems,
      accounts: [...this.accounts.values()].map((one) => one.view(now)),
      total: Math.max(this.total, this.items),
      isWhole,
    };
  }

  /** A listing that only another price or other units of its item change. */
  listing(
    net: AccountNet,
    row: ItemTuple,
    newPrice: number | null,
    quantityChanged: boolean,
    [, , overridePrice, text]: ListingTuple,
  ): void {
    const own = text === null ? null : (JSON.parse(text) as Own); // written as JSON by ourselves
    const before = overridePrice ?? priceThere(net, row, row[1], own);
    const after = overridePrice ?? priceThere(net, row, newPrice, own);
    const isPrice = before !== after;
    this.add(net, {
      fields: isPrice ? (quantityChanged ? onBoth : onPrice) : quantityChanged ? onQuantity : onNothing,
      // What was not allowed before is no news.
      breaks: isPrice && priceBreaks(net, before).length === 0 ? priceBreaks(net, after) : noBreaks,
      keepsOverride: overridePrice !== null && newPrice !== row[1],
      before: netsAt(net, row, before, own),
      after: netsAt(net, row, after, own),
    });
  }

  add(net: AccountNet, what: ListingConsequence): void {
    this.accounts.get(net.account.id)?.add(what);
  }
}

function priceBreaks({ account }: AccountNet, price: number | null): readonly Break[] {
  const { min, max } = account.compiled.rules.price ?? { min: 0, max: Number.POSITIVE_INFINITY };
  if (price === null || (price >= min && price <= max)) return noBreaks;
  const message = price < min ? 'The price is below what is allowed there' : 'The price is above what is allowed there';
  return [{ message, fix: 'Keep the price within a floor and a ceiling' }];
}
