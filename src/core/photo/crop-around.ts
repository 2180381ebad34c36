import type { Box } from './layer';
import { type Crop, fineCrop, turnedSize } from './recipe';
import type { Sides } from './through';

/** Air that is left around the thing, as a part of its longer side. */
const air = 0.08;

/** A stretch of `length` around a middle, moved so that it lies within 0 to 1. */
const within = (middle: number, length: number) => Math.max(0, Math.min(1 - length, middle - length / 2));

/**
 * The crop of a ratio that holds what stands in front with a little air, as tight as that allows; the largest there is
 * around it where it does not fit.
 * @param box what stands in front, in fractions of the turned picture; null takes the middle of the whole
 * @param ratio width by height of what is kept
 * @param tight false keeps as much of the picture as the ratio allows
 */
export function cropAround(box: Box | null, sides: Sides, turn: number, ratio: number, tight: boolean): Crop {
  const { width, height } = turnedSize(sides.width, sides.height, turn);
  const most = { width: Math.min(width, height * ratio), height: Math.min(height, width / ratio) };
  let wide = most.width;
  const thing = box ?? { x: 0, y: 0, width: 1, height: 1 };
  if (tight && box) {
    const own = { width: box.width * width, height: box.height * height };
    const margin = 2 * air * Math.max(own.width, own.height);
    wide = Math.min(most.width, Math.max(own.width + margin, (own.height + margin) * ratio));
  }
  const part = { width: wide / width, height: wide / ratio / height };
  return fineCrop({
    x: within(thing.x + thing.width / 2, part.width),
    y: within(thing.y + thing.height / 2, part.height),
    width: Math.min(1, part.width),
    height: Math.min(1, part.height),
  });
}
