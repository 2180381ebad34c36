import { z } from 'zod';
import { everywhere, placingSchema, writePlacing } from '../../core/artwork';
import type { Actor } from '../access/actor';
import { changeArtwork } from './change-artwork';

export const setPlacingSchema = z
  .object({
    /** The product on which it stands so; left out for all that it is printed on. */
    product: z.string().trim().min(1).max(60).optional(),
    /** Null: it is placed by the template again. */
    placing: placingSchema.nullable(),
  })
  .strict();

/** Places artwork by hand, on one product or on all of them: there it stands in proportion to what is printed on. */
export async function setPlacing(
  actor: Actor,
  itemId: number,
  { product = everywhere, placing }: z.output<typeof setPlacingSchema>,
): Promise<{ version: number }> {
  return changeArtwork(actor, itemId, 'placings', ({ placings }) => {
    const { [product]: _before, ...rest } = placings;
    return placing === null ? rest : { ...rest, [product]: writePlacing(placing) };
  });
}
