import fc from 'fast-check';
import { ownField } from '../field/custom-field';
import { sampleItem } from '../testing.test-data';
import {
  type CustomField,
  copyForNew,
  customFieldFault,
  isoWeek,
  isShownFor,
  ownText,
  readSkuPattern,
  type SkuFacts,
  seqOf,
  skuFrame,
  skuIn,
  skuPattern,
  wordsToReplace,
} from '.';

const facts: SkuFacts = {
  location: 'B 12',
  supplier: 'Quay auction',
  brand: 'Brask',
  category: 'cameras/slr',
  day: new Date('2026-11-23T10:00:00Z'),
};
const numberBy = (pattern: string, seq: number, part: Partial<SkuFacts> = {}) => {
  const read = readSkuPattern(pattern);
  if ('problem' in read) throw new Error(read.problem);
  return skuIn(skuFrame(read.parts, { ...facts, ...part }), seq);
};

test.each([
  ['{bin}-{yy}{week}-{seq}', 7, 'B12-2648-0007'],
  ['GH-{seq}', 42, 'GH-0042'],
  ['{brand:3}/{category}/{seq:2}', 3, 'BRA/SLR/03'],
  ['{yyyy}.{mm}.{dd}-{seq:1}', 12, '2026.11.23-12'],
  ['{seq:3}{supplier:2}', 5, '005QU'],
])('%s gives %s', (pattern, seq, sku) => expect(numberBy(pattern, seq)).toBe(sku));

test.each([
  ['{bin}-{yy}{week}-{seq}', '2648-0007'],
  ['A-{bin}-{seq}', 'A-0007'],
  ['{bin}{supplier}-{seq}', '0007'],
])('an empty part of %s goes with its sign: %s', (pattern, sku) =>
  expect(numberBy(pattern, 7, { location: '', supplier: '' })).toBe(sku),
);

test.each([
  ['no number', 'GH-'],
  ['two numbers', '{seq}-{seq}'],
  ['an unknown part', '{shelf}-{seq}'],
  ['a sign that cannot stand there', 'GH_{seq}'],
])('%s is refused', (_what, pattern) => expect(readSkuPattern(pattern)).toHaveProperty('problem'));

test('the running number is found again in every stock number it made, and the number may stand', () => {
  const text = fc.string({ maxLength: 12 });
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 999_999 }), text, text, (seq, location, supplier) => {
      const read = readSkuPattern('{bin}-{supplier:4}{yy}{week}-{seq}');
      if ('problem' in read) throw new Error(read.problem);
      const frame = skuFrame(read.parts, { ...facts, location, supplier });
      const sku = skuIn(frame, seq);
      expect(seqOf(frame, sku)).toBe(seq);
      expect(sku).toMatch(skuPattern);
    }),
  );
});

test.each([
  ['2026-01-01', 1],
  ['2027-01-03', 53],
  ['2024-12-30', 1],
  ['2026-11-23', 48],
])('%s lies in week %i', (day, week) => expect(isoWeek(new Date(`${day}T12:00:00Z`))).toBe(week));

const field = (part: Partial<CustomField>): CustomField => ({
  key: 'shelf',
  label: 'Shelf',
  type: 'text',
  choices: [],
  most: null,
  from: null,
  to: null,
  category: '',
  copied: true,
  ...part,
});

test.each([
  [{ type: 'text', most: 3 }, 'abcd', 'at most 3'],
  [{ type: 'number', from: 1, to: 5 }, 9, 'at most 5'],
  [{ type: 'number', from: 1, to: 5 }, 0, 'at least 1'],
  [{ type: 'number' }, 'x', 'is a number'],
  [{ type: 'choice', choices: ['a', 'b'] }, 'c', 'one of its list'],
  [{ type: 'date' }, '2026-13-01', 'is a date'],
  [{ type: 'tags', most: 1 }, ['a', 'b'], 'at most 1'],
] as [Partial<CustomField>, never, string][])('%j refuses %j', (part, value, said) =>
  expect(customFieldFault(field(part), value)).toContain(said),
);

test.each([
  [{ type: 'number' }, '3,5', { value: 3.5 }],
  [{ type: 'number' }, 'x', { problem: 'Shelf is a number' }],
  [{ type: 'tags' }, 'a, b,,c', { value: ['a', 'b', 'c'] }],
  [{ type: 'date' }, ' 2026-11-23 ', { value: '2026-11-23' }],
  [{ type: 'text' }, '', { value: null }],
] as [Partial<CustomField>, string, object][])('%j reads %j', (part, typed, result) => {
  const read = ownField(field(part)).read(typed, { currency: 'EUR' });
  expect(read).toEqual(result);
  if ('value' in read) expect(customFieldFault(field(part), read.value)).toBeNull();
});

test('a field of one category is shown there and below', () => {
  expect(isShownFor(field({ category: 'cameras' }), 'cameras/slr')).toBe(true);
  expect(isShownFor(field({ category: 'cameras' }), 'camerasets')).toBe(false);
  expect(isShownFor(field({}), '')).toBe(true);
  expect(ownText(['a', 'b'])).toBe('a, b');
});

test('a copy drops own fields that are not to be copied, numbers and stock of variations, and the expiry date', () => {
  const copy = copyForNew(
    sampleItem({
      own: { shelf: 'x', serial: '123' },
      expiresOn: '2027-01-01',
      axes: [{ name: 'Colour', values: ['black'] }],
      variations: [{ values: ['black'], on: true, sku: 'V-1', quantity: 4, price: null, barcode: '', key: 'c1' }],
    }),
    [field({}), field({ key: 'serial', copied: false })],
  );
  expect(copy).toMatchObject({ own: { shelf: 'x' }, expiresOn: null });
  expect(copy.variations).toEqual([
    { values: ['black'], on: true, sku: '', quantity: 0, price: null, barcode: '', key: '' },
  ]);
});

test.each([
  ['Brask K-2 black SLR', 'Brask', 'K-2', 'K-2'],
  ['Brask camera, black', 'Brask', 'K-9', 'camera, black'],
  ['Strap', '', '', 'Strap'],
  ['Brask', 'Brask', '', ''],
])('in a copy of “%s” the words to replace are found', (title, brand, model, words) => {
  const { from, to } = wordsToReplace({ title, brand, model });
  expect(title.slice(from, to)).toBe(words);
});
