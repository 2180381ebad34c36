import { z } from 'zod';

export const lotStates = ['open', 'later', 'out', 'done'] as const;
/** `later`: kept for another day; `out`: taken out, it is not sold; `done`: it is in stock. */
export type LotState = (typeof lotStates)[number];

/** What counts of a lot; grams and minor units are of one piece. */
export type Counted = { quantity: number; grams: number | null; price: number | null; state: LotState };

export const totalsSchema = z.object({
  lots: z.number(),
  pieces: z.number(),
  /** Of those whose weight is known, and how many lots that leaves out. */
  grams: z.number(),
  unweighed: z.number(),
  /** What all priced pieces come to, in minor units. */
  value: z.number(),
  unpriced: z.number(),
  ready: z.number(),
  later: z.number(),
  out: z.number(),
  done: z.number(),
});
export type Totals = z.infer<typeof totalsSchema>;

/** Ready is an open lot with pieces and a price. */
export const isReady = ({ state, quantity, price }: Counted): boolean =>
  state === 'open' && quantity > 0 && price !== null && price > 0;

/** Everything but what was taken out. */
export function totalsOf(lots: readonly Counted[]): Totals {
  const totals: Totals = {
    lots: 0,
    pieces: 0,
    grams: 0,
    unweighed: 0,
    value: 0,
    unpriced: 0,
    ready: 0,
    later: 0,
    out: 0,
    done: 0,
  };
  for (const lot of lots) {
    if (lot.state !== 'open') totals[lot.state]++;
    if (lot.state === 'out') continue;
    totals.lots++;
    totals.pieces += lot.quantity;
    if (lot.grams === null) totals.unweighed++;
    else totals.grams += lot.grams * lot.quantity;
    if (lot.price === null) totals.unpriced++;
    else totals.value += lot.price * lot.quantity;
    if (isReady(lot)) totals.ready++;
  }
  return totals;
}
