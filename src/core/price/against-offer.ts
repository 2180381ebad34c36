/** How a price is set against what somebody else offers. */
export const againstOffer = ['take', 'match', 'undercut'] as const;
export type AgainstOffer = (typeof againstOffer)[number];

/** An amount that a buyer sees as less, in basis points of what the other one costs. */
const undercutBy = 100;

/**
 * A price set against an offer: *take* asks just the same price; *match* asks so much that the buyer pays the same with
 * delivery; *undercut* one percent less than that, at least the smallest unit. Minor units, never below one.
 * @param ownDelivery what a buyer pays besides for ours
 */
export function priceAgainst(
  offer: { price: number; delivery: number },
  how: AgainstOffer,
  ownDelivery: number,
): number {
  if (how === 'take') return Math.max(1, offer.price);
  const same = offer.price + offer.delivery - ownDelivery;
  if (how === 'match') return Math.max(1, same);
  const total = offer.price + offer.delivery;
  return Math.max(1, same - Math.max(1, Math.ceil((total * undercutBy) / 10_000)));
}
