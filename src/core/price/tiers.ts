import { amountToText, parseAmount } from '../measure/money';

/** From so many pieces on, minor units a piece. */
export type Tier = { pieces: number; price: number };

/** A quantity tier as it is written, such as `10: 4.50`: from ten pieces on, 4.50 each; null when it is none. */
export function readTier(line: string, currency: string): Tier | null {
  const found = /^\s*(\d{1,4})\s*:\s*([\d.,]+)\s*$/.exec(line);
  const price = found ? parseAmount(found[2] ?? '', currency) : null;
  return found && price !== null ? { pieces: Number(found[1]), price } : null;
}

/** The way back: `10: 4.50`. */
export const writeTier = ({ pieces, price }: Tier, currency: string): string =>
  `${pieces}: ${amountToText(price, currency)}`;

/**
 * Why quantity tiers do not fit each other or the price of one, in words; null where they do: each takes more pieces at a
 * lower price than the one before.
 */
export function tierFault(lines: readonly string[], price: number | null, currency: string): string | null {
  let before: Tier = { pieces: 1, price: price ?? Number.POSITIVE_INFINITY };
  for (const line of lines) {
    const tier = readTier(line, currency);
    if (!tier) return `“${line}” is no tier: write it as in 10: 4.50`;
    if (tier.pieces <= before.pieces) return `“${line}”: each tier takes more pieces than the one before`;
    if (tier.price >= before.price) return `“${line}”: each tier costs less a piece than the one before`;
    before = tier;
  }
  return null;
}
