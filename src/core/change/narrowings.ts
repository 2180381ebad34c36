import type { Item } from '../item/item';
import { ownValue } from '../json';
import type { Overrides } from '../listing/context';
import { type Narrowing, readNarrowing } from '../listing/fit/variations';

type Table = Pick<Item, 'axes' | 'variations'>;

/** What a value of an axis is called now: by the combinations that carried it; null when that cannot be said. */
function calledNow(before: Table, after: Table, axis: string, value: string): string | null {
  const [was, is] = [before, after].map(({ axes }) => axes.findIndex((one) => one.name === axis)) as [number, number]; // as many as tables
  if (was < 0 || is < 0 || after.axes[is]?.values.includes(value)) return null;
  const keys = new Set(before.variations.filter((row) => row.values[was] === value).map((row) => row.key));
  const names = new Set(after.variations.filter((row) => keys.has(row.key)).map((row) => row.values[is]));
  const [name] = names;
  return names.size === 1 && name !== undefined ? name : null;
}

/**
 * Accounts at which one value of an axis alone is offered go on doing so when that value is written otherwise.
 * @returns by account, what is to be said there now; only those that change
 */
export function followNarrowings(
  before: Table,
  after: Table,
  overrides: ReadonlyMap<number, Overrides>,
): Map<number, Narrowing> {
  const followed = new Map<number, Narrowing>();
  if (before.variations === after.variations) return followed;
  for (const [account, own] of overrides) {
    const narrowing = readNarrowing(ownValue(own, 'variations'));
    const now = Object.entries(narrowing).map(([axis, value]) => [
      axis,
      calledNow(before, after, axis, value) ?? value,
    ]);
    if (now.some(([axis, value]) => narrowing[axis ?? ''] !== value)) followed.set(account, Object.fromEntries(now));
  }
  return followed;
}
