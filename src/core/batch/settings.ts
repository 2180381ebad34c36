import { z } from 'zod';
import { conditionIds } from '../item/condition';

const amount = z.number().int().min(0).max(100_000_000_00);

/** How a piece gets its price. Amounts in minor units of the shop's own currency. */
export const priceRuleSchema = z.discriminatedUnion('by', [
  z.object({ by: z.literal('none') }).strict(),
  z.object({ by: z.literal('fixed'), amount }).strict(),
  z
    .object({
      by: z.literal('cost'),
      /** Times the cost, in hundredths. */
      times: z.number().int().min(1).max(10_000),
      plus: amount,
    })
    .strict(),
  z
    .object({
      by: z.literal('sales'),
      /** The median of comparable sales of so many days, times so many hundredths. */
      days: z.number().int().min(7).max(1_000),
      times: z.number().int().min(1).max(1_000),
    })
    .strict(),
]);
export type PriceRule = z.infer<typeof priceRuleSchema>;

export const placeCounts = ['stays', 'each'] as const;

/** What every scan of a sitting gives its piece; kept under a name it is a preset. */
export const intakeSettingsSchema = z
  .object({
    grade: z.enum(conditionIds).nullable(),
    /** Ready-made sentences that are switched on. */
    snippets: z.array(z.string().min(1).max(200)).max(30),
    /** What the note says besides. */
    besides: z.string().max(500),
    price: priceRuleSchema,
    /** Of one piece. */
    cost: amount.nullable(),
    quantity: z.number().int().min(1).max(1_000),
    category: z.string().max(120),
    /** Where the next piece is put; the next box is the next number. */
    place: z.string().max(60),
    placeCounts: z.enum(placeCounts),
    /** The size of the label that is printed of each piece; null for none. */
    label: z.string().max(40).nullable(),
    /** Accounts that the pieces are meant for; null for those that want every new item. */
    accounts: z.array(z.number().int().positive()).max(40).nullable(),
    asksGrade: z.boolean(),
    asksPrice: z.boolean(),
    /** Left lying when less than this would be left of it, in minor units. */
    leastNet: amount.nullable(),
    /** In hundredths of the cost. */
    leastReturn: z.number().int().min(0).max(100_000).nullable(),
    /** Longest that such things stand before they go, in days. */
    mostDays: z.number().int().min(1).max(1_000).nullable(),
  })
  .strict();
export type IntakeSettings = z.infer<typeof intakeSettingsSchema>;

export const firstSettings: IntakeSettings = {
  grade: null,
  snippets: [],
  besides: '',
  price: { by: 'none' },
  cost: null,
  quantity: 1,
  category: '',
  place: '',
  placeCounts: 'stays',
  label: null,
  accounts: null,
  asksGrade: false,
  asksPrice: false,
  leastNet: null,
  leastReturn: null,
  mostDays: null,
};

/** Settings as somebody sent them who is not told what was paid: cost, price and what is worth taking stay as they are kept. */
export const withCostsOf = (given: IntakeSettings, kept: IntakeSettings): IntakeSettings => ({
  ...given,
  cost: kept.cost,
  price: kept.price,
  leastNet: kept.leastNet,
  leastReturn: kept.leastReturn,
});

/**
 * The price that a rule makes.
 * @param known the piece's cost, and the median of comparable sales; null where that is not known
 * @returns minor units; null where the rule says nothing, or not yet
 */
export function priceByRule(rule: PriceRule, known: { cost: number | null; median: number | null }): number | null {
  switch (rule.by) {
    case 'none':
      return null;
    case 'fixed':
      return rule.amount;
    case 'cost':
      return known.cost === null ? null : Math.round((known.cost * rule.times) / 100) + rule.plus;
    case 'sales':
      return known.median === null ? null : Math.round((known.median * rule.times) / 100);
  }
}

/** Whether what such things sold for has to be known: for the price, or for how long they stand. */
export const needsSales = ({ price, mostDays }: Pick<IntakeSettings, 'price' | 'mostDays'>): boolean =>
  price.by === 'sales' || mostDays !== null;
