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

/** So many bits may differ between two takes of one picture. An assumption, not measured on pictures yet. */
export const sameWithin = 10;

/** How far apart two pictures are, whichever way up they stand. */
export const printsApart = (a: PhotoPrint, b: PhotoPrint): number =>
  Math.min(...b.map((way) => bitsApart(a[0], way)), ...a.map((way) => bitsApart(way, b[0])));

/** How many pictures of one are among those of the other, each counted once; the same from either side. */
export function sharedPhotos(a: readonly PhotoPrint[], b: readonly PhotoPrint[]): number {
  const pairs = a.flatMap((one, left) => b.map((other, right) => ({ left, right, apart: printsApart(one, other) })));
  const used = { left: new Set<number>(), right: new Set<number>() };
  for (const { left, right, apart } of pairs.sort((x, y) => x.apart - y.apart)) {
    if (apart > sameWithin || used.left.has(left) || used.right.has(right)) continue;
    used.left.add(left);
    used.right.add(right);
  }
  return used.left.size;
}
