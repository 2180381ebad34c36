import { combinationKey, type Variation } from '../item/variations';

/**
 * The table with a key for every combination: one that has none gets that of the combination of the same values in the
 * table before, else a new one.
 * @param make a new key, never given before
 */
export function keyed(rows: readonly Variation[], before: readonly Variation[], make: () => string): Variation[] {
  const known = new Map(before.map((row) => [combinationKey(row.values), row.key]));
  const taken = new Set(rows.map((row) => row.key).filter(Boolean));
  return rows.map((row) => {
    if (row.key) return row;
    const same = known.get(combinationKey(row.values));
    const key = same && !taken.has(same) ? same : make();
    taken.add(key);
    return { ...row, key };
  });
}
