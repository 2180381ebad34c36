import { z } from 'zod';
import { areaSchema } from '../core/artwork';
import { feeTableSchema } from '../core/price';
import { type CategoryRule, type ExtraRule, type MarketRules, nameKey } from '../core/rules';

/** Where they reckon as we keep it. */
const { listing, commission, least, when, payment, labels, monthly } = feeTableSchema.shape;
const choice = z.object({
  id: z.string(),
  label: z.string(),
  colour: z.string().optional(),
  area: areaSchema.optional(),
});

/** Rules as these marketplaces publish them; checked before anything of it is used. */
export const publishedRulesSchema = z.object({
  version: z.number().int(),
  currency: z.string().length(3),
  limits: z.record(z.string(), z.number()),
  required: z.array(z.string()),
  lists: z.record(z.string(), z.array(choice)),
  conditions: z.array(choice),
  noteForbiddenOn: z.array(z.string()),
  categories: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      path: z.array(z.string()),
      leaf: z.boolean(),
      attributes: z.array(
        z.object({
          id: z.string(),
          name: z.string(),
          required: z.boolean(),
          values: z.array(z.string()).nullable(),
          max: z.number().int(),
        }),
      ),
      demands: z.array(z.string()).optional(),
    }),
  ),
  fees: z.object({
    listing,
    commission,
    least,
    when,
    byCategory: z.record(z.string(), z.number().int()),
    payment,
    labels,
    monthly,
    bases: z.record(z.string(), z.number().int()).optional(),
    basisField: z.string().optional(),
    handling: z
      .array(
        z.object({
          id: z.string(),
          label: z.string(),
          upToGrams: z.number().int(),
          upToMm: z.number().int(),
          amount: z.number().int(),
        }),
      )
      .optional(),
    handlingWhen: z.object({ field: z.string(), value: z.string() }).optional(),
    storagePerLitreMonth: z.number().int().optional(),
    handlingElsewhere: z.number().int().min(0).optional(),
    advertisingField: z.string().optional(),
  }),
  pacing: z.object({ perMinute: z.number(), newPerDay: z.number().int() }),
  renewDays: z.number().int().nullable(),
  endsAfterDays: z.number().int().nullable().optional(),
  review: z.object({ ms: z.number() }).nullable().optional(),
  searches: z.record(z.string(), z.number()).optional(),
});
export type PublishedRules = z.infer<typeof publishedRulesSchema>;

export const limit = (rules: PublishedRules, name: string, fallback: number): number => rules.limits[name] ?? fallback;

const categoriesOf = (rules: PublishedRules): CategoryRule[] =>
  rules.categories.map(({ attributes, ...category }) => ({
    ...category,
    attributes: attributes.map(({ name, max, ...attribute }) => ({ ...attribute, label: name, maxLength: max })),
  }));

const own = (field: string) => `extra.${field}`;

function feesOf({ fees }: PublishedRules): MarketRules['fees'] {
  const { handling, handlingWhen, bases, basisField } = fees;
  return {
    listing: fees.listing,
    commission: fees.commission,
    commissionByCategory: fees.byCategory,
    payment: fees.payment,
    labels: fees.labels,
    ...(fees.least === undefined ? {} : { least: fees.least }),
    ...(fees.when ? { when: { field: own(fees.when.field), values: fees.when.values } } : {}),
    ...(fees.monthly === undefined ? {} : { monthly: fees.monthly }),
    ...(fees.advertisingField ? { advertisingField: own(fees.advertisingField) } : {}),
    ...(bases && basisField ? { bases: { field: own(basisField), amounts: bases } } : {}),
    ...(handling && handlingWhen
      ? {
          handling: {
            field: own(handlingWhen.field),
            value: handlingWhen.value,
            tiers: handling,
            storagePerLitreMonth: fees.storagePerLitreMonth ?? 0,
            ...(fees.handlingElsewhere === undefined ? {} : { elsewhere: fees.handlingElsewhere }),
          },
        }
      : {}),
  };
}

/** The parts of the rules that every marketplace publishes alike, and what most of them do without. */
export const commonRules = (rules: PublishedRules) => ({
  version: rules.version,
  currency: rules.currency,
  conditions: rules.conditions,
  categories: categoriesOf(rules),
  fees: feesOf(rules),
  pacing: rules.pacing,
  renewDays: rules.renewDays,
  endsAfterDays: rules.endsAfterDays ?? null,
  reviewed: Boolean(rules.review),
  price: { min: limit(rules, 'priceMin', 1), max: limit(rules, 'priceMax', 100_000_000) },
  highlights: null,
  // A marketplace that names a number of axes takes variations.
  variations: rules.limits.axes
    ? {
        maxAxes: rules.limits.axes,
        maxCombinations: limit(rules, 'combinations', 1_000),
        ...(rules.limits.valuePictures ? { photos: true } : {}),
      }
    : null,
  clip: rules.limits.clipSeconds ? { maxSeconds: rules.limits.clipSeconds } : null,
  sku: null,
  product: null,
  category: 'needed' as const,
});

/** Search counts by the keys under which tags are compared. */
export const searchesOf = (rules: PublishedRules): Record<string, number> | undefined =>
  rules.searches && Object.fromEntries(Object.entries(rules.searches).map(([word, count]) => [nameKey(word), count]));

/** A field of one marketplace's own with a list to choose from. */
export const choiceExtra = (
  rules: PublishedRules,
  id: string,
  label: string,
  list: string,
  required: boolean,
  fallback: string | null = null,
): ExtraRule => ({
  id,
  label,
  type: 'choice',
  required,
  values: rules.lists[list] ?? [],
  maxLength: null,
  maxItems: null,
  fallback,
});

export const textExtra = (id: string, label: string, maxLength: number): ExtraRule => ({
  id,
  label,
  type: 'text',
  required: false,
  values: null,
  maxLength,
  maxItems: null,
  fallback: null,
});

/** The shop's sections: those that were named there, any words where none was. */
export const sectionExtra = (rules: PublishedRules, maxLength: number): ExtraRule =>
  rules.lists.sections
    ? choiceExtra(rules, 'section', 'Shop section', 'sections', false)
    : textExtra('section', 'Shop section', maxLength);

export const switchExtra = (id: string, label: string, fallback: boolean): ExtraRule => ({
  id,
  label,
  type: 'boolean',
  required: false,
  values: null,
  maxLength: null,
  maxItems: null,
  fallback,
});

/** Several from a list. */
export const choicesExtra = (
  rules: PublishedRules,
  id: string,
  label: string,
  list: string,
  maxItems: number,
  from: string[] = [],
): ExtraRule => ({ ...choiceExtra(rules, id, label, list, false), type: 'choices', maxItems, from });

export const listExtra = (id: string, label: string, maxItems: number, maxLength: number): ExtraRule => ({
  ...textExtra(id, label, maxLength),
  type: 'list',
  maxItems,
});

export const moneyExtra = (id: string, label: string, against: NonNullable<ExtraRule['against']>): ExtraRule => ({
  ...textExtra(id, label, 1),
  type: 'money',
  maxLength: null,
  against,
});

export const dateExtra = (id: string, label: string): ExtraRule => ({
  ...textExtra(id, label, 10),
  type: 'date',
  maxLength: null,
});
