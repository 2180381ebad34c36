import fc from 'fast-check';
import { sampleItem } from '../testing.test-data';
import { computedWording, type Proposal, type WordingField, type WordingWish } from '.';

const wish = (part: Partial<WordingWish> = {}): WordingWish => ({
  item: sampleItem({ attributes: { 'Film format': '35 mm', Colour: 'black', Tested: 'Yes', Lightmeter: 'works' } }),
  field: 'title',
  maxLength: 75,
  maxItems: 6,
  searches: { rangefinder: 900, film: 40, slr: 4_000, black: 12 },
  categoryWords: ['Photography', 'Film cameras'],
  ...part,
});
const propose = (part: Partial<WordingWish> = {}) => computedWording.propose(wish(part)) as Proposal; // the built-in one answers at once

test('a title says brand, model and what it is first, every word with its reason', () => {
  const { value, parts } = propose();
  expect(value).toMatch(/^Brask K-2 SLR /);
  expect(value).toContain('35 mm');
  expect(parts[0]).toEqual({ text: 'Brask', why: 'the brand' });
  expect(parts[2]?.why).toContain('4,000 times');
});

test('tags: what buyers look for comes first, no word twice by meaning', () => {
  const { value } = propose({ field: 'tags', maxLength: 24, maxItems: 4 });
  expect(value).toHaveLength(4);
  expect((value as string[])[0]).toBe('slr');
});

test('highlights come from attributes; what is not so is no highlight', () => {
  const { value } = propose({
    field: 'highlights',
    maxLength: 60,
    item: sampleItem({ attributes: { Tested: 'yes', Strap: 'no', Colour: 'black' } }),
  });
  expect(value).toEqual(['Condition: very good', 'Tested', 'Colour: black']);
});

test('a description holds the attributes, and markup in them is not markup', () => {
  const { value } = propose({
    field: 'description',
    maxLength: 2_000,
    item: sampleItem({ attributes: { Colour: '<b>black</b>' } }),
  });
  expect(value).toContain('<li>Colour: &lt;b&gt;black&lt;/b&gt;</li>');
});

test('an item that says nothing gets no proposal', () => {
  const empty = sampleItem({
    title: '',
    brand: '',
    model: '',
    category: '',
    condition: null,
    attributes: {},
    keywords: [],
  });
  for (const field of ['title', 'tags', 'highlights', 'description'] as const)
    expect(propose({ item: empty, field, categoryWords: [] }).parts).toEqual([]);
});

test('limits hold whatever the item says, and the parts make up the value', () => {
  const words = fc.string({ maxLength: 30, unit: 'grapheme' });
  fc.assert(
    fc.property(
      words,
      words,
      fc.dictionary(words.filter(Boolean), words, { maxKeys: 6 }),
      fc.array(words, { maxLength: 8 }),
      fc.integer({ min: 5, max: 120 }),
      fc.constantFrom<WordingField>('title', 'tags', 'highlights', 'description'),
      (brand, model, attributes, keywords, maxLength, field) => {
        const item = sampleItem({ brand, model, attributes, keywords });
        const { value, parts } = propose({ item, field, maxLength, maxItems: 3 });
        if (Array.isArray(value)) {
          expect(value.length).toBeLessThanOrEqual(3);
          for (const one of value) expect([...one].length).toBeLessThanOrEqual(maxLength);
        } else expect([...value].length).toBeLessThanOrEqual(maxLength);
        for (const part of parts) expect(part.why).not.toBe('');
      },
    ),
  );
});
