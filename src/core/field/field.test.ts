import fc from 'fast-check';
import { type CustomField, combinationKey, combinations } from '../item';
import type { Json } from '../json';
import { sampleItem, sampleRules } from '../testing.test-data';
import {
  brief,
  combinationFields,
  type Field,
  fieldsFor,
  fieldValue,
  itemFieldEntries,
  type Kind,
  makeField,
  withFieldValue,
} from '.';

const euro = { currency: 'EUR' };
const custom = (part: Partial<CustomField>): CustomField => ({
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
const rules = sampleRules({
  extras: [
    { id: 'offers', label: 'Offers', type: 'boolean' },
    { id: 'section', label: 'Section', type: 'choice', values: [{ id: 's1', label: 'Cameras, used' }] },
    {
      id: 'styles',
      label: 'Styles',
      type: 'choices',
      values: [
        { id: 'a', label: 'b' },
        { id: 'b', label: 'Bold' },
      ],
    },
    { id: 'decline', label: 'Decline below', type: 'money' },
    { id: 'days', label: 'Handling time', type: 'integer' },
    { id: 'from', label: 'Sale from', type: 'date' },
    { id: 'contents', label: 'Contents', type: 'list' },
    { id: 'prompt', label: 'Prompt', type: 'text' },
  ].map((one) => ({ required: false, values: null, maxLength: null, maxItems: null, fallback: null, ...one }) as never), // the parts that fields are made of
});
const catalogue = fieldsFor(
  [
    custom({}),
    custom({ key: 'story', type: 'long', label: 'Story' }),
    custom({ key: 'grams', type: 'number', label: 'Silver', from: 0, to: 50 }),
    custom({ key: 'line', type: 'choice', label: 'Line', choices: ['one', 'two, three'] }),
    custom({ key: 'seen', type: 'date', label: 'Seen' }),
    custom({ key: 'marks', type: 'tags', label: 'Marks', most: 4 }),
  ],
  rules,
);
const attribute = catalogue.item('attributes.Film format');
const fields = [...catalogue.fields, ...(attribute ? [attribute] : [])];

const word = fc
  .string({ minLength: 1, maxLength: 12 })
  .map((one) => one.trim().replace(/\n/g, ' '))
  .filter(Boolean);
const day = fc
  .date({ min: new Date('1900-01-01'), max: new Date('2100-12-31'), noInvalidDate: true })
  .map((one) => one.toISOString().slice(0, 10));
const hash = fc
  .array(fc.constantFrom(...'0123456789abcdef'), { minLength: 64, maxLength: 64 })
  .map((one) => one.join(''));
const money = fc.integer({ min: 0, max: 9_999_999_99 });
const rule = fc.option(
  fc.record({
    kind: fc.constantFrom('own' as const, 'difference' as const),
    amount: fc.integer({ min: 0, max: 1_000_000 }),
  }),
  { nil: null },
);

/** Values of a kind as a person may have left them. */
function valuesOf(kind: Kind): fc.Arbitrary<Json> {
  switch (kind.is) {
    case 'text':
    case 'rich':
      return fc.string({ maxLength: Math.min(kind.most, 60) });
    case 'money':
      return money;
    case 'whole':
      return fc.integer({ min: Math.max(kind.least, -1_000_000), max: Math.min(kind.most, 1_000_000) });
    case 'number':
      return fc.double({ min: kind.least ?? -1e9, max: kind.most ?? 1e9, noNaN: true }).map((one) => one + 0);
    case 'weight':
      return fc.integer({ min: 0, max: 1_000_000 });
    case 'length':
      return fc.integer({ min: 0, max: 20_000 });
    case 'size':
      return fc.tuple(...[1, 2, 3].map(() => fc.integer({ min: 0, max: 20_000 })));
    case 'date':
      return day;
    case 'choice':
      return fc.constantFrom(...kind.choices.map((one) => one.id));
    case 'boolean':
      return fc.boolean();
    case 'list':
      return kind.choices
        ? fc.subarray(kind.choices.map((one) => one.id))
        : fc.array(word, { maxLength: Math.min(kind.most, 5) });
    case 'map':
      return fc.dictionary(word, word, { maxKeys: 4 });
    case 'clip':
      return fc.oneof(fc.constant(''), hash);
    case 'photos':
      return fc.array(hash, { maxLength: 3 });
    case 'axes':
      return fc.uniqueArray(fc.record({ name: word, values: fc.uniqueArray(word, { minLength: 1, maxLength: 3 }) }), {
        maxLength: 2,
        selector: (one) => one.name,
      });
    case 'priceRule':
      return rule;
    case 'combinations':
      return fc.array(
        fc.record({
          values: fc.array(word, { minLength: 1, maxLength: 3 }),
          on: fc.boolean(),
          sku: fc.constantFrom('', 'ST-9', 'b/2.1'),
          quantity: fc.integer({ min: 0, max: 99 }),
          price: rule,
          barcode: fc.constantFrom('', '2044000000015'),
          key: fc.constantFrom('', 'c1', 'c2'),
        }),
        { maxLength: 4 },
      );
  }
}

const named = fields.map((field): [string, Field] => [`${field.on} ${field.id}`, field]);

describe.each(named)('%s', (_name, field) => {
  test('what is shown reads back the same', () => {
    fc.assert(
      fc.property(valuesOf(field.kind), (value) => {
        const read = field.read(field.show(value, euro), euro);
        if ('problem' in read) throw new Error(`${JSON.stringify(value)}: ${read.problem}`);
        expect(field.same(read.value, value)).toBe(true);
      }),
    );
  });

  test('what is written fits its schema, and nothing written is its empty value', () => {
    fc.assert(
      fc.property(valuesOf(field.kind), (value) => {
        expect(field.id === 'sku' || field.schema.safeParse(value).success).toBe(true);
      }),
    );
    expect(field.read('', euro)).toEqual({ value: field.empty });
    expect(field.label).not.toBe('');
  });

  test('a value is the same as itself and not as another', () => {
    fc.assert(
      fc.property(valuesOf(field.kind), valuesOf(field.kind), (a, b) => {
        expect(field.same(a, structuredClone(a))).toBe(true);
        expect(field.same(a, b)).toBe(field.same(b, a));
        if (field.show(a, euro) !== field.show(b, euro)) expect(field.same(a, b)).toBe(false);
      }),
    );
  });
});

const itemFields = fields.filter((field) => field.on === 'item');

test('a field of an item that is written is what it was written, and no other field changes', () => {
  for (const field of itemFields) {
    if (field.id === 'photos' || field.id === 'flaws') continue;
    fc.assert(
      fc.property(valuesOf(field.kind), (value) => {
        const before = sampleItem();
        const after = withFieldValue(before, field.id, value);
        expect(field.same(fieldValue(after, field.id), value)).toBe(true);
        for (const other of itemFields) {
          const related = other.id.startsWith(`${field.id}.`) || field.id.startsWith(`${other.id}.`);
          if (other !== field && !related) expect(fieldValue(after, other.id)).toEqual(fieldValue(before, other.id));
        }
      }),
      { numRuns: 20 },
    );
  }
});

test('photos and the words of their flaws are two fields', () => {
  const before = sampleItem();
  const [photo] = before.photos;
  if (!photo) throw new Error('the sample has a photo');
  const other = { ...photo, hash: 'b'.repeat(64) };
  const both = withFieldValue(before, 'photos', [other.hash, photo.hash], [other]);
  expect(fieldValue(both, 'photos')).toEqual([other.hash, photo.hash]);
  const flawed = withFieldValue(both, 'flaws', { [photo.hash]: 'a scratch' });
  expect(fieldValue(flawed, 'flaws')).toEqual({ [photo.hash]: 'a scratch' });
  expect(fieldValue(flawed, 'photos')).toEqual([other.hash, photo.hash]);
});

test.each([
  ['price', '12,50', { value: 1_250 }],
  ['price', 'cheap', { problem: 'This is not an amount' }],
  ['weightGrams', '1 lb 3 oz', { value: 539 }],
  ['lengthMm', '7 1/2 in', { value: 191 }],
  ['condition', 'very good', { value: 'very-good' }],
  ['condition', 'shiny', { problem: '“shiny” is not in the list' }],
  ['boughtOn', '2026-02-30', { problem: 'Write 2026-11-23' }],
  ['keywords', 'film, slr,\n', { value: ['film, slr,'] }],
  ['keywords', 'film, slr', { value: ['film', 'slr'] }],
  ['own.grams', '51', { problem: 'Silver is at most 50' }],
  ['own.grams', '4,5', { value: 4.5 }],
  ['own.marks', '', { value: null }],
  ['attributes', 'Colour: black\nMount', { problem: 'Write “Mount: …”' }],
])('%s reads “%s” as %j', (id, text, result) => expect(catalogue.item(id)?.read(text, euro)).toEqual(result));

test.each([
  ['extra.section', 'cameras, USED', { value: 's1' }],
  ['extra.styles', 'b', { value: ['b'] }],
  ['extra.offers', 'no', { value: false }],
  ['size', '30 x 20 x 12,5 cm', { value: [300, 200, 125] }],
])('on a listing %s reads “%s” as %j', (id, text, result) =>
  expect(catalogue.listing(id)?.read(text, euro)).toEqual(result),
);

test('a value in a row is short: amounts with their currency, pictures and combinations counted', () => {
  expect(brief({ is: 'money' }, 14_900, { currency: 'SGD' })).toContain('SGD');
  expect(brief({ is: 'photos' }, ['a', 'b'], euro)).toBe('2 photos');
  expect(brief({ is: 'combinations' }, { rows: [{}] }, euro)).toBe('1 combination');
  expect(brief({ is: 'rich', most: 9 }, '<p>Fine <b>thing</b></p>', euro)).toBe('Fine thing');
});

test('there is no field that nobody named', () => {
  expect(catalogue.item('nothing')).toBeUndefined();
  expect(catalogue.item('attributes.')).toBeUndefined();
  expect(catalogue.listing('extra.nothing')).toBeUndefined();
  expect(catalogue.listing('nothing')).toBeUndefined();
  expect(catalogue.combination('title')).toBeUndefined();
  expect(fieldsFor().listing('extra.any')?.label).toBe('Any');
});

test('combinations keep their keys through text', () => {
  const axes = [{ name: 'Colour', values: ['red | or / so', 'black'] }];
  const rows = combinations(axes).map((values, index) => ({
    values,
    on: true,
    sku: '',
    quantity: index,
    price: null,
    barcode: '',
    key: `c${index}`,
  }));
  const field = catalogue.item('variations');
  expect(field?.read(field.show(rows, euro), euro)).toEqual({ value: rows });
  expect(new Set(rows.map((row) => combinationKey(row.values))).size).toBe(2);
  expect(Object.keys(combinationFields)).toEqual(['on', 'sku', 'quantity', 'price', 'barcode']);
  expect(itemFieldEntries.sku.traits.identifies).toBe(true);
});

test('a field without a schema of its own takes what its kind takes, or nothing', () => {
  const count = makeField('item', 'own.count', { label: 'Count', kind: { is: 'whole', least: 1, most: 9 } });
  expect(count.schema.safeParse(null).success).toBe(true);
  expect(count.schema.safeParse(5).success).toBe(true);
  expect(count.schema.safeParse(12).success).toBe(false);
});

test('what is read is judged at once: an amount, a weight or a length beyond every measure is refused', () => {
  const read = (id: string, text: string) => fieldsFor().item(id)?.read(text, { currency: 'EUR' });
  expect(read('price', '100,000,000.01')).toEqual({ problem: 'At most 100,000,000' });
  expect(read('price', '100,000,000')).toEqual({ value: 10_000_000_000 });
  expect(read('weightGrams', '2000 kg')).toHaveProperty('problem');
  expect(read('lengthMm', '90 m')).toHaveProperty('problem');
});
