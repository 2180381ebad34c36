/** What is to be left of a price: an amount, or a share in basis points of the price or of the cost. */
export type WantedNet = { kind: 'net'; amount: number } | { kind: 'margin' | 'return'; basisPoints: number };
