import type { Variation } from '../../core/item';
import { soldVariation } from './sold-variation';

const row = (values: string[], part: Partial<Variation> = {}): Variation => ({
  values,
  on: true,
  sku: '',
  quantity: 2,
  price: null,
  barcode: '',
  key: '',
  ...part,
});
const variations = [
  row(['black', '90'], { sku: 'A-1' }),
  row(['black', '110'], { quantity: 0 }),
  row(['tan', '90'], { sku: 'A-3' }),
  row(['tan', '110'], { on: false }),
];
const sold = (variation: { values: string[]; number: string } | null, quantity = 1, rows = variations) =>
  soldVariation({ variations: rows }, { variation, quantity })?.values;

test('an order names the combination by its number before its values', () => {
  expect(sold({ number: 'A-3', values: ['black', '90'] })).toEqual(['tan', '90']);
  expect(sold({ number: '', values: ['black', '90'] })).toEqual(['black', '90']);
});

test('a marketplace that was told one axis names one value: a combination that is in stock is meant', () => {
  expect(sold({ number: '', values: ['110'] })).toEqual(['black', '110']);
  expect(sold({ number: '', values: ['black'] })).toEqual(['black', '90']);
  expect(sold({ number: '', values: ['90'] }, 2)).toEqual(['black', '90']);
});

test('what is switched off or not there is nobody’s; a single combination needs no name', () => {
  expect(sold({ number: '', values: ['tan', '110'] })).toBeUndefined();
  expect(sold({ number: '', values: ['green'] })).toBeUndefined();
  expect(sold(null)).toBeUndefined();
  expect(sold(null, 1, [row(['black', '90'])])).toEqual(['black', '90']);
});
