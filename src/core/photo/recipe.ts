import { z } from 'zod';
import { type Layer, layerSchema } from './layer';

const hundred = z.number().min(-100).max(100);
const share = z.number().min(0).max(1);
const part = z.number().gt(0).max(1);

/** Part of a picture, in fractions of its sides. */
export const cropSchema = z.object({ x: share, y: share, width: part, height: part }).strict();
export type Crop = z.infer<typeof cropSchema>;

/** Places in a picture to a ten-thousandth, so that equal crops are equal words. */
const fine = (value: number) => Math.max(0.0001, Math.round(value * 10_000) / 10_000);
export const fineCrop = ({ x, y, width, height }: Crop): Crop => ({
  x: Math.round(x * 10_000) / 10_000,
  y: Math.round(y * 10_000) / 10_000,
  width: fine(width),
  height: fine(height),
});

export const backdropSchema = z
  .object({ reach: z.number().min(1).max(100), softness: z.number().min(0).max(20) })
  .strict();

/** How the backdrop is cleaned up where nothing else is said. */
export const usualBackdrop: z.infer<typeof backdropSchema> = { reach: 12, softness: 2 };

/**
 * How a picture is made from its original; every number 0 (or null, or empty) leaves it as it is. Steps run in this order:
 * turn, crop, light, backdrop, layers. The original itself is never changed.
 */
export const photoRecipeSchema = z
  .object({
    /** Clockwise, in degrees: quarter turns and the straightening together. */
    turn: z.number().min(-360).max(360),
    /** Part that is kept, in fractions of the turned picture; null for all of it. */
    crop: cropSchema.nullable(),
    brightness: hundred,
    contrast: hundred,
    /** White balance: cold (below 0) or warm, and greener (below 0) or redder. */
    warmth: hundred,
    tint: hundred,
    /** Backdrop made white: how far from its colour still counts, and how soft the border is, in pixels of a 1,000-pixel picture. */
    backdrop: backdropSchema.nullable(),
    /** Badges and words, the last one on top. */
    layers: z.array(layerSchema).max(6, 'At most six badges on a picture'),
  })
  .strict();
export type PhotoRecipe = z.infer<typeof photoRecipeSchema>;

export const plainRecipe: PhotoRecipe = {
  turn: 0,
  crop: null,
  brightness: 0,
  contrast: 0,
  warmth: 0,
  tint: 0,
  backdrop: null,
  layers: [],
};

const oldBadgeSchema = z.object({
  text: z.string().trim().min(1).max(24),
  corner: z.enum(['top-left', 'top-right', 'bottom-left', 'bottom-right']),
});

/** The badge of a recipe of before as the layer that it is now. Its ratio is a guess from the count of its letters. */
function layerOf(badge: z.infer<typeof oldBadgeSchema>): Layer {
  const ratio = Math.max(1, 0.33 * badge.text.length + 0.67);
  return {
    badge: null,
    art: { kind: 'words', shape: 'box', words: badge.text, ground: '#22292c', ink: '#ffffff', ratio },
    place: { anchor: badge.corner, dx: 38, dy: 38, size: Math.min(900, Math.round(99 * ratio)) },
  };
}

/** A recipe as it was kept, also of before; a plain one where it is none. */
export function readRecipe(kept: unknown): PhotoRecipe {
  if (typeof kept !== 'object' || kept === null) return plainRecipe;
  const { badge, ...rest } = kept as Record<string, unknown>; // an object, by the line above
  const old = oldBadgeSchema.safeParse(badge);
  const read = photoRecipeSchema.safeParse({
    ...plainRecipe,
    ...(old.success ? { layers: [layerOf(old.data)] } : {}),
    ...rest,
  });
  return read.success ? read.data : plainRecipe;
}

/** A recipe in one way of writing: equal ones are equal words. */
export const recipeWords = (recipe: PhotoRecipe): string =>
  JSON.stringify(photoRecipeSchema.parse({ ...recipe, crop: recipe.crop && fineCrop(recipe.crop) }));

export const isPlain = (recipe: PhotoRecipe): boolean => recipeWords(recipe) === recipeWords(plainRecipe);

/** The box that holds a picture after it was turned, in its own pixels. */
export function turnedSize(width: number, height: number, degrees: number): { width: number; height: number } {
  const angle = (degrees * Math.PI) / 180;
  const cos = Math.abs(Math.cos(angle));
  const sin = Math.abs(Math.sin(angle));
  return { width: Math.round(width * cos + height * sin), height: Math.round(width * sin + height * cos) };
}

/** Sides of what a recipe makes of a picture, in pixels. */
export function madeSize(
  width: number,
  height: number,
  { turn, crop }: Pick<PhotoRecipe, 'turn' | 'crop'>,
): { width: number; height: number } {
  const box = turnedSize(width, height, turn);
  return {
    width: Math.max(1, Math.round(box.width * (crop?.width ?? 1))),
    height: Math.max(1, Math.round(box.height * (crop?.height ?? 1))),
  };
}
