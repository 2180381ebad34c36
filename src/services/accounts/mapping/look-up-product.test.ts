import { queryFor } from './look-up-product';

test.each([
  ['2044000000118', { gtin: '2044000000118' }],
  ['20 4400 0000 118', { gtin: '2044000000118' }],
  ['978-3-16-148410-0', { isbn: '9783161484100' }],
  ['316148410X', { isbn: '316148410X' }],
  ['9797440000104', { isbn: '9797440000104' }],
  ['Tessaly IIIc', { name: 'Tessaly IIIc' }],
  ['12345', { name: '12345' }],
])('%s asks a catalogue for %j', (typed, query) => expect(queryFor(typed)).toEqual(query));
