import { z } from 'zod';
import type { Item } from '../item/item';
import type { Term } from './term';

/** What a proposal is made for. */
export const wordingFieldSchema = z.enum(['title', 'tags', 'highlights', 'description']);
export type WordingField = z.infer<typeof wordingFieldSchema>;

export type WordingWish = {
  item: Item;
  field: WordingField;
  /** Most characters of a text, or of one entry of a list. */
  maxLength: number;
  /** Most entries of a list. */
  maxItems: number;
  /** How often buyers looked for a word lately, by name key; empty where nobody counted. */
  searches: Record<string, number>;
  /** Words of the category there, the most general first. */
  categoryWords: string[];
  /** The language in which it is wanted, as its seller calls it; none, or empty, for that in which the item is written. */
  language?: string;
  /** One's own terms in that language. */
  terms?: readonly Term[];
};

/** One word or line of a proposal, and why it stands in it. */
export const proposedPartSchema = z.object({
  text: z.string(),
  why: z.string(),
});
export type ProposedPart = z.infer<typeof proposedPartSchema>;

export const proposalSchema = z.object({
  field: wordingFieldSchema,
  parts: z.array(proposedPartSchema),
  /** The parts put together: a text, or the entries of a list. */
  value: z.union([z.string(), z.array(z.string())]),
  /** Who made it. */
  maker: z.string(),
});
export type Proposal = z.infer<typeof proposalSchema>;

/**
 * Makes proposals for wording. The one that comes with Netting computes them; a language model can be plugged in as
 * another one, which is why making may take its time.
 */
export type WordingMaker = {
  name: string;
  propose(wish: WordingWish): Proposal | Promise<Proposal>;
};
