/** A list says of more pieces (`add`), or of those that are there (`change`). */
export const lotMeanings = ['add', 'change'] as const;
export type LotMeaning = (typeof lotMeanings)[number];

/** What of a lot can be changed where it is in stock already. */
export const editedFields = ['price', 'place', 'comment', 'tiers'] as const;
export type EditedField = (typeof editedFields)[number];
