import type { ItemFact } from './facts';

export const groupings = ['category', 'brand', 'supplier', 'batch', 'condition', 'price'] as const;
export type Grouping = (typeof groupings)[number];

/** The lower ends of the bands of price, but for the first; minor units of the shop's currency. */
export const priceEdges = [2_000, 5_000, 10_000, 25_000, 50_000] as const;

/** What an item has in common with others: a word of it, or the number of its band of price. */
export const groupOf = (item: ItemFact, by: Grouping): string =>
  by === 'price' ? String(priceEdges.filter((edge) => (item.price ?? 0) >= edge).length) : item[by];
