import { z } from 'zod';

export const priceChoices = ['kept', 'replaced', 'weighted'] as const;
export const placeChoices = ['kept', 'replaced'] as const;

/** What becomes of price and place where pieces are added to those that are there. */
export const joiningSchema = z.object({ price: z.enum(priceChoices), place: z.enum(placeChoices) }).strict();
export type Joining = z.infer<typeof joiningSchema>;

/** Units, minor units a piece, and the place of a lot or of an item. */
export const stockedSchema = z.object({ quantity: z.number(), price: z.number().nullable(), place: z.string() });
export type Stocked = z.infer<typeof stockedSchema>;

/**
 * What stands in stock after the pieces of a lot were added. A weighted price is the mean by pieces, rounded half up; where
 * nothing is there, or one of the prices is not known, it is the other one.
 */
export function addedTo(there: Stocked, lot: Stocked, { price, place }: Joining): Stocked {
  const before = Math.max(0, there.quantity);
  const both = before + lot.quantity;
  const mean =
    lot.price === null || there.price === null || both === 0
      ? (lot.price ?? there.price)
      : Math.floor((there.price * before + lot.price * lot.quantity) / both + 0.5);
  return {
    quantity: there.quantity + lot.quantity,
    price: price === 'kept' ? (there.price ?? lot.price) : price === 'replaced' ? (lot.price ?? there.price) : mean,
    place: place === 'kept' ? there.place || lot.place : lot.place || there.place,
  };
}
