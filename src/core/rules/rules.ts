import { z } from 'zod';
import { areaSchema } from '../artwork/place';
import { conditionIds } from '../item/condition';
import { feeTableSchema } from '../price/fee-table';

/** `colour`: what it looks like, where it is one, as #rrggbb; `area`: what is printed on, where it is a product. */
const choice = z.object({
  id: z.string().min(1),
  label: z.string(),
  colour: z.string().optional(),
  area: areaSchema.optional(),
});

export const attributeRuleSchema = z.object({
  id: z.string().min(1),
  label: z.string(),
  required: z.boolean(),
  /** Allowed values; null for free text. */
  values: z.array(z.string()).nullable(),
  maxLength: z.number().int().positive(),
});
export type AttributeRule = z.infer<typeof attributeRuleSchema>;

export const categoryRuleSchema = z.object({
  id: z.string().min(1),
  name: z.string(),
  path: z.array(z.string()),
  leaf: z.boolean(),
  attributes: z.array(attributeRuleSchema),
  /** Ids of own fields that this category demands although they are optional elsewhere. */
  demands: z.array(z.string()).optional(),
});
export type CategoryRule = z.infer<typeof categoryRuleSchema>;

/** A field that one marketplace has and others do not: a return profile, a section, who pays the postage. */
export const extraRuleSchema = z.object({
  id: z.string().min(1),
  label: z.string(),
  type: z.enum(['choice', 'choices', 'text', 'boolean', 'list', 'integer', 'money', 'date']),
  required: z.boolean(),
  values: z.array(choice).nullable(),
  maxLength: z.number().int().positive().nullable(),
  maxItems: z.number().int().positive().nullable(),
  /** The marketplace's own default when nothing is said. */
  fallback: z.union([z.string(), z.boolean(), z.number(), z.array(z.string())]).nullable(),
  /** Item fields, or names of the item's attributes, that say it when nothing is written for this marketplace. */
  from: z.array(z.string()).optional(),
  /** Also required when another field has one of these values. */
  requiredWhen: z.object({ field: z.string(), values: z.array(z.string()) }).optional(),
  /**
   * How its text must be written: `handle` small-letters-with-hyphens, `contents` lines such as `2 x Name`, `tiers` lines
   * such as `10: 4.50`.
   */
  form: z.enum(['handle', 'contents', 'tiers']).optional(),
  /** Dates: at least so many days ahead. Numbers: least and most. */
  minDaysAhead: z.number().int().optional(),
  min: z.number().optional(),
  max: z.number().optional(),
  /** Money: must lie above or below the price, or not below it. */
  against: z.enum(['above-price', 'below-price', 'from-price']).optional(),
  /** The marketplace suggests so much, in percent: `suggested` as a value means that, rounded up, whatever it is by then. */
  suggested: z.number().optional(),
  /** Money: it may be bought at this amount as well. */
  sells: z.boolean().optional(),
  /** What it is where printables are made in the marketplace's own measure. */
  printed: z.union([z.string(), z.number()]).optional(),
  /** Comes and goes with another own field: a sale price with its dates. */
  goesWith: z.array(z.string()).optional(),
});
export type ExtraRule = z.infer<typeof extraRuleSchema>;

/**
 * The form of a marketplace's rules: everything that differs between marketplaces and can be said as data.
 * Read from the marketplace, checked with this schema, kept by version.
 */
export const marketRulesSchema = z.object({
  market: z.string(),
  name: z.string(),
  version: z.number().int(),
  currency: z.string().length(3),
  /** `product`: brand, model, features, and the colour in round brackets last; letters, digits and blanks only. */
  title: z.object({ max: z.number().int().positive(), pattern: z.literal('product').optional() }).nullable(),
  brand: z
    .object({ required: z.boolean(), values: z.array(z.string()).nullable(), none: z.string().nullable() })
    .nullable(),
  description: z
    .object({
      format: z.enum(['rich', 'lines', 'plain']),
      min: z.number().int().min(0),
      max: z.number().int().positive(),
      /** Addresses of web pages may stand in it; true when left out. */
      links: z.boolean().optional(),
      /** Its first line is the title, where there is no title field. */
      titleFirst: z.boolean().optional(),
      /** What the limit counts: the text as written, or only what is seen of it. */
      counts: z.enum(['written', 'seen']).optional(),
    })
    .nullable(),
  highlights: z.object({ min: z.number().int(), max: z.number().int(), maxLength: z.number().int() }).nullable(),
  photos: z.object({
    min: z.number().int(),
    max: z.number().int(),
    minLongestSide: z.number().int(),
    minShortestSide: z.number().int().optional(),
    /** Width by height, least and most; what lies outside is filled up to it. Square is 1 to 1. */
    shape: z.object({ narrow: z.number().positive(), wide: z.number().positive() }).optional(),
    /** Own photos, artwork to be printed, or the catalogue's (then none are sent). */
    kind: z.enum(['own', 'artwork', 'catalogue']).optional(),
  }),
  /** A short film beside the photos; none are taken when left out. */
  clip: z.object({ maxSeconds: z.number().positive() }).nullable().optional(),
  tags: z
    .object({
      max: z.number().int(),
      maxLength: z.number().int(),
      letters: z.enum(['any', 'words', 'hashtag']),
      /** How often buyers searched for a word lately, by its name key. */
      searches: z.record(z.string(), z.number()).optional(),
    })
    .nullable(),
  /** Null where nothing can be bought. `holds`: the price includes postage and fees. */
  price: z.object({ min: z.number().int(), max: z.number().int(), holds: z.boolean().optional() }).nullable(),
  /** How the stock number must be written there; any of ours when left out. `once`: never used again. */
  sku: z.object({ min: z.number().int(), max: z.number().int(), once: z.boolean() }).nullable(),
  /** Offers are made on products of its catalogue. */
  product: z.object({ required: z.boolean() }).nullable(),
  /** Chosen by the seller, may be left out, or follows from the product. */
  category: z.enum(['needed', 'optional', 'product']),
  quantity: z.object({ max: z.number().int() }),
  /** How many axes and combinations a listing may have; none are taken when left out. */
  variations: z
    .object({
      maxAxes: z.number().int(),
      maxCombinations: z.number().int(),
      photos: z.boolean().optional(),
      /** Only what its own products and their grounds come to. */
      printed: z.boolean().optional(),
    })
    .nullable()
    .optional(),
  weight: z.object({ required: z.boolean() }).nullable(),
  size: z.object({ required: z.boolean() }).nullable(),
  conditions: z.array(choice),
  conditionMap: z.partialRecord(z.enum(conditionIds), z.string().nullable()),
  /** `plain`: no markup in it. */
  conditionNote: z
    .object({ max: z.number().int(), forbiddenOn: z.array(z.string()), plain: z.boolean().optional() })
    .nullable(),
  extras: z.array(extraRuleSchema),
  categories: z.array(categoryRuleSchema),
  fees: feeTableSchema,
  pacing: z.object({ perMinute: z.number().positive(), newPerDay: z.number().int().positive() }),
  renewDays: z.number().int().nullable(),
  endsAfterDays: z.number().int().nullable().optional(),
  reviewed: z.boolean().optional(),
  /** The field and value by which the seller pays the postage out of the price. */
  sellerPaysWhen: z.object({ field: z.string(), value: z.string() }).nullable(),
});
export type MarketRules = z.infer<typeof marketRulesSchema>;

/** What one account is allowed beyond (or below) the marketplace's rules. */
export const accountExceptionsSchema = z
  .object({
    /** As accounts have it that were read before `parts` were: it goes with the next reading. */
    titleMax: z.number().int().positive(),
    newPerDay: z.number().int().positive(),
    perMinute: z.number().positive(),
    /** Parts of the rules that are otherwise for this account: whatever limits it has of its own, as they come out. */
    parts: marketRulesSchema.partial(),
  })
  .partial();
export type AccountExceptions = z.infer<typeof accountExceptionsSchema>;

/** The rules as they hold for one account: the marketplace's with the account's exceptions laid over. */
export function rulesFor(published: MarketRules, exceptions: AccountExceptions): MarketRules {
  const rules: MarketRules = { ...published, ...exceptions.parts };
  return {
    ...rules,
    title: rules.title && exceptions.titleMax ? { ...rules.title, max: exceptions.titleMax } : rules.title,
    pacing: {
      perMinute: exceptions.perMinute ?? rules.pacing.perMinute,
      newPerDay: exceptions.newPerDay ?? rules.pacing.newPerDay,
    },
  };
}
