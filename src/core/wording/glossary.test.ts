import fc from 'fast-check';
import { sampleItem } from '../testing.test-data';
import { glossaryWording, translateByTerms } from './glossary';

const terms = [
  { from: 'boat', to: 'Boot' },
  { from: 'red boat', to: 'rotes Boot' },
  { from: 'harbour', to: 'Hafen' },
  { from: 'in the', to: 'im' },
];

test('whole words, the longest term first, a capital where there was one', () => {
  expect(translateByTerms('Red boat in the harbour, boats', terms)).toEqual({
    text: 'Rotes Boot im Hafen, boats',
    used: [terms[1], terms[3], terms[2]],
    left: 1,
  });
});

test('markup stays as it is, also where a term stands in it', () => {
  const { text } = translateByTerms('<p class="boat">A boat &amp; a <b>harbour</b></p>', terms);
  expect(text).toBe('<p class="boat">A Boot &amp; a <b>Hafen</b></p>');
});

test('signs of patterns in a term are signs; without terms nothing changes', () => {
  expect(translateByTerms('a (b) c', [{ from: '(b)', to: 'x' }]).text).toBe('a x c');
  fc.assert(
    fc.property(fc.string(), (text) => {
      expect(translateByTerms(text, []).text).toBe(text);
      expect(translateByTerms(text, [{ from: 'zzqqzz', to: 'y' }]).text).toBe(text);
    }),
  );
});

test('the proposal says what was put in and how much was left; without another language there is none', async () => {
  const item = sampleItem({ title: 'Red boat in the evening', keywords: ['boat', 'sea'] });
  const wish = { item, field: 'title' as const, maxLength: 80, maxItems: 1, searches: {}, categoryWords: [] };
  const made = await glossaryWording.propose({ ...wish, language: 'German', terms });
  expect(made.value).toBe('Rotes Boot im evening');
  expect(made.parts[0]?.why).toBe('word for word: red boat → rotes Boot, in the → im; 1 word has no term');
  expect((await glossaryWording.propose({ ...wish, terms })).parts).toEqual([]);
  const tags = await glossaryWording.propose({ ...wish, field: 'tags', maxItems: 12, language: 'German', terms });
  expect(tags.value).toEqual(['Boot', 'sea']);
});
