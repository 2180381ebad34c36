import type { PhotoPrint } from './thing';

/** In how many of 64 bits two numbers of pictures differ. */
export function bitsApart(a: string, b: string): number {
  let apart = 0;
  for (let at = 0; at < 16; at += 8) {
    let bits = (Number.parseInt(a.slice(at, at + 8), 16) ^ Number.parseInt(b.slice(at, at + 8), 16)) >>> 0;
    for (; bits; bits &= bits - 1) apart++;
  }
  return apart;
}

/** How far apart two pictures' colours are on the whole, from 0 to 255; 0 where either says nothing of them. */
export function coloursApart(a: string, b: string): number {
  const until = Math.min(a.length, b.length);
  let apart = 0;
  for (let at = 16; at < until; at += 2)
    apart += Math.abs(Number.parseInt(a.slice(at, at + 2), 16) - Number.parseInt(b.slice(at, at + 2), 16));
  return until > 16 ? (2 * apart) / (until - 16) : 0;
}

/**
 * So far apart two takes of one picture may be. Measured on three hundred things, many of one model, whose pictures were
 * packed anew, turned, filled up to a square or cut by a twentieth (`docs/measurements.md`): within the first no two pieces
 * meet, within the second nearly all takes of one picture do, and some pieces of one model.
 */
export const sameWithin = { bits: 8, colours: 4 };
export const alikeWithin = { bits: 12, colours: 10 };

/** How far apart two pictures are, whichever way up they stand, in bits; infinitely where they lie further apart. */
export function printsApart(a: PhotoPrint, b: PhotoPrint, within = sameWithin): number {
  let nearest = Number.POSITIVE_INFINITY;
  const look = (one: string, other: string) => {
    const bits = bitsApart(one, other);
    if (bits >= nearest || bits > within.bits || coloursApart(one, other) > within.colours) return;
    nearest = bits;
  };
  for (const way of b) look(a[0], way);
  for (const way of a) look(way, b[0]);
  return nearest;
}

/** How many pictures of one are among those of the other, each counted once; the same from either side. */
export function sharedPhotos(a: readonly PhotoPrint[], b: readonly PhotoPrint[], within = sameWithin): number {
  const pairs = a.flatMap((one, left) =>
    b.map((other, right) => ({ left, right, apart: printsApart(one, other, within) })),
  );
  const used = { left: new Set<number>(), right: new Set<number>() };
  for (const { left, right, apart } of pairs.sort((x, y) => x.apart - y.apart)) {
    if (!Number.isFinite(apart) || used.left.has(left) || used.right.has(right)) continue;
    used.left.add(left);
    used.right.add(right);
  }
  return used.left.size;
}
