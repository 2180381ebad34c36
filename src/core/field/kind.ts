import { z } from 'zod';
import type { Json } from '../json';

const choiceSchema = z.object({ id: z.string(), label: z.string() });
export type Choice = z.infer<typeof choiceSchema>;
const choices = z.array(choiceSchema).readonly();
const count = z.number().int();

/** What a field holds. Limits are those of our own record; a marketplace's are told by the checks and refuse nothing. */
export const kindSchema = z.discriminatedUnion('is', [
  /** One line, or several of them; `most` characters. */
  z.object({ is: z.literal('text'), most: count, lines: z.boolean().optional() }),
  /** HTML of the editor's small set of tags. */
  z.object({ is: z.literal('rich'), most: count }),
  /** Minor units of the currency that holds there. */
  z.object({ is: z.literal('money') }),
  z.object({ is: z.literal('whole'), least: count, most: count }),
  /** A number with a decimal point; bounds are null where there is none. */
  z.object({ is: z.literal('number'), least: z.number().nullable(), most: z.number().nullable() }),
  /** Whole grams. */
  z.object({ is: z.literal('weight') }),
  /** Whole millimetres. */
  z.object({ is: z.literal('length') }),
  /** Three sides in whole millimetres. */
  z.object({ is: z.literal('size') }),
  /** A day, as 2026-11-23. */
  z.object({ is: z.literal('date') }),
  z.object({ is: z.literal('choice'), choices }),
  /** `words`: how yes and no are written. */
  z.object({ is: z.literal('boolean'), words: z.tuple([z.string(), z.string()]).readonly().optional() }),
  /** `most` entries of `each` characters; with `choices` every entry is the id of one. `words`: short, as tags are. */
  z.object({
    is: z.literal('list'),
    most: count,
    each: count,
    words: z.boolean().optional(),
    choices: choices.optional(),
  }),
  /** Name → text. */
  z.object({ is: z.literal('map'), name: count, each: count }),
  /** Photos by their hash, in order; the same one may stand twice. */
  z.object({ is: z.literal('photos') }),
  /** A short film, by its hash. */
  z.object({ is: z.literal('clip') }),
  /** What variations differ in. */
  z.object({ is: z.literal('axes') }),
  /** The table of combinations. */
  z.object({ is: z.literal('combinations') }),
  /** A combination's price: its own, or a difference from the item's. */
  z.object({ is: z.literal('priceRule') }),
]);
export type Kind = z.infer<typeof kindSchema>;

export type KindName = Kind['is'];
export type KindOf<Name extends KindName> = Extract<Kind, { is: Name }>;

/** What can be chosen, where there is a list. */
export const choicesOf = (kind: Kind): readonly Choice[] =>
  kind.is === 'choice' || kind.is === 'list' ? (kind.choices ?? []) : [];

/** A value, or why what was typed is none, in a sentence. */
export type Read = { value: Json } | { problem: string };

/** What the meaning of a text hangs on. */
export type FieldContext = {
  /** ISO 4217 code of the amounts. */
  currency: string;
};

/** How one kind is read from text and shown as text; reading what was shown gives the same value. */
export type KindVerbs<Name extends KindName> = {
  /** What a person types or a file holds; nothing typed is null where the field may be empty. */
  read(kind: KindOf<Name>, text: string, context: FieldContext): Read;
  /** The value as text, for a cell, a file and the clipboard. Null is the empty text. */
  show(kind: KindOf<Name>, value: Json, context: FieldContext): string;
  /** Why a value cannot stand, in a sentence; null when it can. Null values are judged by the field. */
  fault(kind: KindOf<Name>, value: Json): string | null;
};
