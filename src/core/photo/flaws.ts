import type { MarketRules } from '../rules/rules';
import { blurredBelow } from './look';

/** What may be wrong with an item's photos; `few`, `small` and `shape` by what an account asks for. */
export const photoFlaws = ['none', 'few', 'small', 'blurred', 'dark', 'shape', 'twice', 'empty'] as const;
export type PhotoFlaw = (typeof photoFlaws)[number];

export const flawLabels: Record<PhotoFlaw, string> = {
  none: 'No photo',
  few: 'Too few photos',
  small: 'Too small',
  blurred: 'Blurred',
  dark: 'Too dark',
  shape: 'Not in the shape wanted there',
  twice: 'One picture on two items',
  empty: 'Much empty border',
};

export const isByAccount = (flaw: PhotoFlaw): boolean => flaw === 'few' || flaw === 'small' || flaw === 'shape';

/** From what a photo is told to be flawed; besides `blurredBelow`. */
export const flawBounds = {
  blurredBelow,
  darkBelow: { bright: 110, middle: 60 },
  /** How much of a main photo may lie around the thing. */
  emptyAbove: 0.75,
  /** A picture on more items than that is a card, meant to be on all of them. */
  twiceUpTo: 10,
  /** How far a main photo may be from the shape, before it is filled up visibly. */
  shapeWithin: 0.02,
} as const;

/** What an account asks of photos: how many at least, the shorter and longer side at least, and the shape of the main one. */
export type PhotoWants = { few: number; longest: number; shortest: number; narrow: number | null; wide: number | null };

/** @param wanted how many photos the shop wants on every listing, as far as the marketplace takes so many */
export function photoWants({ photos }: Pick<MarketRules, 'photos'>, wanted: number): PhotoWants | null {
  if (photos.kind === 'catalogue' || photos.max === 0) return null;
  const { shape, minLongestSide, minShortestSide = 0 } = photos;
  // What is filled up to a square is as high as it is wide.
  const isSquare = shape?.narrow === 1 && shape.wide === 1;
  return {
    few: Math.min(photos.max, Math.max(photos.min, wanted)),
    longest: isSquare ? Math.max(minLongestSide, minShortestSide) : minLongestSide,
    shortest: isSquare ? 0 : minShortestSide,
    narrow: shape ? shape.narrow * (1 - flawBounds.shapeWithin) : null,
    wide: shape ? shape.wide * (1 + flawBounds.shapeWithin) : null,
  };
}
