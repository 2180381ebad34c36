import fc from 'fast-check';
import { levelFault, oneStock, type PartOf, wholeSets } from '.';

// 1 is an outfit of 2 tray sets (2), 1 tank (5) and 4 clips (6); a tray set is 3 trays (3) and 1 box of clips (4) of 6 clips each.
const relations: PartOf[] = [
  { set: 1, part: 2, pieces: 2 },
  { set: 1, part: 5, pieces: 1 },
  { set: 1, part: 6, pieces: 4 },
  { set: 2, part: 3, pieces: 3 },
  { set: 2, part: 4, pieces: 1 },
  { set: 4, part: 6, pieces: 6 },
];
const leaves = [3, 5, 6];

/** The plain model: leaves alone are counted, and a set is what its leaves make, level by level. */
function model(stock: ReadonlyMap<number, number>): Map<number, number> {
  const at = (id: number) => stock.get(id) ?? 0;
  const fit = (...all: [number, number][]) =>
    Math.max(0, Math.min(...all.map(([have, need]) => Math.floor(have / need))));
  const four = fit([at(6), 6]);
  const two = fit([at(3), 3], [four, 1]);
  return new Map([
    [3, at(3)],
    [5, at(5)],
    [6, at(6)],
    [4, four],
    [2, two],
    [1, fit([two, 2], [at(5), 1], [at(6), 4])],
  ]);
}
/** How many of each leaf one of an item is. */
const inOne: Record<number, Record<number, number>> = {
  1: { 3: 6, 5: 1, 6: 16 },
  2: { 3: 3, 6: 6 },
  3: { 3: 1 },
  4: { 6: 6 },
  5: { 5: 1 },
  6: { 6: 1 },
};

test('after any series of sales and returns of wholes and parts, whole sets are the least that the parts allow', () => {
  const deed = fc.record({ item: fc.constantFrom(1, 2, 3, 4, 5, 6), units: fc.integer({ min: -4, max: 4 }) });
  const start = fc.tuple(...leaves.map(() => fc.integer({ min: 0, max: 60 })));
  fc.assert(
    fc.property(start, fc.array(deed, { maxLength: 30 }), (first, deeds) => {
      const plain = new Map(leaves.map((id, index) => [id, first[index] ?? 0]));
      let now = oneStock(relations, plain, new Map());
      expect(now).toEqual(model(plain));
      for (const { item, units } of deeds) {
        for (const [leaf, pieces] of Object.entries(inOne[item] ?? {}))
          plain.set(Number(leaf), (plain.get(Number(leaf)) ?? 0) + units * pieces);
        now = oneStock(relations, now, new Map([[item, units]]));
        expect(now).toEqual(model(plain));
      }
    }),
  );
});

test('whole sets are never fewer than none', () => {
  expect(
    wholeSets([
      { quantity: 7, pieces: 3 },
      { quantity: 9, pieces: 2 },
    ]),
  ).toBe(2);
  expect(wholeSets([{ quantity: -1, pieces: 2 }])).toBe(0);
  expect(wholeSets([])).toBe(0);
});

test('a set within itself is told with the way, and more levels than three are refused', () => {
  const name = (id: number) => `item ${id}`;
  expect(levelFault(4, [1], relations, name)).toContain('item 4 → item 1 → item 2 → item 4');
  expect(levelFault(4, [4], [], name)).toContain('item 4 → item 4');
  expect(levelFault(7, [5, 6], relations, name)).toBeNull();
  expect(levelFault(7, [1], relations, name)).toContain('3 levels deep, not 4');
  expect(levelFault(6, [8], relations, name)).toContain('not 4');
});
