import fc from 'fast-check';
import { handReasons, movementReasons, movementWords, offeredUnits, resultingStock } from '.';

test('adding and setting are two different things', () => {
  expect(resultingStock(3, { how: 'add', units: 4 })).toEqual({ delta: 4, result: 7 });
  expect(resultingStock(3, { how: 'set', units: 4 })).toEqual({ delta: 1, result: 4 });
  expect(resultingStock(3, { how: 'add', units: -5 })).toEqual({ delta: -5, result: -2 });
});

test('the movement always leads from what is there to what results', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: -5, max: 1_000 }),
      fc.constantFrom('add' as const, 'set' as const),
      fc.integer({ min: -1_000, max: 1_000 }),
      (there, how, units) => {
        const { delta, result } = resultingStock(there, { how, units });
        return there + delta === result;
      },
    ),
  );
});

test('an account offers what is there less its reserve, at most its cap, and never less than nothing', () => {
  expect(offeredUnits(6, { reserve: 0, cap: null })).toBe(6);
  expect(offeredUnits(6, { reserve: 2, cap: null })).toBe(4);
  expect(offeredUnits(6, { reserve: 2, cap: 3 })).toBe(3);
  expect(offeredUnits(1, { reserve: 2, cap: 3 })).toBe(0);
  fc.assert(
    fc.property(
      fc.integer({ min: -10, max: 500 }),
      fc.integer({ min: 0, max: 50 }),
      fc.option(fc.integer({ min: 1, max: 100 })),
      (there, reserve, cap) => {
        const offered = offeredUnits(there, { reserve, cap });
        return offered >= 0 && offered <= Math.max(0, there) && (cap === null || offered <= cap);
      },
    ),
  );
});

test('every reason has its words, and by hand one gives only those that are a person’s to give', () => {
  for (const reason of movementReasons) expect(movementWords[reason]).not.toBe('');
  for (const reason of ['sold', 'cancelled', 'undo', 'opening', 'set'])
    expect(handReasons as readonly string[]).not.toContain(reason);
});
