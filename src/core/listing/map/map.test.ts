import { compileRules } from '../../rules';
import { noSynonyms, sampleItem, sampleRules } from '../../testing.test-data';
import {
  certainCategory,
  knownProduct,
  mapAttribute,
  productKeys,
  productOf,
  type Synonyms,
  suggestCategories,
} from '..';

const tree = (...paths: string[]) => {
  const categories = paths.map((path, index) => {
    const parts = path.split(' > ');
    return { id: String(index + 1), name: parts.at(-1) ?? '', path: parts, leaf: true, attributes: [] };
  });
  return compileRules(sampleRules({ categories }));
};

describe('categories', () => {
  const photo = tree(
    'Photo > Mirror reflex cameras',
    'Photo > Viewfinder cameras',
    'Photo > Reflex optics',
    'Photo > Monochrome film',
    'Reading > Handbooks and instructions',
    'Bags > Neck and wrist straps',
  );
  const best = (ownCategory: string, title = '', earlier = {}) =>
    suggestCategories(photo, { ownCategory, title }, earlier)[0];

  test.each([
    ['cameras/slr', 'Brask K-2', 'Mirror reflex cameras'],
    ['cameras/rangefinder', '', 'Viewfinder cameras'],
    ['film/black-and-white', '', 'Monochrome film'],
    ['books/manuals', 'Instruction manual', 'Handbooks and instructions'],
    ['straps', 'Leather camera strap', 'Neck and wrist straps'],
    ['', 'Reflex camera with mirror', 'Mirror reflex cameras'],
  ])('%j with title %j is %s', (own, title, name) => expect(best(own, title)?.path.at(-1)).toBe(name));

  test('how certain the best is follows from the second; nothing said is nothing suggested', () => {
    const said = { ownCategory: 'cameras/slr', title: 'Brask K-2' };
    const [first, second] = suggestCategories(photo, said, {}, 2);
    const found = certainCategory(photo, said);
    const share = (100 * (first?.score ?? 0)) / ((first?.score ?? 0) + (second?.score ?? 0));
    expect(found).toEqual({ id: first?.id, certainty: Math.round(share) });
    expect(found?.certainty).toBeGreaterThanOrEqual(50);
    expect(found?.certainty).toBeLessThan(100);
    expect(certainCategory(photo, { ownCategory: '', title: '' })).toBeNull();
  });

  test('at most three, best first, each with its reason', () => {
    const all = suggestCategories(photo, { ownCategory: 'cameras/slr', title: 'film camera' });
    expect(all.length).toBeLessThanOrEqual(3);
    expect(all.every((one) => one.why.startsWith('shares '))).toBe(true);
    expect(all.map((one) => one.score)).toEqual([...all.map((one) => one.score)].sort((a, b) => b - a));
  });

  test('an earlier choice for a neighbour counts, and says so', () => {
    const without = suggestCategories(photo, { ownCategory: 'cameras/odd', title: 'camera' });
    const chosen = suggestCategories(photo, { ownCategory: 'cameras/odd', title: 'camera' }, { 'cameras/slr': '2' });
    expect(chosen[0]?.id).toBe('2');
    expect(chosen[0]?.why).toContain('chosen before for cameras/slr');
    expect(chosen[0]?.score).toBeGreaterThan(without.find((one) => one.id === '2')?.score ?? 99);
  });

  test('a brand is no kind of thing, and filler words say nothing', () => {
    expect(suggestCategories(photo, { ownCategory: '', title: 'Film and more', brand: 'Film' })).toEqual([]);
    expect(suggestCategories(photo, { ownCategory: '', title: 'the old and the new' })).toEqual([]);
  });

  test('words that every object knows find nothing', () =>
    expect(suggestCategories(photo, { ownCategory: 'constructor', title: 'toString valueOf' })).toEqual([]));
});

describe('attributes', () => {
  const attribute = (part: { label: string; values?: string[] | null; id?: string }) => ({
    id: part.id ?? 'x',
    label: part.label,
    required: false,
    values: part.values ?? null,
    maxLength: 60,
  });
  const rules = compileRules(sampleRules());
  const map = (
    attributes: Record<string, string>,
    rule: Parameters<typeof attribute>[0],
    synonyms: Synonyms = noSynonyms,
  ) => mapAttribute(rules, attribute(rule), sampleItem({ attributes }), synonyms);

  test.each([
    [{ Colour: 'Black' }, { label: 'Colour' }, 'Black', 'same'],
    [{ colour: 'Black' }, { label: 'COLOUR' }, 'Black', 'same'],
    [{ Colour: 'Black' }, { label: 'Shade' }, 'Black', 'same'],
    [{ 'Film format': '35 mm' }, { label: 'Format' }, '35 mm', 'same'],
    [{ Decade: '1970s' }, { label: 'Era' }, '1970s', 'same'],
    [{ Colour: 'black' }, { label: 'Colour', values: ['Black', 'White'] }, 'Black', 'same'],
    [{ Colour: 'Multicoloured' }, { label: 'Colour', values: ['Mixed'] }, 'Mixed', 'like'],
    [
      { 'Film format': '35 mm' },
      { label: 'Film size', values: ['Small picture 35 mm', 'Sheet film'] },
      'Small picture 35 mm',
      'like',
    ],
    [{}, { label: 'Model' }, 'K-2', 'same'],
    [{}, { label: 'Brand' }, 'Brask', 'same'],
  ])('%j for %j is %s', (attributes, rule, value, how) =>
    expect(map(attributes as Record<string, string>, rule)).toEqual({ value, exact: true, how }),
  );

  test('what the list does not hold is told as such, what two entries hold as well', () => {
    expect(map({ Colour: 'Ultraviolet' }, { label: 'Colour', values: ['Black'] })).toMatchObject({ exact: false });
    expect(map({ Colour: 'Blue' }, { label: 'Colour', values: ['Dark blue', 'Light blue'] })).toMatchObject({
      value: 'Blue',
      exact: false,
    });
  });

  test('nothing said is nothing', () => expect(map({}, { label: 'Lens mount' })).toBeNull());

  test('a matched value and a matched name stand before everything', () => {
    const values = { x: { black: 'Jet' } };
    expect(map({ Colour: 'Black' }, { label: 'Colour', values: ['Jet', 'Black'] }, { names: {}, values })).toEqual({
      value: 'Jet',
      exact: true,
      how: 'learned',
    });
    expect(map({ Tint: 'Red', Colour: 'Black' }, { label: 'Colour' }, { names: { x: 'Tint' }, values: {} })).toEqual({
      value: 'Red',
      exact: true,
      how: 'learned',
    });
  });

  test('a matched value that their list no longer holds is not used', () =>
    expect(
      map({ Colour: 'Black' }, { label: 'Colour', values: ['Black'] }, { names: {}, values: { x: { black: 'Jet' } } }),
    ).toMatchObject({ value: 'Black' }));
});

describe('products', () => {
  const products = {
    'code:123': { id: 'A', name: 'By code', categoryId: null },
    'name:braskk2': { id: 'B', name: 'By name', categoryId: '7' },
  };

  test('a barcode stands before brand and model', () => {
    expect(productKeys({ barcode: '12-3', brand: 'Brask', model: 'K-2' })).toEqual(['code:123', 'name:braskk2']);
    expect(productKeys({ barcode: '', brand: 'Brask', model: '' })).toEqual([]);
    expect(productOf(products, { barcode: '123', brand: 'Brask', model: 'K-2' })?.id).toBe('A');
    expect(productOf(products, { barcode: '999', brand: 'Brask', model: 'K 2' })?.id).toBe('B');
    expect(productOf(products, { barcode: '', brand: 'Orvane', model: 'M4' })).toBeNull();
  });

  test('only what was found is known', () => {
    expect(knownProduct(products, 'A')?.id).toBe('A');
    expect(knownProduct(products, 'C')).toBeNull();
  });
});

test.each(['Country of origin', 'Origin', 'Made in'])(
  'the country of origin answers what is asked as “%s”',
  (label) => {
    const attribute = { id: 'country', label, required: false, values: null, maxLength: 40 };
    const compiled = compileRules(sampleRules());
    const item = sampleItem({ countryOfOrigin: 'Norvendal' });
    expect(mapAttribute(compiled, attribute, item, noSynonyms)).toMatchObject({ value: 'Norvendal', how: 'same' });
    expect(mapAttribute(compiled, attribute, sampleItem(), noSynonyms)).toBeNull();
    // An attribute of one's own of that name was written for this very piece.
    const own = { ...item, attributes: { [label]: 'Osterlund' } };
    expect(mapAttribute(compiled, attribute, own, noSynonyms)?.value).toBe('Osterlund');
  },
);
