import { z } from 'zod';
import { backdropMask } from './backdrop';
import { proposeBalance } from './tone';

/** Cells of the grid, on each side, that tells where something stands in front. */
export const gridSide = 32;

const box = z.object({ x: z.number(), y: z.number(), width: z.number(), height: z.number() }).strict();

/**
 * What a picture shows, as numbers: enough to crop it, to light it, to tell what a badge would cover and what is wrong
 * with it, without looking at it again. Of an upright original; fractions of its sides.
 */
export const photoLookSchema = z
  .object({
    /** A grid of 32 × 32, row by row, four cells a hex digit: whether something stands in front there. */
    front: z.string().regex(/^[0-9a-f]{256}$/),
    /** The part in which something stands in front; null where that cannot be told apart from the backdrop. */
    box: box.nullable(),
    /** Variance of the Laplacian in the sharpest twentieth of its parts. */
    sharp: z.number(),
    /** Brightness below which a twentieth, a half and 19 twentieths of it lie, 0 to 255. */
    dark: z.number(),
    middle: z.number(),
    bright: z.number(),
    /** What makes its grey parts grey. */
    warmth: z.number(),
    tint: z.number(),
  })
  .strict();
export type PhotoLook = z.infer<typeof photoLookSchema>;

const luminance = (pixels: Uint8ClampedArray, at: number): number =>
  0.299 * (pixels[at] ?? 0) + 0.587 * (pixels[at + 1] ?? 0) + 0.114 * (pixels[at + 2] ?? 0);

/** Rows and columns in which a real part of something lies: single specks of dust do not widen it. */
function boxOf(mask: Uint8Array, width: number, height: number): PhotoLook['box'] {
  const columns = new Uint32Array(width);
  const rows = new Uint32Array(height);
  let count = 0;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (!mask[y * width + x]) {
        columns[x] = (columns[x] ?? 0) + 1;
        rows[y] = (rows[y] ?? 0) + 1;
        count++;
      }
  // All of it, or next to nothing: there is no backdrop, or nothing before it.
  if (count < mask.length * 0.005 || count > mask.length * 0.97) return null;
  const ends = (counts: Uint32Array, across: number): [number, number] => {
    const least = Math.max(2, across * 0.01);
    let [from, to] = [0, counts.length];
    while (from < to && (counts[from] ?? 0) < least) from++;
    while (to > from && (counts[to - 1] ?? 0) < least) to--;
    return [from, to];
  };
  const [left, right] = ends(columns, height);
  const [top, bottom] = ends(rows, width);
  if (right <= left || bottom <= top) return null;
  const part = (value: number) => Math.round(value * 10_000) / 10_000;
  return {
    x: part(left / width),
    y: part(top / height),
    width: part((right - left) / width),
    height: part((bottom - top) / height),
  };
}

function gridOf(mask: Uint8Array, width: number, height: number): string {
  let hex = '';
  for (let row = 0; row < gridSide; row++)
    for (let column = 0; column < gridSide; column += 4) {
      let nibble = 0;
      for (let at = 0; at < 4; at++) {
        const from = { x: Math.floor(((column + at) * width) / gridSide), y: Math.floor((row * height) / gridSide) };
        const to = {
          x: Math.max(from.x + 1, Math.floor(((column + at + 1) * width) / gridSide)),
          y: Math.max(from.y + 1, Math.floor(((row + 1) * height) / gridSide)),
        };
        let front = 0;
        for (let y = from.y; y < to.y; y++) for (let x = from.x; x < to.x; x++) if (!mask[y * width + x]) front++;
        nibble = nibble * 2 + (front * 3 >= (to.x - from.x) * (to.y - from.y) ? 1 : 0);
      }
      hex += nibble.toString(16);
    }
  return hex;
}

/** Brightness below which these shares of the pixels lie. */
function levels(pixels: Uint8ClampedArray, shares: readonly number[]): number[] {
  const counts = new Uint32Array(256);
  for (let at = 0; at < pixels.length; at += 4) {
    const value = Math.min(255, Math.round(luminance(pixels, at)));
    counts[value] = (counts[value] ?? 0) + 1;
  }
  const total = pixels.length / 4;
  return shares.map((share) => {
    let seen = 0;
    for (let value = 0; value < 256; value++) {
      seen += counts[value] ?? 0;
      if (seen >= total * share) return value;
    }
    return 255;
  });
}

/** Parts of this side, in pixels, whose sharpness is told apart: a plain backdrop says nothing of how sharp the thing is. */
const part = 32;

/**
 * How sharp a picture is: the variance of its Laplacian (Pech-Pacheco et al. 2000), part by part, in the sharpest
 * twentieth of the parts. Told for grey pictures of one size only: a smaller copy is sharper.
 * @param grey one byte a pixel
 */
export function sharpness(grey: Uint8Array, width: number, height: number): number {
  const found: number[] = [];
  const at = (x: number, y: number) => grey[y * width + x] ?? 0;
  for (let top = 1; top + part < height; top += part)
    for (let left = 1; left + part < width; left += part) {
      let sum = 0;
      let squares = 0;
      for (let y = top; y < top + part; y++)
        for (let x = left; x < left + part; x++) {
          const edge = at(x - 1, y) + at(x + 1, y) + at(x, y - 1) + at(x, y + 1) - 4 * at(x, y);
          sum += edge;
          squares += edge * edge;
        }
      const count = part * part;
      found.push(squares / count - (sum / count) ** 2);
    }
  found.sort((a, b) => b - a);
  const best = found.slice(0, Math.max(1, Math.round(found.length / 20)));
  return best.length ? Math.round((best.reduce((all, one) => all + one, 0) / best.length) * 10) / 10 : 0;
}

/**
 * How far from the backdrop's colour still counts as backdrop when a picture is looked at: a ground that falls into shade
 * does, which is further than one would clean up.
 */
const reach = 30;

/**
 * What a picture shows.
 * @param pixels RGBA of the upright original, about 256 pixels long
 * @param grey the same in grey, about 1,024 pixels long, for its sharpness
 */
export function lookAt(
  { pixels, width, height }: { pixels: Uint8ClampedArray; width: number; height: number },
  grey: { pixels: Uint8Array; width: number; height: number },
): PhotoLook {
  const mask = backdropMask(pixels, width, height, reach);
  const [dark = 0, middle = 0, bright = 0] = levels(pixels, [0.05, 0.5, 0.95]);
  return {
    front: gridOf(mask, width, height),
    box: boxOf(mask, width, height),
    sharp: sharpness(grey.pixels, grey.width, grey.height),
    dark,
    middle,
    bright,
    ...proposeBalance(pixels),
  };
}

/** Below this a picture is told to be blurred. Measured on pictures of known blur (`docs/measurements.md`). */
export const blurredBelow = 45;

/** How much of a picture lies around what it shows, 0 to 1; 0 where that cannot be told. */
export const emptyShare = (box: PhotoLook['box']): number => (box ? 1 - box.width * box.height : 0);
