/** What has become of a buyer's offer: the first two wait for an answer, ours or the buyer's. */
export const offerStates = ['open', 'countered', 'accepted', 'declined', 'expired'] as const;
export type OfferState = (typeof offerStates)[number];
