import { z } from 'zod';
import { jsonSchema } from '../json';
import { knotStates } from '../sync/state';
import { stages } from './stages';

/** How a value is compared. Words are compared without case and without blanks around them. */
export const filterOperators = [
  'is',
  'not',
  'contains',
  'begins',
  'ends',
  'oneOf',
  'between',
  'empty',
  'filled',
  'olderThan',
] as const;
export type FilterOperator = (typeof filterOperators)[number];

/**
 * One field compared with a value. `oneOf` takes a list, `between` a pair of which either may be null, `olderThan` a
 * number of days, `empty` and `filled` nothing. Of a list any entry may fit.
 */
export const conditionSchema = z
  .object({
    field: z
      .string()
      .min(1)
      .max(80)
      .describe('A field of the catalogue, or `photoCount`, `titleLength`, `unsoldDays`, `createdAt`, `updatedAt`'),
    op: z.enum(filterOperators),
    value: jsonSchema.optional(),
  })
  .strict();
export type Condition = z.infer<typeof conditionSchema>;

/** Where the item's listing stands on one account, or on any. */
const listingSchema = z
  .object({
    listing: z
      .object({
        account: z.number().int().optional(),
        state: z.enum(knotStates).optional(),
        unsent: z.literal(true).optional().describe('It is live, and a change has not been sent'),
        drifted: z.literal(true).optional().describe('It was changed there'),
        cause: z.string().max(500).optional().describe('It needs a person, for this reason'),
        liveForDays: z.number().int().min(1).max(36_500).optional().describe('Live, and not renewed for so many days'),
        netBelow: z
          .number()
          .int()
          .min(-100_000_000)
          .max(100_000_000)
          .optional()
          .describe('Less than this would be left of its price, in minor units of its account’s currency'),
      })
      .strict()
      .describe('A listing in this state, all of which must hold of one; with nothing said one that is there at all'),
  })
  .strict();
const stageSchema = z.object({ stage: z.enum(stages) }).strict();
const wordsSchema = z
  .object({ words: z.string().max(200).describe('Each word begins a word of title, brand, model, number or place') })
  .strict();

/** What is asked of a listing; its account besides. */
export type ListingPart = z.infer<typeof listingSchema>['listing'];

export type Filter =
  | { all: Filter[] }
  | { any: Filter[] }
  | Condition
  | z.infer<typeof listingSchema>
  | z.infer<typeof stageSchema>
  | z.infer<typeof wordsSchema>;

const depth = 6;

/** A predicate over items: conditions, all of which or any of which must hold, nested. */
export const filterSchema: z.ZodType<Filter> = z.lazy(() =>
  z
    .union([
      z.object({ all: z.array(filterSchema).max(40) }).strict(),
      z.object({ any: z.array(filterSchema).max(40) }).strict(),
      conditionSchema,
      listingSchema,
      stageSchema,
      wordsSchema,
    ])
    .refine((filter) => depthOf(filter) <= depth, `At most ${depth} levels`),
);

function depthOf(filter: Filter): number {
  if ('all' in filter) return 1 + Math.max(0, ...filter.all.map(depthOf));
  if ('any' in filter) return 1 + Math.max(0, ...filter.any.map(depthOf));
  return 1;
}
