import { fieldName, shownValue } from './shown-value';

test.each([
  ['title', 'Title'],
  ['conditionNote', 'Condition note'],
  ['attr.film_format', 'Film format'],
  ['extra.place', 'Place'],
])('%s is called %s', (field, name) => expect(fieldName(field)).toBe(name));

test.each([
  ['title', 'Brask K-2', 'Brask K-2'],
  ['title', null, 'nothing'],
  ['title', '', 'nothing'],
  ['price', 14_900, '€149.00'],
  ['quantity', 0, '0'],
  ['extra.offers', true, 'Yes'],
  ['extra.offers', false, 'No'],
  ['tags', ['film', 'camera'], 'film, camera'],
  ['photos', ['a'], '1 photo'],
  ['photos', ['a', 'b'], '2 photos'],
  ['description', '<p>One.</p><ul><li>Two</li></ul>', 'One. • Two'],
  ['size', { lengthMm: 10 }, '{"lengthMm":10}'],
] as const)('%s %j is shown as %s', (field, value, text) =>
  expect(shownValue(field, value as Parameters<typeof shownValue>[1])).toBe(text),
);

test('a price is shown in the account’s own currency', () => {
  expect(shownValue('price', 21_490, 'SGD')).toContain('SGD');
});
