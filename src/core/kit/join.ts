import type { Parts } from './contents';

/** Equal are pieces of the same entry, finish and condition; without an entry those of the same name. */
export const partsKey = ({ entry, name, finish, condition }: Pick<Parts, 'entry' | 'name' | 'finish' | 'condition'>) =>
  JSON.stringify([entry, entry ? '' : name.trim().toLowerCase(), finish.trim().toLowerCase(), condition]);

/** Equal parts become one, in the order in which the first of each came; it keeps where all of them are from. */
export function joinParts(all: readonly Parts[]): Parts[] {
  const joined = new Map<string, Parts>();
  for (const one of all) {
    const key = partsKey(one);
    const before = joined.get(key);
    joined.set(
      key,
      before
        ? {
            ...before,
            quantity: before.quantity + one.quantity,
            grams: before.grams ?? one.grams,
            ...((before.said ?? one.said) ? { said: before.said ?? one.said } : {}),
            from: [...before.from, ...one.from],
          }
        : one,
    );
  }
  return [...joined.values()];
}

/**
 * Takes one of the joined apart again: the pieces of one source on their own.
 * @param at which of its sources
 * @returns what stays and what is taken out; null where there is nothing to take apart
 */
export function takeApart<T extends Parts>(joined: T, at: number): { stays: T; out: T } | null {
  const source = joined.from[at];
  if (!source || joined.from.length < 2) return null;
  const quantity = Math.min(source.quantity, joined.quantity);
  const stays = {
    ...joined,
    quantity: joined.quantity - quantity,
    from: joined.from.filter((_, index) => index !== at),
  };
  return { stays, out: { ...joined, quantity, from: [source] } };
}

/**
 * Sets some pieces of a lot apart, the last ones that came in, with where they are from.
 * @param pieces how many, below the lot's number
 * @returns null where there are not so many, or none would stay
 */
export function setApart<T extends Parts>(lot: T, pieces: number): { stays: T; out: T } | null {
  if (pieces < 1 || pieces >= lot.quantity) return null;
  const stays: Parts['from'] = [];
  const out: Parts['from'] = [];
  let left = pieces;
  for (const source of [...lot.from].reverse()) {
    const some = Math.min(left, source.quantity);
    left -= some;
    if (some > 0) out.unshift({ ...source, quantity: some });
    if (some < source.quantity) stays.unshift({ ...source, quantity: source.quantity - some });
  }
  return {
    stays: { ...lot, quantity: lot.quantity - pieces, from: stays },
    out: { ...lot, quantity: pieces, from: out },
  };
}
