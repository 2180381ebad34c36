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
const axes = [
  { name: 'Colour', values: ['black', 'tan'] },
  { name: 'Length', values: ['90', '110'] },
];
type Named = { values: string[]; number: string } | null;
const sold = (variation: Named, quantity = 1, rows = variations, narrowing: Record<string, string> = {}) =>
  soldVariation({ axes, variations: rows }, { variation, quantity }, narrowing)?.values;

test('an order names the combination by its number before its values', () => {
  expect(sold({ number: 'A-3', values: ['black', '90'] })).toEqual(['tan', '90']);
  expect(sold({ number: '', values: ['black', '90'] })).toEqual(['black', '90']);
});

test('a marketplace that was told one axis names one value: a combination that is in stock is meant', () => {
  expect(sold({ number: '', values: ['110'] })).toEqual(['black', '110']);
  expect(sold({ number: '', values: ['black'] })).toEqual(['black', '90']);
  expect(sold({ number: '', values: ['90'] }, 2)).toEqual(['black', '90']);
});

test('what is not there is nobody’s; a single combination needs no name', () => {
  expect(sold({ number: '', values: ['green'] })).toBeUndefined();
  expect(sold(null)).toBeUndefined();
  expect(sold(null, 1, [row(['black', '90'])])).toEqual(['black', '90']);
});

test('what was switched off after it was sold is still what was sold', () => {
  expect(sold({ number: '', values: ['tan', '110'] })).toEqual(['tan', '110']);
  expect(sold(null, 1, variations, { Colour: 'tan', Length: '110' })).toEqual(['tan', '110']);
});

describe('of a listing that was narrowed', () => {
  test('to one combination: an order that names none is for it', () => {
    expect(sold(null, 1, variations, { Colour: 'tan', Length: '90' })).toEqual(['tan', '90']);
  });
  test('to one value: the order names the other axis, and the value that was chosen holds', () => {
    expect(sold({ number: '', values: ['90'] }, 1, variations, { Colour: 'tan' })).toEqual(['tan', '90']);
    expect(sold(null, 1, variations, { Length: '110' })).toEqual(['black', '110']);
    expect(sold(null, 1, variations, { Colour: 'black' })).toBeUndefined();
  });
  test('otherwise since the sale: what the order says is looked for everywhere', () => {
    expect(sold({ number: '', values: ['black'] }, 1, variations, { Colour: 'tan' })).toEqual(['black', '90']);
  });
});
