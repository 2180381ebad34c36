import fc from 'fast-check';
import { photoReference, readPhotoReference } from '../../photo/reference';
import { sampleItem } from '../../testing.test-data';
import {
  cleanTag,
  filledSides,
  fitContents,
  fitHighlights,
  fitStockNumber,
  fitTags,
  hasLink,
  isTooSmall,
  neededRatio,
  productTitle,
  tagMeaning,
  textLength,
  titleVersions,
  withoutLinks,
} from '..';

describe('tags', () => {
  const limits = { max: 4, maxLength: 20, letters: 'hashtag' as const };

  test.each([
    ['35 mm film!', 'any', '35 mm film!'],
    ['35 mm film!', 'words', '35 mm film'],
    ['35 mm film!', 'hashtag', '35mmfilm'],
    ['Größe Ø', 'hashtag', 'größeø'],
    ['  many   blanks ', 'words', 'many blanks'],
    ['#tagged', 'hashtag', 'tagged'],
  ] as const)('%j in the letters %s is %j', (keyword, letters, expected) =>
    expect(cleanTag(keyword, letters)).toBe(expected),
  );

  test.each([
    ['Film Cameras', 'film camera', true],
    ['batteries', 'battery', true],
    ['lenses', 'lens', true],
    ['boxes', 'box', true],
    ['glass', 'glas', false],
    ['Café', 'cafe', true],
    ['strap', 'straps', true],
    ['film', 'films', true],
    ['camera', 'camel', false],
  ])('%j and %j mean the same: %s', (one, other, same) => expect(tagMeaning(one) === tagMeaning(other)).toBe(same));

  test('best first by what buyers search for; words nobody counted keep their order behind', () => {
    const searches = { analogue: 50, film: 900 };
    expect(fitTags(['rare thing', 'analogue', 'film', 'other'], { ...limits, searches }).tags).toEqual([
      'film',
      'analogue',
      'rarething',
      'other',
    ]);
  });

  test('the house tag keeps the last place and is not said twice', () => {
    const fitted = fitTags(['Grain House', 'a1', 'b2', 'c3', 'd4'], limits, 'grainhouse');
    expect(fitted).toEqual({ tags: ['a1', 'b2', 'c3', 'grainhouse'], lost: ['d4'] });
  });

  test('a house tag that does not fit is left out rather than cut', () => {
    expect(fitTags(['a'], { ...limits, maxLength: 3 }, 'grainhouse').tags).toEqual(['a']);
  });

  test('never more, never longer, never twice', () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ maxLength: 30 }), { maxLength: 40 }),
        fc.string({ maxLength: 12 }),
        (keywords, house) => {
          const { tags } = fitTags(keywords, limits, house);
          expect(tags.length).toBeLessThanOrEqual(4);
          expect(tags.every((tag) => textLength(tag) <= 20 && tag !== '')).toBe(true);
          expect(new Set(tags.map(tagMeaning)).size).toBe(tags.length);
        },
      ),
    );
  });
});

describe('links', () => {
  test.each([
    ['<p>See <a href="https://x.example">our shop</a>.</p>', '<p>See our shop.</p>', 1],
    ['More at https://x.example/a?b=1 today', 'More at today', 1],
    ['www.x.example and http://y.example', ' and ', 2],
    ['No address here, f/2.8 and 3:2', 'No address here, f/2.8 and 3:2', 0],
    ['<a name="x">words</a>', 'words', 1],
  ])('%j without links', (text, without, removed) => expect(withoutLinks(text)).toEqual({ text: without, removed }));

  test('nothing is left that is an address', () => {
    const piece = fc.constantFrom('<a href="x">', '</a>', 'http://a.example', 'www.b.example ', 'word ', '<p>', '</p>');
    fc.assert(fc.property(fc.array(piece), (parts) => !hasLink(withoutLinks(parts.join('')).text)));
  });
});

describe('highlights and contents', () => {
  const limits = { min: 2, max: 3, maxLength: 30 };

  test('written ones come first; attributes fill up to the least number', () => {
    const item = sampleItem({ highlights: ['Tested'], attributes: { 'Film format': '35 mm', Colour: 'black' } });
    expect(fitHighlights(item, limits)).toEqual({
      highlights: ['Tested', 'Film format: 35 mm'],
      fromAttributes: 1,
      lost: [],
    });
  });

  test('too many are left out, too long ones cut at a word, and both said', () => {
    const item = sampleItem({ highlights: ['one', 'two', 'three', 'four'] });
    expect(fitHighlights(item, limits)).toMatchObject({ highlights: ['one', 'two', 'three'], lost: ['four'] });
    const long = sampleItem({ highlights: ['this one goes on for more than thirty characters', 'b'] });
    expect(fitHighlights(long, limits).highlights[0]).toBe('this one goes on for more');
  });

  test('markup in a highlight goes', () => {
    const item = sampleItem({ highlights: ['<b>Bold</b> claim', 'x < y'] });
    expect(fitHighlights(item, limits).highlights).toEqual(['Bold claim', 'x y']);
  });

  test.each([
    ['tank, 3 trays, bottle', ['1 x Tank', '3 x Trays', '1 x Bottle']],
    ['2 x Body; 4× lens', ['2 x Body', '4 x Lens']],
    ['camera\nstrap', ['1 x Camera', '1 x Strap']],
    ['', ['1 x Thing']],
    [undefined, ['1 x Thing']],
  ])('contents of %j', (said, lines) => expect(fitContents(said, 'thing', 9)).toEqual(lines));

  test('every line of contents has the wanted form', () => {
    fc.assert(
      fc.property(fc.string(), (said) =>
        fitContents(said, 'thing', 5).every((line) => /^\d{1,3} x \S/.test(line) && line.length <= 80),
      ),
    );
  });
});

describe('photos', () => {
  const rules = { min: 1, max: 3, minLongestSide: 600, minShortestSide: 600, shape: { narrow: 1, wide: 1 } };
  const photo = (width: number, height: number) => ({ hash: 'a'.repeat(64), width, height });

  test.each([
    [photo(1_200, 900), 1],
    [photo(900, 1_200), 1],
    [photo(800, 800), null],
  ])('%j is filled up to %s', (one, ratio) => expect(neededRatio(one, rules)).toBe(ratio));

  test('between two shapes a photo stays, outside it is filled up to the nearer one', () => {
    const band = { ...rules, shape: { narrow: 0.8, wide: 1.91 } };
    expect(neededRatio(photo(1_200, 900), band)).toBeNull();
    expect(neededRatio(photo(400, 1_000), band)).toBe(0.8);
    expect(neededRatio(photo(3_000, 1_000), band)).toBe(1.91);
  });

  test('filled sides are never smaller than the photo, and have the shape', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 6_000 }), fc.integer({ min: 1, max: 6_000 }), (width, height) => {
        const filled = filledSides(photo(width, height), rules);
        expect(filled.width).toBe(filled.height);
        expect(Math.min(filled.width, filled.height)).toBeGreaterThanOrEqual(Math.max(width, height));
      }),
    );
  });

  test('too small is what stays too small when it is filled up', () => {
    expect(isTooSmall(photo(640, 300), rules)).toBe(false);
    expect(isTooSmall(photo(500, 400), rules)).toBe(true);
    expect(isTooSmall(photo(640, 300), { ...rules, shape: undefined })).toBe(true);
  });

  test('a reference says hash and shape, and reads back', () => {
    expect(photoReference('abc', null)).toBe('abc');
    expect(readPhotoReference(photoReference('abc', 1))).toEqual({
      hash: 'abc',
      shape: [1, 1],
      made: null,
      print: null,
    });
    expect(readPhotoReference(photoReference('abc', 1.91))).toEqual({
      hash: 'abc',
      shape: [191, 100],
      made: null,
      print: null,
    });
    expect(readPhotoReference('abc')).toEqual({ hash: 'abc', shape: null, made: null, print: null });
  });
});

describe('stock numbers', () => {
  const rule = { min: 4, max: 40, once: true };

  test.each([
    ['C1-100', 0, 'C1-100'],
    ['C1/100.b', 0, 'C1-100-b'],
    ['A1', 0, 'N-A1'],
    ['7', 0, 'N-07'],
    ['C1-100', 1, 'C1-100-2'],
    ['C1-100', 2, 'C1-100-3'],
    ['x'.repeat(40), 1, `${'x'.repeat(38)}-2`],
  ])('%s made %i times before is %s', (sku, times, expected) =>
    expect(fitStockNumber(sku, rule, times)).toBe(expected),
  );

  test('always in the letters and length that are wanted, and never the same twice', () => {
    const sku = fc.stringMatching(/^[A-Za-z0-9][A-Za-z0-9.\-/]{0,39}$/);
    fc.assert(
      fc.property(sku, fc.integer({ min: 0, max: 50 }), (one, times) => {
        const made = fitStockNumber(one, rule, times);
        expect(made).toMatch(/^[A-Za-z0-9-]{4,40}$/);
        expect(fitStockNumber(one, rule, times + 1)).not.toBe(made);
      }),
    );
  });
});

describe('titles by pattern', () => {
  const item = (title: string, brand = 'Brask', model = 'K-2') => ({ title, brand, model, category: 'cameras/slr' });

  test.each([
    ['Brask K-2 black 35 mm SLR film camera, 1970s', 'Black', 'Brask K 2 35 mm SLR film camera 1970s (Black)'],
    ['SLR camera by Brask!', '', 'Brask K 2 SLR camera by'],
    ['Saltmark Harbour 200 film 35 mm, ISO 200', '', 'Brask K 2 Saltmark Harbour 200 film 35 mm ISO 200'],
  ])('%j in %j', (title, colour, expected) => expect(productTitle(item(title), colour, 110).text).toBe(expected));

  test('a number that the model holds is taken out once only', () => {
    const film = item('Saltmark Harbour 200 colour film 35 mm, ISO 200', 'Saltmark', 'Harbour 200');
    expect(productTitle(film, '', 110).text).toBe('Saltmark Harbour 200 colour film 35 mm ISO 200');
  });

  test('a model that begins with the brand does not say it twice', () => {
    expect(productTitle(item('Brask K-2 manual', 'Brask', 'Brask K-2 manual'), '', 110).text).toBe('Brask K 2 manual');
  });

  test('letters, digits and blanks only, the colour last, within the limit', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), fc.constantFrom('', 'Jet', 'Dark Blue'), (title, colour) => {
        const { text } = productTitle(item(title), colour, 60);
        expect(textLength(text)).toBeLessThanOrEqual(60);
        expect(text).toMatch(/^[\p{L}\p{N} ]+(\([\p{L}\p{N} ]+\))?$/u);
        if (colour) expect(text.endsWith(`(${colour})`)).toBe(true);
      }),
    );
  });
});

describe('ways to say the title', () => {
  const item = sampleItem({
    title: 'Brask K-2 black 35 mm SLR film camera with 50 mm lens, 1970s, tested and working',
    attributes: { 'Film format': '35 mm', Colour: 'Black', Decade: '1970s' },
  });

  test('the words shortened, what it is alone, and one built from attributes, each with what it loses', () => {
    const versions = titleVersions(item, 45);
    expect(versions).toHaveLength(3);
    expect(versions.map((one) => one.why)).toEqual([
      'your words, the least telling left out',
      'what it is, without what follows the comma',
      'built from brand, model and attributes',
    ]);
    expect(versions[2]?.text).toBe('Brask K-2 SLR 35 mm Black 1970s');
    expect(versions[2]?.lost).toEqual(['film', 'camera', 'with', '50', 'lens', 'tested', 'and', 'working']);
  });

  test('a title that fits is offered as it is, and nothing twice', () => {
    const short = sampleItem({ title: 'Brask K-2', attributes: {}, category: '' });
    expect(titleVersions(short, 45)).toEqual([{ text: 'Brask K-2', lost: [], why: 'your words' }]);
  });
});

test('the longest side and the shortest side have their own least', () => {
  const rules = { min: 1, max: 8, minLongestSide: 600, minShortestSide: 300 };
  expect(isTooSmall({ width: 900, height: 400 }, rules)).toBe(false);
  expect(isTooSmall({ width: 900, height: 200 }, rules)).toBe(true);
  expect(isTooSmall({ width: 500, height: 500 }, rules)).toBe(true);
});
