import { SaxesParser } from 'saxes';
import { atomOf, nextTryMinutes, type Summary, titleOf, wordsOf } from '.';

const lines = [
  { says: 'Sold more than there was', mend: 'Cancel one', count: 1, atStake: 12_900, isUrgent: true },
  { says: 'A refusal of <b> & "more"', mend: 'Mend it', count: 1_200, atStake: null, isUrgent: false },
];
const day: Summary = { day: '2026-11-28', madeAt: '2026-11-28T07:00:00.000Z', lines };

test('a day is said in one line, and in a line each', () => {
  expect(titleOf(day)).toBe('2026-11-28: 2 things need you, 1 at once');
  expect(titleOf({ ...day, lines: lines.slice(1) })).toBe('2026-11-28: one thing needs you');
  expect(titleOf({ ...day, lines: [] })).toBe('2026-11-28: nothing needs you');
  expect(wordsOf(day)).toBe(
    'Sold more than there was (1, €129.00 in it): Cancel one\nA refusal of <b> & "more" (1,200): Mend it',
  );
});

test('the feed is well-formed Atom whatever the words are, with an id for every day', () => {
  const seen: string[] = [];
  let text = '';
  const parser = new SaxesParser({ xmlns: true });
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('opentag', (tag) => seen.push(`${tag.uri === 'http://www.w3.org/2005/Atom' ? '' : '?'}${tag.name}`));
  parser.on('text', (some) => {
    text += some;
  });
  const where = { self: 'https://shop.example/api/feed/k?a=1&b=2', home: 'https://shop.example', host: 'shop.example' };
  parser.write(atomOf([day, { ...day, day: '2026-11-27' }], where)).close();
  expect(seen.filter((one) => one === 'entry')).toHaveLength(2);
  for (const needed of ['feed', 'id', 'title', 'updated', 'author', 'link']) expect(seen).toContain(needed);
  expect(text).toContain('A refusal of <b> & "more"');
  expect(text).toContain('tag:shop.example,2026-11-27:attention');
  expect(atomOf([], where)).toContain('<updated>');
});

test('what does not get through is tried again later and later, and given up after some hours', () => {
  expect([1, 2, 3, 4, 5, 6].map(nextTryMinutes)).toEqual([5, 10, 20, 40, 80, null]);
});
