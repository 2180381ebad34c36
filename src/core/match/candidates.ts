import type { Thing } from './thing';
import { type WordWeights, wordsOf } from './words';

const mostOfOne = 60;
const keyWords = 4;

/** Under what a thing is looked for: what names it, parts of its pictures' numbers, the rarest words of its title. */
function keysOf({ sku, barcode, product, photos, title }: Thing, weights: WordWeights): string[] {
  const bands = photos.flatMap((print) =>
    [...print].flatMap((way) => [0, 4, 8, 12].map((at) => `p${at}${way.slice(at, at + 4)}`)),
  );
  const words = [...new Set(wordsOf(title))].sort((a, b) => weights.weight(b) - weights.weight(a) || (a < b ? -1 : 1));
  return [
    ...(sku ? [`s${sku.toLowerCase()}`] : []),
    ...(barcode ? [`b${barcode}`] : []),
    ...(product ? [`c${product}`] : []),
    ...new Set(bands),
    ...words.slice(0, keyWords).map((word) => `w${word}`),
  ];
}

/**
 * Pairs that may be one thing, each once: those of different places that are found under the same key. What everything is
 * found under tells nothing and is left out, so that the number of pairs grows with the things, not with their square.
 */
export function candidatePairs(things: readonly Thing[], weights: WordWeights): [Thing, Thing][] {
  const byKey = new Map<string, number[]>();
  for (const [at, thing] of things.entries())
    for (const key of keysOf(thing, weights)) {
      const there = byKey.get(key);
      if (there) there.push(at);
      else byKey.set(key, [at]);
    }
  const pairs = new Map<number, [Thing, Thing]>();
  for (const [key, found] of byKey) {
    if (found.length > mostOfOne && !'sbc'.includes(key[0] ?? '')) continue;
    for (const [index, left] of found.entries())
      for (const right of found.slice(index + 1)) {
        const [a, b] = [things[left], things[right]];
        if (a && b && a.place !== b.place) pairs.set(left * things.length + right, [a, b]);
      }
  }
  return [...pairs.values()];
}
