/** Measures are written with a blank before their unit, and without. */
const units = /(\d)(mm|cm|m|kg|g|ml|l|oz|lb|in)(?![\p{L}\p{N}])/gu;

/** A title as words: without case, accents and signs; numbers keep the letters that stand with them (`f/1.8`, `k-2`). */
export const wordsOf = (text: string): string[] =>
  (
    text
      .normalize('NFKD')
      .replace(/\p{M}+/gu, '')
      .toLowerCase()
      .replace(units, '$1 $2')
      .match(/[\p{L}\p{N}]+(?:[./×x-][\p{L}\p{N}]+)*/gu) ?? []
  ).flatMap((word) => (/\d/.test(word) ? [word.replace(/[/-]/g, '')] : word.split(/[./×-]/).filter(Boolean)));

/** How seldom words are: what stands in every title tells nothing. */
export type WordWeights = { weight(word: string): number };

/**
 * Inverse document frequency, smoothed; source: Spärck Jones 1972, in the form ln((N + 1) / (n + 1)) + 1.
 * @param titles of everything that is compared
 */
export function weighWords(titles: readonly string[]): WordWeights {
  const counts = new Map<string, number>();
  for (const title of titles) for (const word of new Set(wordsOf(title))) counts.set(word, (counts.get(word) ?? 0) + 1);
  return { weight: (word) => Math.log((titles.length + 1) / ((counts.get(word) ?? 0) + 1)) + 1 };
}

/**
 * How alike two titles are, from 0 to 1: the weight of what they share against the weight of the shorter one's words and
 * half of what the longer one has besides. The same from either side.
 */
export function titleLikeness(a: string, b: string, weights: WordWeights): number {
  const [one, other] = [new Set(wordsOf(a)), new Set(wordsOf(b))];
  const sum = (words: Iterable<string>) => [...words].reduce((total, word) => total + weights.weight(word), 0);
  const [all, rest] = [sum(one), sum(other)];
  const shared = sum([...one].filter((word) => other.has(word)));
  const [short, long] = all < rest ? [all, rest] : [rest, all];
  return short === 0 ? 0 : shared / (short + (long - short) / 2);
}

/** Words with digits in them name measures and models: what two titles have in place of each other tells them apart. */
export function numbersApart(a: string, b: string): string[] {
  const numbers = (text: string) =>
    new Set(wordsOf(text).filter((word) => /\d/.test(word) && !/^(19|20)\d\ds?$/.test(word)));
  const [one, other] = [numbers(a), numbers(b)];
  const left = [...one].filter((word) => !other.has(word));
  const right = [...other].filter((word) => !one.has(word));
  return left.length && right.length ? [...left, ...right] : [];
}
