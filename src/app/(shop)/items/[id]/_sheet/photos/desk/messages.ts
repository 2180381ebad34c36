import type { PhotoRecipe } from '@/core/photo/recipe';

/** What the page asks the worker for, and what it answers. */
export type DeskRequest = {
  id: number;
  picture: Blob;
  recipe: PhotoRecipe;
  /** Longest side of the result; null for full size. */
  side: number | null;
};
export type DeskAnswer =
  | { id: number; result: Blob; width: number; height: number; balance: { warmth: number; tint: number } }
  | { id: number; problem: string };
