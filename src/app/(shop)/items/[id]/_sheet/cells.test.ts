import type { SheetField } from '@/services/items/item-sheet';
import { readTyped } from './read-typed';
import { shown, written } from './shown';

const euro = { currency: 'EUR' };
const field = (part: Partial<SheetField>): SheetField => ({
  field: 'extra.some',
  label: 'Some',
  value: null,
  origin: 'master',
  issues: [],
  type: 'text',
  ...part,
});
const choices = [
  { id: 'as-new', label: 'As new' },
  { id: 'good', label: 'Good' },
];

test.each([
  [{ type: 'money', value: 14_900 }, '€149.00'],
  [{ field: 'weightGrams', type: 'whole', value: 1_250 }, '1.25 kg'],
  [{ field: 'size', type: 'size', value: [300, 200, 125] }, '30 × 20 × 12.5 cm'],
  [{ type: 'photos', value: ['a'] }, '1 photo'],
  [{ type: 'photos', value: ['a', 'b'] }, '2 photos'],
  [{ type: 'variations', value: { rows: [] }, length: 96 }, '96 combinations'],
  [{ type: 'boolean', value: true }, 'Yes'],
  [{ type: 'boolean', value: false }, 'No'],
  [{ type: 'choice', value: 'good', choices }, 'Good'],
  [{ type: 'choice', value: 'gone', choices }, 'gone'],
  [{ type: 'choices', value: ['good', 'as-new'], choices }, 'Good, As new'],
  [{ type: 'list', value: ['one', 'two'] }, 'one, two'],
  [{ field: 'description', type: 'rich', value: '<p>Fine <b>thing</b></p>' }, 'Fine thing'],
  [{ value: '' }, ''],
  [{ value: null }, ''],
] as [Partial<SheetField>, string][])('%j reads “%s”', (part, text) => expect(shown(field(part), euro)).toBe(text));

test.each([
  [{ type: 'money', value: 14_950 }, '149.50'],
  [{ type: 'money', value: null }, ''],
  [{ field: 'weightGrams', type: 'whole', value: 540 }, '540 g'],
  [{ type: 'size', value: [300, 200, 125] }, '30 x 20 x 12.5 cm'],
  [{ type: 'list', value: ['one', 'two'] }, 'one, two'],
  [{ type: 'whole', value: 7 }, '7'],
] as [Partial<SheetField>, string][])('%j is written and copied as “%s”', (part, text) =>
  expect(written(field(part), euro)).toBe(text),
);

test.each([
  [{ type: 'money' }, '149,50', 14_950],
  [{ field: 'weightGrams', type: 'whole' }, '1 lb 3 oz', 539],
  [{ type: 'whole' }, ' 12 ', 12],
  [{ field: 'size', type: 'size' }, '30 x 20 x 12,5 cm', [300, 200, 125]],
  [{ type: 'list' }, 'one, two\nthree,', ['one', 'two', 'three']],
  [{ type: 'boolean' }, 'Yes', true],
  [{ type: 'boolean' }, 'off', false],
  [{ type: 'choice', choices }, 'as NEW', 'as-new'],
  [{ type: 'choice', choices }, 'good', 'good'],
  [{ type: 'date' }, '2026-11-23', '2026-11-23'],
  [{ type: 'long' }, '  kept as typed ', '  kept as typed '],
] as [Partial<SheetField>, string, unknown][])('%j reads “%s”', (part, typed, value) =>
  expect(readTyped(field(part), euro, typed)).toEqual({ value }),
);

test.each([
  [{ type: 'money' }, 'much'],
  [{ field: 'weightGrams', type: 'whole' }, 'heavy'],
  [{ type: 'whole' }, '1.5'],
  [{ type: 'size', field: 'size' }, '30 cm'],
  [{ type: 'boolean' }, 'perhaps'],
  [{ type: 'choice', choices }, 'better'],
  [{ type: 'date' }, 'tomorrow'],
] as [Partial<SheetField>, string][])('%j refuses “%s” with a sentence', (part, typed) =>
  expect(readTyped(field(part), euro, typed)).toEqual({ problem: expect.stringMatching(/\w/) }),
);

test('what is copied out of a cell can be pasted back', () => {
  for (const one of [
    field({ type: 'money', value: 12_345 }),
    field({ field: 'weightGrams', type: 'whole', value: 1_234 }),
    field({ field: 'size', type: 'size', value: [305, 216, 102] }),
    field({ type: 'list', value: ['one', 'two words'] }),
    field({ type: 'choice', value: 'as-new', choices }),
    field({ type: 'date', value: '2027-01-31' }),
  ])
    expect(readTyped(one, euro, written(one, euro))).toEqual({ value: one.value });
});
