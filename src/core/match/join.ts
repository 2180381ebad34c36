import { candidatePairs } from './candidates';
import { type Comparison, compareThings } from './compare';
import type { Thing } from './thing';
import { type WordWeights, weighWords } from './words';

export type Pair = { a: Thing; b: Thing } & Comparison;
/** What somebody has said of two things. */
export type Decision = { a: string; b: string; isSame: boolean };

export type Joined = {
  /** Things that are one, at most one of each place. */
  groups: Thing[][];
  /** The certain pairs that were joined, then those that somebody is to look at, each the likeliest first. */
  pairs: Pair[];
  questions: Pair[];
};

const keyOf = (a: string, b: string) => (a < b ? `${a}\n${b}` : `${b}\n${a}`);

const placesOf = (things: readonly Thing[]) => things.flatMap(({ place, taken = [] }) => [place, ...taken]);
/** Two things of one place are never one. */
function canStandTogether(one: readonly Thing[], other: readonly Thing[]): boolean {
  const places = new Set(placesOf(one));
  return !placesOf(other).some((place) => places.has(place));
}

/** Groups that grow, none with two things of one place. */
class Groups {
  readonly #of = new Map<string, Thing[]>();

  constructor(things: readonly Thing[]) {
    for (const thing of things) this.#of.set(thing.id, [thing]);
  }

  of = (id: string): Thing[] => this.#of.get(id) ?? [];

  /** @returns whether they are one now */
  join(a: string, b: string, may: (left: Thing, right: Thing) => boolean): boolean {
    const [one, other] = [this.of(a), this.of(b)];
    if (one === other) return true;
    if (!canStandTogether(one, other)) return false;
    if (!one.every((left) => other.every((right) => may(left, right)))) return false;
    const both = [...one, ...other];
    for (const thing of both) this.#of.set(thing.id, both);
    return true;
  }

  all = (): Thing[][] => [...new Set(this.#of.values())];
}

/**
 * Which things are one. What somebody decided holds; the certain pairs join by themselves, the surest first; a thing of
 * which there are several equally certain ones is asked about, and so is what is unsure.
 */
export function joinThings(
  things: readonly Thing[],
  decisions: readonly Decision[] = [],
  weights: WordWeights = weighWords(things.map((one) => one.title)),
): Joined {
  const groups = new Groups(things);
  const apart = new Set(decisions.filter((one) => !one.isSame).map((one) => keyOf(one.a, one.b)));
  const may = (left: Thing, right: Thing) => !apart.has(keyOf(left.id, right.id));
  for (const one of decisions) if (one.isSame) groups.join(one.a, one.b, may);
  const pairs = candidatePairs(things, weights)
    .map(([a, b]): Pair => ({ a, b, ...compareThings(a, b, weights) }))
    .filter((one) => one.verdict !== 'different' && may(one.a, one.b))
    .sort((x, y) => y.score - x.score || (keyOf(x.a.id, x.b.id) < keyOf(y.a.id, y.b.id) ? -1 : 1));
  // Equally sure of two of one place, nothing is sure.
  const best = new Map<string, number[]>();
  for (const { a, b, score, verdict } of pairs) {
    if (verdict !== 'same') continue;
    for (const [of, there] of [
      [a, b],
      [b, a],
    ] as const) {
      const key = `${of.id}\n${there.place}`;
      best.set(key, [...(best.get(key) ?? []), score]);
    }
  }
  const isClear = ({ a, b, score }: Pair) =>
    [`${a.id}\n${b.place}`, `${b.id}\n${a.place}`].every((key) => {
      const [first = 0, second = Number.NEGATIVE_INFINITY] = best.get(key) ?? [];
      return score === first && first - second >= 1;
    });
  const joined = pairs.filter(
    (pair) => pair.verdict === 'same' && isClear(pair) && groups.join(pair.a.id, pair.b.id, may),
  );
  const questions = pairs
    .filter(({ a, b }) => {
      const [one, other] = [groups.of(a.id), groups.of(b.id)];
      return (
        one !== other && canStandTogether(one, other) && !one.some((left) => other.some((right) => !may(left, right)))
      );
    })
    // However sure it would be of one of them: it is to be asked.
    .map((pair): Pair => ({ ...pair, verdict: 'unsure' }));
  return { groups: groups.all(), pairs: [...joined, ...questions], questions };
}
