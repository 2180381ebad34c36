import type { z } from 'zod';
import type { Field, KindName } from '../../field';
import type { Json } from '../../json';
import type { Box } from '../../measure/parcel';
import type { RoundingName } from '../../measure/rounding';
import type { PhotoKnowledge } from '../../photo/known';
import type { Term } from '../../wording/term';
import type { Engines } from '../engines';
import type { WantedNet } from './wanted-net';

/** What a verb sees besides the value that it changes. */
export type VerbContext = {
  field: Field;
  /** ISO 4217 code of the field's own amounts. */
  currency: string;
  /** An amount of the shop's own currency in the field's; null while no rate is known. The same where nothing is said. */
  there?(amount: number): number | null;
  /** Another field of the same place; undefined where there is none of that name. */
  fieldAt(field: string): Json | undefined;
  /** Of a combination what the first of those that are meant has. */
  first?: Json;
  engines: Engines;
  /** What a pattern may speak of. */
  variables(): Record<string, unknown>;
  /** The lowest price on this account that leaves what is wanted, ending so; null when none does. Only of an account. */
  priceFor?(goal: WantedNet, rounding: RoundingName, floor: number): number | null;
  /** The box that the item goes into; null where none of them holds it, or its sides are not known. */
  box?(): Box | null;
  /** The category that is suggested on this account, and how certain it is in percent. Only of an account. */
  suggested?(): SuggestedCategory | null;
  /** One's own terms in the language of this account; null where it has none. Only of an account. */
  terms?(): readonly Term[] | null;
  /** What is known of pictures; only of photos. */
  photos?: PhotoKnowledge;
  /** What such things sold for in so many days up to now; null where nothing is known. Amounts of the item's currency. */
  sold?(days: number): SoldFor | null;
};

export type SoldFor = { median: number; count: number };

/** `certainty`: 50 where another one fits just as well, 100 where no other fits at all. */
export type SuggestedCategory = { id: string; certainty: number };

/**
 * What the value becomes, or why it cannot. `became`: of photos which took whose place, so that what accounts chose of
 * them follows.
 */
export type VerbOutcome = { to: Json; became?: readonly (readonly [old: string, now: string])[] } | { refused: string };

/** One way of changing a value: what it is called, which kinds of fields it is for, and what it does. */
export type Verb<Name extends string, Schema extends z.ZodType<{ verb: Name }>> = {
  name: Name;
  label: string;
  kinds: readonly KindName[];
  /** Of these kinds only the fields of these names; all where nothing is said. */
  fields?: readonly string[];
  schema: Schema;
  /** Pure. `value` is what stands in the field now; a change to the same is no change. */
  apply(args: z.output<Schema>, value: Json, context: VerbContext): VerbOutcome;
  /** What it does, to follow the field's name: *set to 5*. */
  say(args: z.output<Schema>, context: Pick<VerbContext, 'field' | 'currency'>): string;
};

export const defineVerb = <Name extends string, Schema extends z.ZodType<{ verb: Name }>>(
  verb: Verb<Name, Schema>,
): Verb<Name, Schema> => verb;
