import fc from 'fast-check';
import { conditionGrades } from '../item/condition';
import { type Command, commandCode, readCommand } from './command';
import { noteOf, noteParts, withSwitched } from './note';
import { nextPlace } from './place';
import { firstSettings, priceByRule } from './settings';
import { meanCost, type Sharing, shareCost, shareWays } from './share-cost';
import { whyLeave } from './worth';

const amount = fc.integer({ min: 0, max: 10_000_000 });
const line: fc.Arbitrary<Sharing> = fc.record({
  units: fc.integer({ min: 1, max: 50 }),
  weightGrams: fc.option(fc.integer({ min: 0, max: 50_000 })),
  price: fc.option(amount),
  byHand: fc.constant(null),
});

test('shares add up to the cost of the whole, to the cent, whatever it is shared by', () => {
  fc.assert(
    fc.property(
      amount,
      fc.array(line, { minLength: 1, maxLength: 80 }),
      fc.constantFrom(...shareWays),
      (total, lines, by) => {
        const shares = shareCost(total, lines, by);
        expect(shares?.reduce((sum, one) => sum + one, 0)).toBe(total);
        expect(shares?.every((one) => one >= 0)).toBe(true);
      },
    ),
  );
});

test('no share is further than one cent from its exact part', () => {
  fc.assert(
    fc.property(amount, fc.array(line, { minLength: 1, maxLength: 40 }), (total, lines) => {
      const units = lines.reduce((sum, one) => sum + one.units, 0);
      const shares = shareCost(total, lines, 'number') ?? [];
      for (const [index, share] of shares.entries())
        expect(Math.abs(share - (total * (lines[index]?.units ?? 0)) / units)).toBeLessThan(1);
    }),
  );
});

test('what is said by hand stands, the others bear the rest; what cannot add up is refused', () => {
  const piece = (byHand: number | null): Sharing => ({ units: 1, weightGrams: null, price: null, byHand });
  expect(shareCost(1_000, [piece(700), piece(null), piece(null)], 'hand')).toEqual([700, 150, 150]);
  expect(shareCost(1_000, [piece(700), piece(300)], 'hand')).toEqual([700, 300]);
  expect(shareCost(1_000, [piece(700), piece(200)], 'hand')).toBeNull();
  expect(shareCost(1_000, [piece(1_100), piece(null)], 'hand')).toBeNull();
});

test('what came in later moves the cost towards what it cost', () => {
  expect(meanCost({ units: 3, cost: 100 }, { units: 1, total: 500 })).toBe(200);
  expect(meanCost({ units: 3, cost: null }, { units: 2, total: 500 })).toBe(250);
  expect(meanCost({ units: -2, cost: 100 }, { units: 1, total: 80 })).toBe(80);
});

test.each([
  ['A-09', 'A-10'],
  ['BOX 7', 'BOX 8'],
  ['R2.S099', 'R2.S100'],
  ['12b', '13b'],
  ['shelf', 'shelf-2'],
  ['', ''],
])('after %s comes %s', (place, next) => expect(nextPlace(place)).toBe(next));

test('sentences read in the order of their list, whichever was switched on first', () => {
  const list = ['Spine creased', 'Name inside.', 'Smells of smoke'];
  const on = withSwitched(withSwitched(withSwitched([], 'Smells of smoke'), 'Spine creased'), 'Name inside.');
  expect(noteOf(list, on)).toBe('Spine creased. Name inside. Smells of smoke.');
  expect(noteOf(list, withSwitched(on, 'Name inside.'), 'see photo')).toBe(
    'Spine creased. Smells of smoke. see photo.',
  );
  expect(noteOf(list, [])).toBe('');
});

test('every command label is read back as the command that it was printed for', () => {
  const commands: Command[] = [
    ...conditionGrades.map((one) => ({ do: 'grade' as const, grade: one.id })),
    ...[1, 9, 30].map((number) => ({ do: 'snippet' as const, number })),
    { do: 'preset', id: 12 },
    { do: 'quantity', units: 5 },
    { do: 'undo' },
    { do: 'again' },
    { do: 'box' },
    { do: 'yes' },
  ];
  for (const command of commands) {
    expect(readCommand(commandCode(command))).toEqual(command);
    expect(readCommand(commandCode(command).toLowerCase())).toEqual(command);
    expect(commandCode(command)).toMatch(/^[A-Z0-9]+$/);
  }
  for (const text of ['NETDO', 'NETDOG0', 'NETDOG99', 'NETDOK0', 'NETDOK1001', 'NETDOU1', 'GH-0001', '4006381333931'])
    expect(readCommand(text)).toBeNull();
});

test('a price by rule, as far as what it hangs on is known', () => {
  const known = { cost: 400, median: 1_000 };
  expect(priceByRule({ by: 'fixed', amount: 950 }, known)).toBe(950);
  expect(priceByRule({ by: 'cost', times: 250, plus: 100 }, known)).toBe(1_100);
  expect(priceByRule({ by: 'sales', days: 180, times: 95 }, known)).toBe(950);
  expect(priceByRule({ by: 'sales', days: 180, times: 95 }, { ...known, median: null })).toBeNull();
  expect(priceByRule({ by: 'cost', times: 250, plus: 100 }, { ...known, cost: null })).toBeNull();
  expect(priceByRule({ by: 'none' }, known)).toBeNull();
});

test('what is better left lying, by net, by return, by how long such things stand', () => {
  const say = (cents: number) => `${cents}`;
  const worth = { net: 150, cost: 100, days: 40 };
  expect(whyLeave(worth, firstSettings, say)).toBeNull();
  expect(whyLeave(worth, { ...firstSettings, leastNet: 200 }, say)).toContain('150 would be left');
  expect(whyLeave(worth, { ...firstSettings, leastReturn: 200 }, say)).toContain('150 %');
  expect(whyLeave(worth, { ...firstSettings, mostDays: 30 }, say)).toContain('40 days');
  expect(whyLeave({ net: null, cost: null, days: null }, { leastNet: 1, leastReturn: 1, mostDays: 1 }, say)).toBeNull();
});

test('a note is taken apart into its sentences and what was written besides, and put together says the same', () => {
  const sentence = fc.stringMatching(/^[A-Z][a-z]{1,6}( [a-z]{1,6}){0,3}[.!]?$/);
  fc.assert(
    fc.property(
      fc.uniqueArray(sentence, { maxLength: 8 }),
      fc.array(fc.boolean(), { minLength: 8, maxLength: 8 }),
      fc.constantFrom('', 'See the third photo.', 'The clasp is new!'),
      (list, chosen, besides) => {
        const on = list.filter((_, index) => chosen[index]);
        const note = noteOf(list, on, besides);
        const parts = noteParts(list, note);
        expect(noteOf(list, parts.on, parts.besides)).toBe(note);
      },
    ),
  );
  expect(noteParts(['Spine creased', 'Name inside'], 'Name inside. A stain on page 4.')).toEqual({
    on: ['Name inside'],
    besides: 'A stain on page 4.',
  });
});
