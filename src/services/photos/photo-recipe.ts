import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { boxThrough, lightByItself, photoRecipeSchema } from '../../core/photo';
import { database } from '../../db/client';
import { lookAtPhotos } from '../records/photos/look-at-photos';
import { knowPhotos } from '../records/photos/photo-knowledge';

export const photoHashSchema = z.object({ hash: z.string().regex(/^[0-9a-f]{64}$/) }).strict();

const light = photoRecipeSchema.pick({ brightness: true, contrast: true, warmth: true, tint: true });
const sides = z.object({ width: z.number(), height: z.number() });

export const photoMadeSchema = z.object({
  original: z.string(),
  recipe: photoRecipeSchema,
  /** Sides of the original. */
  from: sides,
  /** Light and colours as they follow from the picture; null where it cannot be looked at. */
  byItself: light.nullable(),
  /** What makes its grey parts grey. */
  balance: light.pick({ warmth: true, tint: true }).nullable(),
  /** What stands in front of the whole original, in fractions. */
  box: z.object({ x: z.number(), y: z.number(), width: z.number(), height: z.number() }).nullable(),
});
export type PhotoMade = z.infer<typeof photoMadeSchema>;

/** What a picture was made from, and how: to go on from there, or back to the original; and what the original shows. */
export async function photoRecipe({ hash }: z.infer<typeof photoHashSchema>): Promise<PhotoMade> {
  const db = database();
  const before = (await knowPhotos(db, [hash])).at(hash);
  if (!before) throw new NettingError('not-found', 'There is no such photo');
  await lookAtPhotos(db, [before.original]);
  const photo = (await knowPhotos(db, [hash])).at(hash) ?? before;
  const { original, recipe, from, look } = photo;
  return {
    original,
    recipe,
    from,
    byItself: look && lightByItself(look),
    balance: look && { warmth: look.warmth, tint: look.tint },
    box: look && boxThrough(look, from, { turn: 0, crop: null }),
  };
}
