import type { Item } from '../item/item';

/** What a proposal is made for. */
export type WordingField = 'title' | 'tags' | 'highlights' | 'description';

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
};

/** One word or line of a proposal, and why it stands in it. */
export type ProposedPart = { text: string; why: string };

export type Proposal = {
  field: WordingField;
  parts: ProposedPart[];
  /** The parts put together: a text, or the entries of a list. */
  value: string | string[];
  /** Who made it. */
  maker: string;
};

/**
 * Makes proposals for wording. The one that comes with Netting computes them; a language model can be plugged in as
 * another one, which is why making may take its time.
 */
export type WordingMaker = {
  name: string;
  propose(wish: WordingWish): Proposal | Promise<Proposal>;
};
