import fc from 'fast-check';
import {
  bitsApart,
  candidatePairs,
  compareThings,
  joinThings,
  NearestTitles,
  nothingKnown,
  numbersApart,
  type PhotoPrint,
  sharedPhotos,
  type Thing,
  titleLikeness,
  weighWords,
  wordsOf,
} from '.';

let made = 0;
const thing = (place: string, part: Partial<Thing> = {}): Thing => ({
  ...nothingKnown,
  id: `${place}-${++made}`,
  place,
  ...part,
});
const titles = [
  'Brask K-2 black 35 mm SLR film camera with 50 mm f/1.8 lens',
  'Brask K-5 Auto black 35 mm SLR film camera, aperture priority',
  'Fennick Record 120 folding camera 6×9',
  'Grainhouse Quay leather camera strap brown 130 cm',
  'Noctal 85 mm f/1.8 portrait lens',
  'Orvane 50 mm f/1.4 standard lens silver',
];
const weights = weighWords(titles);
const hex = fc.stringMatching(/^[0-9a-f]{16}$/);
const print = (way: string): PhotoPrint => [way, 'ffff0000ffff0000', '0123456789abcdef', 'f0f0f0f0f0f0f0f0'];
const anyThing = fc.record({
  sku: fc.constantFrom('', 'A-1', 'a1', 'B-2'),
  barcode: fc.constantFrom('', '4006381333931', '9783161484100'),
  product: fc.constantFrom('', 'x:1', 'x:2', 'y:1'),
  title: fc.oneof(fc.constantFrom('', ...titles), fc.string({ maxLength: 20 })),
  brand: fc.constantFrom('', 'Brask', 'brask', 'Orvane'),
  model: fc.constantFrom('', 'K-2', 'K2', 'K-5'),
  price: fc.option(fc.integer({ min: 0, max: 50_000 })),
  grades: fc.constantFrom([], ['good'], ['fair', 'good'], ['poor']),
  photos: fc.array(fc.tuple(hex, hex, hex, hex), { maxLength: 3 }),
});

test('words keep the numbers that name a thing, and lose how they are written', () => {
  expect(wordsOf('Bräsk K-2, f/1.8 (35 mm) re-built')).toEqual(['brask', 'k2', 'f1.8', '35', 'mm', 're', 'built']);
  expect(numbersApart(titles[0] ?? '', titles[1] ?? '')).toEqual(['k2', '50', 'f1.8', 'k5']);
  expect(numbersApart('Lens 50mm f1.8', 'Lens 50 mm f/1.8')).toEqual([]);
  expect(numbersApart('Brask K-2 camera', 'Brask K-2 camera, 1970s, 50 mm')).toEqual([]);
});

test('titles are as alike as the rare words that they share', () => {
  const [camera = '', other = '', folding = ''] = titles;
  expect(titleLikeness(camera, camera, weights)).toBe(1);
  expect(titleLikeness('Brask K-2 black with 50 mm f/1.8', camera, weights)).toBeGreaterThan(0.75);
  expect(titleLikeness(camera, folding, weights)).toBeLessThan(0.2);
  expect(titleLikeness(camera, other, weights)).toBeLessThan(
    titleLikeness('Brask K-2 black SLR film camera with lens', camera, weights),
  );
  expect(titleLikeness('', camera, weights)).toBe(0);
});

test('comparing is the same from either side', () => {
  fc.assert(
    fc.property(anyThing, anyThing, (left, right) => {
      const [a, b] = [thing('one', left), thing('two', right)];
      const [there, back] = [compareThings(a, b, weights), compareThings(b, a, weights)];
      expect([there.score, there.verdict]).toEqual([back.score, back.verdict]);
      expect(there.evidence.map((one) => [one.kind, one.weight])).toEqual(
        back.evidence.map((one) => [one.kind, one.weight]),
      );
    }),
  );
  fc.assert(
    fc.property(
      fc.array(fc.tuple(hex, hex, hex, hex), { maxLength: 4 }),
      fc.array(fc.tuple(hex, hex, hex, hex), { maxLength: 4 }),
      (a, b) => sharedPhotos(a, b) === sharedPhotos(b, a),
    ),
  );
});

test('bits of pictures are counted, and a picture turned is the same one', () => {
  expect(bitsApart('ffffffffffffffff', '0000000000000000')).toBe(64);
  expect(bitsApart('8000000000000001', '0000000000000000')).toBe(2);
  const upright: PhotoPrint = ['aaaabbbbccccdddd', '1111222233334444', '5555666677778888', '9999000011112222'];
  const turned: PhotoPrint = ['1111222233334445', '5555666677778888', '9999000011112222', 'aaaabbbbccccdddd'];
  expect(sharedPhotos([upright], [turned])).toBe(1);
  expect(
    sharedPhotos([upright], [['f0f0f0f0f0f0f0f0', '0f0f0f0f0f0f0f0f', 'ff00ff00ff00ff00', '00ff00ff00ff00ff']]),
  ).toBe(0);
});

describe('certain is only what is proved and not denied', () => {
  const camera = { title: titles[0] ?? '', brand: 'Brask', model: 'K-2', price: 14_900 };
  const verdict = (left: Partial<Thing>, right: Partial<Thing>) =>
    compareThings(thing('one', { ...camera, ...left }), thing('two', { ...camera, ...right }), weights).verdict;
  const shown = [print('aaaabbbbccccdddd')];

  test('the same number, or the same picture, and alike besides', () => {
    expect(verdict({ sku: 'C-1' }, { sku: 'C-1' })).toBe('same');
    expect(verdict({ photos: shown }, { photos: shown, title: 'Brask K-2 camera with lens' })).toBe('same');
  });
  test('twins that merely look alike are asked about', () => {
    expect(verdict({}, {})).toBe('unsure');
    expect(verdict({ barcode: '4006381333931' }, { barcode: '4006381333931' })).toBe('unsure');
  });
  test('one number with other things said is asked about', () => {
    expect(verdict({ sku: 'C-1' }, { sku: 'C-1', title: titles[3], brand: 'Grainhouse', model: '' })).not.toBe('same');
    expect(verdict({ photos: shown }, { photos: shown, model: 'K-5', title: titles[1] })).not.toBe('same');
  });
  test('other things are two', () => {
    expect(verdict({}, { title: titles[4], brand: 'Noctal', model: '' })).toBe('different');
    expect(
      verdict({ sku: 'C-1', barcode: '4006381333931' }, { sku: '', barcode: '9783161484100', title: titles[2] }),
    ).toBe('different');
  });
});

describe('the nearest titles of an inventory, in one pass', () => {
  test('those that share the rare words, the nearest first; what everything says tells nothing', () => {
    const nearest = new NearestTitles(['Brask K-2 camera with lens', 'Velmar Lyra 35 rangefinder'], 2);
    for (const [id, title] of [
      [1, 'Velmar Lyra 35 brown rangefinder camera'],
      [2, 'Brask K-5 camera'],
      [3, 'Brask K-2 camera with 50 mm lens'],
      [4, 'A spade'],
      [5, 'Brask K-2 with lens'],
    ] as const)
      nearest.look(id, title);
    expect(nearest.ids).toEqual([[3, 5], [1]]);
  });

  test('a title is always among the nearest of itself, however many there are', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.array(fc.constantFrom('ket', 'lun', 'mor', 'nis', 'pel'), { minLength: 2, maxLength: 4 }), {
          minLength: 1,
          maxLength: 20,
          selector: (words) => [...new Set(words)].sort().join(' '),
        }),
        (all) => {
          const some = all.map((words) => words.join(' '));
          const nearest = new NearestTitles(some, some.length);
          for (const [id, title] of some.entries()) nearest.look(id, title);
          for (const [id, near] of nearest.ids.entries()) expect(near).toContain(id);
        },
      ),
    );
  });
});

describe('joining', () => {
  const listing = (place: string, number: number, part: Partial<Thing> = {}) =>
    thing(place, { title: titles[number] ?? '', sku: `S-${number}`, ...part });

  test('one item of what stands in three places; never two of one place', () => {
    const things = ['a', 'b', 'c'].flatMap((place) => titles.map((_, number) => listing(place, number)));
    const { groups, questions } = joinThings(things, [], weights);
    expect(groups).toHaveLength(titles.length);
    expect(groups.every((group) => new Set(group.map((one) => one.place)).size === 3)).toBe(true);
    expect(questions).toEqual([]);
  });

  test('two equally certain ones are a question; what is decided holds, and is not asked again', () => {
    const [one, first, second] = [listing('a', 0), listing('b', 0), listing('b', 0)];
    const { groups, questions } = joinThings([one, first, second], [], weights);
    expect(groups).toHaveLength(3);
    expect(questions).toHaveLength(2);
    const decided = joinThings([one, first, second], [{ a: second.id, b: one.id, isSame: true }], weights);
    expect(decided.groups.map((group) => group.length).sort()).toEqual([1, 2]);
    expect(decided.questions).toEqual([]);
    const both = [first, second].map((other) => ({ a: one.id, b: other.id, isSame: false }));
    expect(joinThings([one, first, second], both, weights)).toMatchObject({ questions: [] });
  });

  test('whatever is joined, every thing stands in one group, and no group has two of one place', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constantFrom('a', 'b', 'c'), anyThing), { maxLength: 25 }), (some) => {
        const things = some.map(([place, part]) => thing(place, part));
        const { groups } = joinThings(things);
        expect(
          groups
            .flat()
            .map((one) => one.id)
            .sort(),
        ).toEqual(things.map((one) => one.id).sort());
        for (const group of groups) expect(new Set(group.map((one) => one.place)).size).toBe(group.length);
      }),
    );
  });

  test('pairs grow with the things, not with their square', () => {
    const many = Array.from({ length: 3_000 }, (_, at) =>
      thing(at % 2 ? 'a' : 'b', {
        title: `Camera strap number ${Math.floor(at / 2)} of leather`,
        sku: `N-${Math.floor(at / 2)}`,
      }),
    );
    const known = weighWords(many.map((one) => one.title));
    const pairs = candidatePairs(many, known);
    expect(pairs.length).toBeGreaterThanOrEqual(1_500);
    expect(pairs.length).toBeLessThan(200_000);
  });
});
