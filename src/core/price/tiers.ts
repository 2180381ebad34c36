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
