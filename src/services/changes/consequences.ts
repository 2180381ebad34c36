import { z } from 'zod';
import { type AccountNet, type ItemTuple, netAt, priceThere } from './edit-nets';

export const accountConsequenceSchema = z.object({
  accountId: z.number(),
  name: z.string(),
  changes: z.number(),
  keepOverride: z.number(),
  belowZero: z.number(),
  outOfRange: z.number(),
  /** Listings that would not be taken any more as they become. */
  blocked: z.number(),
  netBefore: z.number(),
  netAfter: z.number(),
  currency: z.string(),
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
  accounts: z.array(accountConsequenceSchema),
});
export type EditConsequences = z.infer<typeof editConsequencesSchema>;

/** What a change does to one listing; amounts in its account's currency. */
type ListingConsequence = {
  isChanged: boolean;
  isBlocked: boolean;
  keepsOverride: boolean;
  price: number | null;
  netBefore: number | null;
  netAfter: number | null;
};

/** What a change comes to, added up item by item. */
export class Consequences {
  readonly refused = new Map<string, number>();
  readonly accounts = new Map<number, AccountConsequence>();
  items = 0;
  changed = 0;

  refuse(why: string): void {
    this.refused.set(why, (this.refused.get(why) ?? 0) + 1);
  }

  get view(): EditConsequences {
    const refusedCount = [...this.refused.values()].reduce((sum, count) => sum + count, 0);
    return {
      items: this.items,
      changed: this.changed,
      unchanged: this.items - this.changed - refusedCount,
      refused: [...this.refused].map(([why, count]) => ({ why, count })),
      accounts: [...this.accounts.values()],
    };
  }

  constructor(nets: Map<number, AccountNet>) {
    for (const [accountId, { account }] of nets) {
      this.accounts.set(accountId, {
        accountId,
        name: account.name,
        changes: 0,
        keepOverride: 0,
        belowZero: 0,
        outOfRange: 0,
        blocked: 0,
        netBefore: 0,
        netAfter: 0,
        currency: account.compiled.rules.currency,
      });
    }
  }

  /** A listing that only another price or other units of its item change. */
  listing(
    net: AccountNet,
    row: ItemTuple,
    newPrice: number | null,
    quantityChanged: boolean,
    overridePrice: number | null,
  ): void {
    const priceChanged = newPrice !== row[1];
    const before = overridePrice ?? priceThere(net, row, row[1]);
    const after = overridePrice ?? priceThere(net, row, newPrice);
    this.add(net, {
      isChanged: before !== after || quantityChanged,
      isBlocked: false,
      keepsOverride: overridePrice !== null && priceChanged,
      price: after,
      netBefore: netAt(net, row, before),
      netAfter: netAt(net, row, after),
    });
  }

  add(net: AccountNet, what: ListingConsequence): void {
    const account = this.accounts.get(net.account.id);
    if (!account) return;
    if (what.keepsOverride) account.keepOverride++;
    if (what.isChanged) account.changes++;
    if (what.isBlocked) account.blocked++;
    account.netBefore += what.netBefore ?? 0;
    account.netAfter += what.netAfter ?? 0;
    if ((what.netAfter ?? 0) < 0) account.belowZero++;
    const { min, max } = net.account.compiled.rules.price ?? { min: 0, max: Number.POSITIVE_INFINITY };
    if (what.price !== null && (what.price < min || what.price > max)) account.outOfRange++;
  }
}
