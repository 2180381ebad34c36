import type { Layer } from '../core/photo/layer';
import type { PhotoRecipe } from '../core/photo/recipe';
import { readDerivative } from './derivatives';
import { fromRaw, layerPicture, renderRecipe } from './render';

/** Longest side of a sample at most. */
export const mostSample = 900;

/** What a recipe would make of an original, small; made of a smaller copy of it, and not kept. */
export async function sampleOf(original: string, recipe: PhotoRecipe, side: number): Promise<Buffer> {
  const pixels = await renderRecipe(await readDerivative(original, 'market'), recipe, Math.min(side, mostSample));
  return fromRaw(pixels).jpeg({ quality: 84 }).toBuffer();
}

/** A badge for itself, on a see-through ground. */
export const badgePicture = (art: Layer['art'], width: number): Promise<Buffer> =>
  layerPicture({ art }, Math.max(16, Math.min(width, mostSample)));
