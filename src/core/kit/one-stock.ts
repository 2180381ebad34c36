/** So many pieces of a part are in one whole set; a part may be a set itself. */
export type PartOf = { set: number; part: number; pieces: number };

/** Sets within sets: a whole, its parts, and theirs. */
export const mostLevels = 3;

/** How many whole sets can be offered: the least of what the parts allow; none where a part is lacking. */
export const wholeSets = (parts: readonly { quantity: number; pieces: number }[]): number =>
  parts.length === 0 ? 0 : Math.max(0, Math.min(...parts.map(({ quantity, pieces }) => Math.floor(quantity / pieces))));

/** The sets among these, each behind all sets that it is a part of. */
function outermostFirst(relations: readonly PartOf[]): number[] {
  const sets = [...new Set(relations.map((one) => one.set))];
  const depth = new Map<number, number>();
  const depthOf = (id: number, below = 0): number => {
    const known = depth.get(id);
    if (known !== undefined) return known;
    // A set within itself is refused where it would be made; here it only must come to an end.
    if (below > sets.length) return below;
    const over = relations.filter((one) => one.part === id).map((one) => depthOf(one.set, below + 1) + 1);
    const found = Math.max(0, ...over);
    depth.set(id, found);
    return found;
  };
  return sets
    .map((id) => ({ id, depth: depthOf(id) }))
    .sort((a, b) => a.depth - b.depth)
    .map((one) => one.id);
}

/**
 * What whole sets and their parts have once some of them came or went: so many whole sets more or fewer are so many of each
 * part more or fewer, and whole sets are then as many as the parts allow. Pure.
 * @param quantities units by item, of everything that the relations name; those of sets are computed anew
 * @param moved units that came (or went) of single items, sets and parts
 * @param lacking items that are not sold now, however many there are: no whole set can be made with them
 * @returns units by item, of everything that the relations name
 */
export function oneStock(
  relations: readonly PartOf[],
  quantities: ReadonlyMap<number, number>,
  moved: ReadonlyMap<number, number>,
  lacking: ReadonlySet<number> = new Set(),
): Map<number, number> {
  const order = outermostFirst(relations);
  const isSet = new Set(order);
  const delta = new Map(moved);
  const partsOf = (id: number) => relations.filter((one) => one.set === id);
  for (const id of order) {
    const sets = delta.get(id) ?? 0;
    if (sets === 0) continue;
    for (const { part, pieces } of partsOf(id)) delta.set(part, (delta.get(part) ?? 0) + sets * pieces);
  }
  const now = new Map<number, number>();
  for (const { part } of relations)
    if (!isSet.has(part)) now.set(part, (quantities.get(part) ?? 0) + (delta.get(part) ?? 0));
  for (const id of order.reverse())
    now.set(
      id,
      wholeSets(
        partsOf(id).map(({ part, pieces }) => ({ quantity: lacking.has(part) ? 0 : (now.get(part) ?? 0), pieces })),
      ),
    );
  return now;
}

/**
 * Why a set cannot be made of these parts, in words; null where it can.
 * @param relations those that are there already, around the set and the parts
 */
export function levelFault(
  set: number,
  parts: readonly number[],
  relations: readonly PartOf[],
  nameOf: (id: number) => string,
): string | null {
  const all = [...relations.filter((one) => one.set !== set), ...parts.map((part) => ({ set, part, pieces: 1 }))];
  const below = (id: number, way: readonly number[]): readonly number[] | number => {
    if (way.includes(id)) return [...way, id];
    let most = 0;
    for (const { part } of all.filter((one) => one.set === id)) {
      const found = below(part, [...way, id]);
      if (typeof found !== 'number') return found;
      most = Math.max(most, found + 1);
    }
    return most;
  };
  const down = below(set, []);
  if (typeof down !== 'number') return `${nameOf(set)} would lie within itself: ${down.map(nameOf).join(' → ')}`;
  const above = (id: number): number =>
    Math.max(0, ...all.filter((one) => one.part === id).map((one) => above(one.set) + 1));
  return down + above(set) > mostLevels
    ? `Sets within sets go ${mostLevels} levels deep, not ${down + above(set)}`
    : null;
}
