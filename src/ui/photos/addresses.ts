import type { BadgeArt } from '@/core/photo/layer';
import type { PhotoRecipe } from '@/core/photo/recipe';
import type { Shot } from '@/services/changes/preview/preview-shots';
import { photoUrl } from '@/ui/data/api';

/** What a recipe would make of a photo; nothing of it is kept. */
export const madeUrl = (original: string, recipe: PhotoRecipe, side: number): string =>
  `/api/photos/made?${new URLSearchParams({ of: original, recipe: JSON.stringify(recipe), side: String(side) })}`;

/** A photo of a preview, whether it is there or not yet. */
export const shotUrl = ({ hash, original, recipe, isKept }: Shot, side: number): string =>
  isKept ? photoUrl(hash, 'view') : madeUrl(original, recipe, side);

type Drawable =
  | BadgeArt
  | Omit<Extract<BadgeArt, { kind: 'words' }>, 'ratio'>
  | Omit<Extract<BadgeArt, { kind: 'picture' }>, 'ratio'>;

/** A badge for itself. */
export const badgeUrl = (art: Drawable, width = 480): string =>
  `/api/photos/badge?${new URLSearchParams({ art: JSON.stringify(art), width: String(width) })}`;

/** The badge as it is drawn, with its width by its height; throws where it cannot be drawn. */
export async function drawnBadge<Art extends Drawable>(art: Art): Promise<Art & { ratio: number }> {
  const answer = await fetch(badgeUrl(art));
  if (!answer.ok) throw new Error('This cannot be drawn: write it in Latin, Greek or Cyrillic letters');
  return { ...art, ratio: Number(answer.headers.get('x-ratio')) };
}
