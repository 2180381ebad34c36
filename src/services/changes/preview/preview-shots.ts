import { z } from 'zod';
import type { Json } from '../../../core/json';
import { coveredShare, coversFrom, layerBox, photoRecipeSchema, readPhotoReference } from '../../../core/photo';
import type { LoadedPhotos } from '../../records/photos/photo-knowledge';

/** A photo as it stands in a preview; one that nobody has made yet is made of its original by its recipe. */
export const shotSchema = z.object({
  hash: z.string(),
  original: z.string(),
  recipe: photoRecipeSchema,
  /** It is there already. */
  isKept: z.boolean(),
  width: z.number(),
  height: z.number(),
  /** The shape it is brought to there, width by height. */
  shape: z.tuple([z.number(), z.number()]).nullable(),
  /** A badge lies over what stands in front. */
  covers: z.boolean(),
});
export type Shot = z.infer<typeof shotSchema>;

/** Photos as they are shown; what is not known of them is left out. */
export function shotsOf(value: Json, photos: LoadedPhotos | undefined): Shot[] {
  if (!Array.isArray(value) || !photos) return [];
  return value.flatMap((one): Shot[] => {
    const { hash, shape } = readPhotoReference(String(one));
    const photo = photos.at(hash);
    if (!photo) return [];
    const { original, recipe, width, height, look, from } = photo;
    const covers =
      look !== null &&
      recipe.layers.some(
        (layer) => coveredShare(look, from, recipe, layerBox(layer, width, height), photo) >= coversFrom,
      );
    return [{ hash, original, recipe, isKept: !photos.isNew(hash), width, height, shape, covers }];
  });
}
