import { z } from 'zod';
import { conditionIds } from '../item/condition';
import { knotStates } from '../sync/state';
import { type Condition, conditionSchema, type Filter, filterSchema } from './filter';
import { stages } from './stages';

const whole = z.coerce.number().int();

/** Any filter, as JSON in the address. */
const whereSchema = z
  .string()
  .max(4_000)
  .refine((text) => readWhere(text) !== null, 'This filter cannot be read')
  .describe('Any filter as JSON, such as {"field":"brand","op":"is","value":"Brask"}');

function readWhere(text: string): Filter | null {
  try {
    return filterSchema.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}

/** Filters of the inventory as an address says them: `where` says anything, the others are short for the usual. All must hold. */
export const itemFilterSchema = z
  .object({
    q: z.string().max(200).describe('Words of title, brand, model, stock number or place'),
    stage: z.enum(stages),
    account: whole,
    state: z.enum(knotStates).describe('State of the listing on `account`, or on any'),
    brand: z.string().max(80),
    category: z.string().max(120),
    condition: z.enum(conditionIds),
    location: z.string().max(60),
    priceMin: whole,
    priceMax: whole,
    quantityMin: whole,
    quantityMax: whole,
    photosMax: whole,
    own: z
      .string()
      .regex(/^[a-z][a-z0-9_]{0,29}:/, 'Write key:value')
      .max(200)
      .describe('A field of your own, as key:value'),
    where: whereSchema,
  })
  .partial();

export type ItemFilter = z.infer<typeof itemFilterSchema>;

const is = (field: string, value: string): Condition => ({ field, op: 'is', value });
const between = (field: string, least: number | undefined, most: number | undefined): Filter[] =>
  least === undefined && most === undefined ? [] : [{ field, op: 'between', value: [least ?? null, most ?? null] }];

/** What an address says besides the words and the stage, part by part; each of them must hold. */
export function addressParts(said: ItemFilter): Filter[] {
  const [ownKey = '', ...ownValue] = (said.own ?? '').split(':');
  const where = said.where === undefined ? null : readWhere(said.where);
  return [
    ...(said.account === undefined && said.state === undefined
      ? []
      : [
          {
            listing: {
              ...(said.account === undefined ? {} : { account: said.account }),
              ...(said.state === undefined ? {} : { state: said.state }),
            },
          },
        ]),
    ...(said.brand === undefined ? [] : [is('brand', said.brand)]),
    // A category and all that is below it.
    ...(said.category === undefined
      ? []
      : [
          {
            any: [
              is('category', said.category),
              { field: 'category', op: 'begins' as const, value: `${said.category}/` },
            ],
          },
        ]),
    ...(said.condition === undefined ? [] : [is('condition', said.condition)]),
    ...(said.location === undefined ? [] : [{ field: 'location', op: 'begins' as const, value: said.location }]),
    ...between('price', said.priceMin, said.priceMax),
    ...between('quantity', said.quantityMin, said.quantityMax),
    ...between('photoCount', undefined, said.photosMax),
    ...(said.own === undefined ? [] : [is(`own.${ownKey}`, ownValue.join(':'))]),
    ...(where === null ? [] : 'all' in where ? where.all : [where]),
  ];
}

/** The same in the one form in which a page writes it, with nothing said the short way; null where it says nothing. */
export const writeParts = (parts: readonly Filter[]): string | null =>
  parts.length ? JSON.stringify({ all: parts }) : null;

/** What an address says, as the one form of a filter. */
export const readFilter = (said: ItemFilter): { all: Filter[] } => ({
  all: [
    ...(said.q === undefined ? [] : [{ words: said.q }]),
    ...(said.stage === undefined ? [] : [{ stage: said.stage }]),
    ...addressParts(said),
  ],
});

/** A filter as an address says it: its words and its stage by themselves, everything else in the one form. */
export function addressOf(filter: Filter): Pick<ItemFilter, 'q' | 'stage' | 'where'> {
  const parts = 'all' in filter ? filter.all : [filter];
  const words = parts.find((part) => 'words' in part);
  const stage = parts.find((part) => 'stage' in part);
  const where = writeParts(parts.filter((part) => part !== words && part !== stage));
  return {
    ...(words ? { q: words.words } : {}),
    ...(stage ? { stage: stage.stage } : {}),
    ...(where === null ? {} : { where }),
  };
}

/** Whether a part of a filter is one condition, as the editor shows it. */
export const isCondition = (part: Filter): part is Condition => conditionSchema.safeParse(part).success;
