import { z } from 'zod';
import { type ConditionGrade, conditionIds } from '../item/condition';

export const contentKinds = ['part', 'spare', 'paper', 'box'] as const;
/** What a line of a contents list is: a part, a spare that the box holds besides, paper, or the box itself. */
export type ContentKind = (typeof contentKinds)[number];

/** A line of the contents list of one set. */
export type ContentLine = {
  /** What the catalogue calls it; empty where it is known by its words alone. */
  entry: string;
  name: string;
  /** Colour or finish, as the catalogue names it; empty where there is none. */
  finish: string;
  /** Pieces in one set. */
  quantity: number;
  /** Of one piece; null where nobody tells. */
  grams: number | null;
  /** What kind of thing it is, in the catalogue's words; empty where nobody tells. */
  sort: string;
  kind: ContentKind;
  /** It is a set of its own, with contents under its entry. */
  isSet: boolean;
  /** Of a list that tells more than what a set holds. */
  said?: LotSaid;
};

/** What a list says of a line besides: minor units a piece. */
export type LotSaid = {
  condition: ConditionGrade | null;
  price: number | null;
  place: string;
  comment: string;
};

/** More pieces or lots than this are no set that a person breaks up. */
export const mostPieces = 1_000_000;
export const mostLots = 20_000;

/** A piece, or several equal ones, of the sets that are broken up. */
export const sourceSchema = z.object({
  /** Where it comes from: the entries of the sets it lies in, the outermost first, in words. */
  within: z.array(z.string()),
  name: z.string(),
  kind: z.enum(contentKinds),
  quantity: z.number().int().min(1),
});
export type Source = z.infer<typeof sourceSchema>;

/** Pieces out of the sets, all equal: what becomes one lot. Of one piece: grams. */
export const partsSchema = z.object({
  entry: z.string(),
  name: z.string(),
  finish: z.string(),
  condition: z.enum(conditionIds).nullable(),
  quantity: z.number().int(),
  grams: z.number().int().nullable(),
  sort: z.string(),
  from: z.array(sourceSchema),
});
export type Parts = z.infer<typeof partsSchema> & { said?: LotSaid };
