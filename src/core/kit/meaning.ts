import type { LotState } from './totals';

/** A list says of more pieces (`add`), or of those that are there (`change`). */
export const lotMeanings = ['add', 'change'] as const;
export type LotMeaning = (typeof lotMeanings)[number];

/** A lot that speaks of what is in stock, rather than of more pieces. */
export const speaksOfStock = ({ state, meant }: { state: LotState; meant: LotMeaning }): boolean =>
  state === 'done' || meant === 'change';

/** What of a lot can be changed where it is in stock already. */
export const editedFields = ['price', 'place', 'comment', 'tiers'] as const;
export type EditedField = (typeof editedFields)[number];
