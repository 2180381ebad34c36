import fc from 'fast-check';
import {
  type ContentLine,
  contentKinds,
  expandContents,
  joinParts,
  type Opening,
  type Parts,
  partsKey,
  readContents,
  setApart,
  shareLots,
  takeApart,
  totalsOf,
} from '.';

const line = (some: Partial<ContentLine>): ContentLine => ({
  entry: '',
  name: 'Tray',
  finish: '',
  quantity: 1,
  grams: null,
  sort: '',
  kind: 'part',
  isSet: false,
  ...some,
});
const opening: Opening = { times: 1, with: ['spare'], opensSets: true, condition: 'good' };

const parts = fc.record({
  entry: fc.constantFrom('', 'E1', 'E2', 'E3'),
  name: fc.constantFrom('Tray', 'tray ', 'Clip', 'Bottle'),
  finish: fc.constantFrom('', 'Black', 'black'),
  condition: fc.constantFrom('good' as const, null),
  quantity: fc.integer({ min: 1, max: 50 }),
  grams: fc.option(fc.integer({ min: 1, max: 900 })),
  sort: fc.constant(''),
});
const manyParts = fc.array(
  parts.map(
    (one): Parts => ({
      ...one,
      from: [{ within: ['Outfit'], name: one.name, kind: 'part', quantity: one.quantity }],
    }),
  ),
  { maxLength: 40 },
);
const pieces = (all: readonly Parts[]) => {
  const counts = new Map<string, number>();
  for (const one of all) counts.set(partsKey(one), (counts.get(partsKey(one)) ?? 0) + one.quantity);
  return counts;
};

test('joined and taken apart again, contents have the same pieces of each kind', () => {
  fc.assert(
    fc.property(manyParts, fc.array(fc.nat(30), { maxLength: 20 }), (all, picks) => {
      let lots = joinParts(all);
      expect(pieces(lots)).toEqual(pieces(all));
      expect(new Set(lots.map(partsKey)).size).toBe(lots.length);
      for (const pick of picks) {
        const at = lots.length ? pick % lots.length : 0;
        const lot = lots[at];
        const apart = lot ? takeApart(lot, pick % 3) : null;
        if (apart) lots = [...lots.slice(0, at), apart.stays, apart.out, ...lots.slice(at + 1)];
        expect(pieces(lots)).toEqual(pieces(all));
        for (const one of lots) expect(one.from.reduce((sum, source) => sum + source.quantity, 0)).toBe(one.quantity);
      }
      expect(pieces(joinParts(lots))).toEqual(pieces(all));
    }),
  );
});

test('pieces that are set apart are as many as before, with where they are from', () => {
  fc.assert(
    fc.property(manyParts, fc.integer({ min: 0, max: 60 }), (all, some) => {
      for (const lot of joinParts(all)) {
        const apart = setApart(lot, some);
        expect(apart === null).toBe(some < 1 || some >= lot.quantity);
        if (!apart) continue;
        expect(apart.out.quantity).toBe(some);
        expect(pieces([apart.stays, apart.out])).toEqual(pieces([lot]));
        for (const one of [apart.stays, apart.out])
          expect(one.from.reduce((sum, source) => sum + source.quantity, 0)).toBe(one.quantity);
      }
    }),
  );
});

test('sets within sets are opened to any depth, times and times again', () => {
  const set = {
    entry: 'S',
    name: 'Outfit',
    lines: [line({ entry: 'T', name: 'Tray set', quantity: 2, isSet: true }), line({ name: 'Tank' })],
  };
  const within = new Map([
    ['T', [line({ entry: 'T1', name: 'Tray 18 × 24', quantity: 3 }), line({ entry: 'U', name: 'Clips', isSet: true })]],
    ['U', [line({ entry: 'U1', name: 'Clip', quantity: 4 }), line({ name: 'Leaflet', kind: 'paper' })]],
  ]);
  const opened = expandContents(set, within, { ...opening, times: 3 });
  expect(opened.map((one) => [one.name, one.quantity, one.from[0]?.within.join(' → ')])).toEqual([
    ['Tray 18 × 24', 18, 'Outfit → Tray set'],
    ['Clip', 24, 'Outfit → Tray set → Clips'],
    ['Tank', 3, 'Outfit'],
  ]);
  const whole = expandContents(set, within, { ...opening, opensSets: false });
  expect(whole.map((one) => [one.name, one.quantity])).toEqual([
    ['Tray set', 2],
    ['Tank', 1],
  ]);
});

test('a set within itself is told with the way into it', () => {
  const set = { entry: 'S', name: 'Outfit', lines: [line({ entry: 'T', name: 'Tray set', isSet: true })] };
  const within = new Map([['T', [line({ entry: 'S', name: 'Outfit', isSet: true })]]]);
  within.set('S', set.lines);
  expect(() => expandContents(set, within, opening)).toThrow('Outfit → Tray set → Outfit');
});

test('spares, papers and the box count where one wants them; more than anybody breaks up is refused', () => {
  const lines = contentKinds.map((kind) => line({ name: kind, kind }));
  const names = (kinds: Opening['with']) =>
    expandContents({ entry: '', name: 'Outfit', lines }, new Map(), { ...opening, with: kinds }).map((one) => one.name);
  expect(names([])).toEqual(['part']);
  expect(names(['spare', 'box'])).toEqual(['part', 'spare', 'box']);
  const huge = { entry: '', name: 'Outfit', lines: [line({ quantity: 100_000 })] };
  expect(() => expandContents(huge, new Map(), { ...opening, times: 11 })).toThrow('pieces');
});

test('a pasted list: numbers before and behind, spares; what is vague is named with its line', () => {
  const { lines, faults } = readContents(
    '2 x tray 18 × 24\n• Film clip × 4\nFilm clip (2) (spare)\n\nTank\n1,200 x pin\nabout ten x bottle\n0 x lid\n3 × 5 mask x 2\n2.5 x foot',
  );
  expect(lines.map((one) => [one.quantity, one.name, one.kind])).toEqual([
    [2, 'tray 18 × 24', 'part'],
    [4, 'Film clip', 'part'],
    [2, 'Film clip', 'spare'],
    [1, 'Tank', 'part'],
    [1_200, 'pin', 'part'],
    [3, '5 mask x 2', 'part'],
  ]);
  expect(faults.map((one) => one.line)).toEqual([7, 8, 10]);
});

test('totals count what was not taken out; shared over the lots the cost adds up', () => {
  const lots = [
    { quantity: 3, grams: 100, price: 500, state: 'open' as const },
    { quantity: 1, grams: null, price: null, state: 'open' as const },
    { quantity: 9, grams: 10, price: 20, state: 'out' as const },
    { quantity: 2, grams: 50, price: 1_000, state: 'done' as const },
  ];
  expect(totalsOf(lots)).toEqual({
    lots: 3,
    pieces: 6,
    grams: 400,
    unweighed: 1,
    value: 3_500,
    unpriced: 1,
    ready: 1,
    later: 0,
    out: 1,
    done: 1,
  });
  const numbered = lots.map((lot, id) => ({ ...lot, id }));
  for (const shareBy of ['price', 'weight', 'number'] as const) {
    const shares = shareLots({ totalCost: 10_001, shareBy }, numbered);
    expect([...shares.values()].reduce((sum, one) => sum + one, 0)).toBe(10_001);
    expect(shares.has(2)).toBe(false);
  }
  expect(shareLots({ totalCost: null, shareBy: 'price' }, numbered).size).toBe(0);
});
