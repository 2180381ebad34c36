import type { ClipPlan } from './clip';
import type { PhotoLook } from './look';
import type { PhotoRecipe } from './recipe';

/** A picture by its hash, with the original that it is made of and how; an original is made of itself, plainly. */
export type KnownPhoto = {
  hash: string;
  /** Sides of the picture itself, upright, in pixels. */
  width: number;
  height: number;
  original: string;
  recipe: PhotoRecipe;
  /** Sides of the original. */
  from: { width: number; height: number };
  /** What the original shows; null where nobody has looked at it, or it cannot be read. */
  look: PhotoLook | null;
};

/** What is known of pictures while steps are carried out. */
export type PhotoKnowledge = {
  at(hash: string): KnownPhoto | undefined;
  /**
   * The picture that a recipe makes of the original of another; its hash follows from the two alone. A plain recipe makes
   * the original.
   */
  made(of: KnownPhoto, recipe: PhotoRecipe): KnownPhoto;
  /** The clip that a plan makes; its hash follows from the plan alone. */
  clip(plan: ClipPlan): string;
  /** Whether two pictures are takes of one, packed anew or made smaller. */
  alike(a: string, b: string): boolean;
};
