import { z } from 'zod';
import { areaSchema, productsOffered, writeColour } from '../../core/artwork';
import { accountsAtHand } from '../records/accounts/accounts-at-hand';
import { allGrounds } from './all-grounds';

export const artworkOffersSchema = z.object({
  /** Every ground that is offered anywhere, with its colour. */
  grounds: z.array(z.object({ name: z.string(), colour: z.string() })),
  /** Everything that marketplaces publish a print area of. */
  products: z.array(z.object({ market: z.string(), id: z.string(), name: z.string(), area: areaSchema })),
});

/** On what artwork is printed anywhere. */
export async function findArtworkOffers(): Promise<z.infer<typeof artworkOffersSchema>> {
  const [accounts, grounds] = [await accountsAtHand(), await allGrounds()];
  return {
    grounds: grounds.map(({ name, colour }) => ({ name, colour: writeColour(colour) })),
    products: productsOffered(accounts.map((one) => one.compiled)),
  };
}
