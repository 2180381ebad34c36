import { z } from 'zod';

const hundred = z.number().min(-100).max(100);

/**
 * How a picture is made from its original; every number 0 (or null) leaves it as it is. Steps run in this order: turn,
 * crop, light, backdrop, badge. The original itself is never changed.
 */
export const photoRecipeSchema = z
  .object({
    /** Clockwise, in degrees: quarter turns and the straightening together. */
    turn: z.number().min(-360).max(360),
    /** Part that is kept, in fractions of the turned picture; null for all of it. */
    crop: z
      .object({
        x: z.number().min(0).max(1),
        y: z.number().min(0).max(1),
        width: z.number().gt(0).max(1),
        height: z.number().gt(0).max(1),
      })
      .strict()
      .nullable(),
    brightness: hundred,
    contrast: hundred,
    /** White balance: cold (below 0) or warm, and greener (below 0) or redder. */
    warmth: hundred,
    tint: hundred,
    /** Backdrop made white: how far from its colour still counts, and how soft the border is, in pixels of a 1,000-pixel picture. */
    backdrop: z
      .object({ reach: z.number().min(1).max(100), softness: z.number().min(0).max(20) })
      .strict()
      .nullable(),
    badge: z
      .object({
        text: z.string().trim().min(1).max(24),
        corner: z.enum(['top-left', 'top-right', 'bottom-left', 'bottom-right']),
      })
      .strict()
      .nullable(),
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
  badge: null,
};

/** The box that holds a picture after it was turned, in its own pixels. */
export function turnedSize(width: number, height: number, degrees: number): { width: number; height: number } {
  const angle = (degrees * Math.PI) / 180;
  const cos = Math.abs(Math.cos(angle));
  const sin = Math.abs(Math.sin(angle));
  return { width: Math.round(width * cos + height * sin), height: Math.round(width * sin + height * cos) };
}
