import fc from 'fast-check';
import { textLength } from './text-length';
import { fitTitle } from './title';

const long = 'Tessaly IIIc silver coupled rangefinder 35 mm film camera, 1950s, tested and working';

test('a title that fits stays as it is', () => {
  expect(fitTitle('Brask K-2 camera', 45, ['Brask'])).toEqual({ text: 'Brask K-2 camera', lost: [] });
});

test('colours and filler go before what it is; a number keeps its unit', () => {
  const { text, lost } = fitTitle(long, 45, ['Tessaly', 'IIIc'], ['cameras/rangefinder']);
  expect(text).toBe('Tessaly IIIc rangefinder 35 mm camera, 1950s');
  expect(lost).toEqual(expect.arrayContaining(['silver', 'coupled', 'and']));
});

test('known abbreviations are used before words go', () => {
  expect(fitTitle('Brask telephoto lens without case inches', 30, ['Brask']).text).toBe('Brask tele lens w/o case in');
});

test('one word longer than the limit is cut, since nothing else is left', () => {
  expect(fitTitle('Supercalibratedphotometer', 10, []).text).toBe('Supercalib');
});

test('a number that leaves no place for its unit stands alone, the unit is not cut', () => {
  expect(fitTitle('12345678901 inch', 13, []).text).toBe('12345678901');
});

const word = fc.stringMatching(/^[A-Za-z0-9é]{1,12}$/);

test('no title passes the limit or breaks a word', () => {
  fc.assert(
    fc.property(fc.array(word, { minLength: 1, maxLength: 25 }), fc.integer({ min: 12, max: 80 }), (words, max) => {
      const { text } = fitTitle(words.join(' '), max, [words[0] ?? '']);
      const known = new Set([...words, ...words.flatMap((one) => [one.toLowerCase()])]);
      const short = new Set([
        'mm',
        'cm',
        'in',
        '&',
        'w/',
        'w/o',
        'exp',
        'auto',
        'tele',
        'cond',
        'exc',
        'pc',
        'pcs',
        'blk',
        'ed',
        'srv',
      ]);
      return textLength(text) <= max && text.split(' ').every((one) => known.has(one) || short.has(one) || one === '');
    }),
  );
});

test('the brand stays while a shorter word could go', () => {
  fc.assert(
    fc.property(fc.array(word, { minLength: 3, maxLength: 20 }), (words) =>
      fitTitle(['Brask', ...words].join(' '), 20, ['Brask']).text.startsWith('Brask'),
    ),
  );
});

test('shortening twice is the same as once', () => {
  fc.assert(
    fc.property(fc.array(word, { minLength: 1, maxLength: 20 }), (words) => {
      const once = fitTitle(words.join(' '), 30, []).text;
      return fitTitle(once, 30, []).text === once;
    }),
  );
});

test('words that every object knows are words like others', () => {
  const { text } = fitTitle('Brask constructor toString hasOwnProperty valueOf with a very long tail of words', 40, [
    'Brask',
  ]);
  expect(text).toMatch(/^Brask [\w ]+$/);
  expect(textLength(text)).toBeLessThanOrEqual(40);
});
