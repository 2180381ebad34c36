import { type WordWeights, weighWords, wordsOf } from './words';

/** What stands in so many of the titles looked for tells nothing of which one it is. */
const mostShare = 0.1;
const mostAlways = 40;
/** From this share of its words' weight on a title counts as near. */
const leastShare = 0.3;

type Near = { id: number; score: number };

/**
 * Looks for the titles of an inventory that are nearest to some titles, in one pass over the inventory however large it
 * is: only what is looked for is held in memory.
 */
export class NearestTitles {
  readonly #postings = new Map<string, number[]>();
  readonly #weights: WordWeights;
  readonly #whole: number[];
  readonly #near: Near[][];
  readonly #most: number;

  /** @param most how many are kept of each */
  constructor(titles: readonly string[], most: number) {
    this.#most = most;
    this.#near = titles.map(() => []);
    this.#weights = weighWords(titles);
    const words = titles.map((title) => [...new Set(wordsOf(title))]);
    for (const [at, some] of words.entries())
      for (const word of some) {
        const there = this.#postings.get(word);
        if (there) there.push(at);
        else this.#postings.set(word, [at]);
      }
    const limit = Math.max(mostAlways, titles.length * mostShare);
    for (const [word, there] of this.#postings) if (there.length > limit) this.#postings.delete(word);
    this.#whole = words.map((some) => some.reduce((sum, word) => sum + this.#weigh(word), 0));
  }

  #weigh = (word: string): number => (this.#postings.has(word) ? this.#weights.weight(word) : 0);

  /** Holds one title of the inventory against all that are looked for. */
  look(id: number, title: string): void {
    const scores = new Map<number, number>();
    for (const word of new Set(wordsOf(title))) {
      const weight = this.#weigh(word);
      for (const at of this.#postings.get(word) ?? []) scores.set(at, (scores.get(at) ?? 0) + weight);
    }
    for (const [at, score] of scores) {
      const near = this.#near[at];
      if (!near || score < leastShare * (this.#whole[at] ?? 0)) continue;
      if (near.length === this.#most && score <= (near.at(-1)?.score ?? 0)) continue;
      near.push({ id, score });
      near.sort((a, b) => b.score - a.score || a.id - b.id);
      if (near.length > this.#most) near.pop();
    }
  }

  /** The nearest of each, the nearest first. */
  get ids(): number[][] {
    return this.#near.map((near) => near.map((one) => one.id));
  }
}
