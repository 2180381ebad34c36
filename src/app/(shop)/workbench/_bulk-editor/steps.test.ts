import { argumentFault, onItem, type Step, stepSchema, type VerbName } from '@/core/edit';
import { fieldsFor, fixedFields, listingField } from '@/core/field';
import { accountsNamed } from './account-choice';
import { fieldsAt, isProblem, newStep, readStep, sameAt, withSet } from './steps';
import { writeStep } from './write-step';

const plain = fieldsFor();
/** Also with what stands in listings, as the workbench has it. */
const catalogueOfListings = {
  ...plain,
  fields: [...plain.fields, ...fixedFields.flatMap((id) => listingField(id) ?? [])],
};

const typed = (field: string, verb: VerbName, boxes: Record<string, string>) =>
  readStep(newStep(1, { field, verb, typed: boxes }), plain, argumentFault);

test.each([
  ['price', 'percent', { basisPoints: '-5' }, { basisPoints: -500 }],
  ['price', 'percent', { basisPoints: '+2,5 %' }, { basisPoints: 250 }],
  ['price', 'percent', { basisPoints: '−10', rounding: 'ninety', floor: '9,50' }, { rounding: 'ninety', floor: 950 }],
  ['price', 'amount', { amount: '-2.50' }, { amount: -250 }],
  ['price', 'set', { value: '19,99' }, { value: 1_999 }],
  ['price', 'formula', { formula: 'cost * 2' }, { formula: 'cost * 2' }],
  ['price', 'bounds', { least: '5' }, { least: 500, most: null }],
  ['quantity', 'add', { by: '+3' }, { by: 3 }],
  ['quantity', 'add', { by: '-1' }, { by: -1 }],
  ['quantity', 'set', { value: '0' }, { value: 0 }],
  ['weightGrams', 'add', { by: '-0,5 kg' }, { by: -500 }],
  ['title', 'before', { text: 'Sale:' }, { text: 'Sale: ' }],
  ['title', 'after', { text: ', checked' }, { text: ', checked' }],
  ['title', 'after', { text: 'checked' }, { text: ' checked' }],
  ['title', 'replace', { find: 'a ', put: '' }, { find: 'a ', put: '', as: 'words', matchCase: false }],
  ['keywords', 'add-to', { entries: 'one, two' }, { entries: ['one', 'two'], first: false }],
  ['condition', 'translate', { from: 'mint', to: 'excellent' }, { from: 'mint', to: 'excellent' }],
  ['boughtOn', 'shift', { days: '-7' }, { days: -7 }],
] as const)('%s, %s: what is typed becomes a step', (field, verb, boxes, expected) => {
  const step = typed(field, verb, boxes);
  expect(step).toMatchObject({ field, where: { on: 'item' }, do: { verb, ...expected } });
  // What the workbench sends is what the server takes.
  expect(stepSchema.safeParse(step).success).toBe(true);
});

test.each([
  ['price', 'percent', { basisPoints: '0' }, 'Type a percentage such as -5', 'basisPoints'],
  ['price', 'percent', { basisPoints: '-100' }, 'Between -98 and 1000 percent', 'basisPoints'],
  ['price', 'set', { value: 'dear' }, 'This is not an amount', 'value'],
  ['price', 'formula', { formula: 'cost *' }, 'Something is missing at the end', 'formula'],
  ['quantity', 'add', { by: 'many' }, expect.stringContaining('A whole number'), 'by'],
  ['title', 'replace', { find: '(a', as: 'pattern' }, expect.stringContaining('The pattern cannot be read'), 'find'],
  ['price', 'bounds', { least: '9', most: '5' }, 'The least is above the most', null],
] as const)('%s, %s %j: it is said what is wrong, and in which box', (field, verb, boxes, problem, input) => {
  const read = typed(field, verb, boxes);
  expect(read).toMatchObject({ problem, isOpen: false, ...(input ? { input } : {}) });
});

test('a box in which nothing was typed yet is no fault', () => {
  const read = typed('price', 'percent', {});
  expect(isProblem(read) && read.isOpen).toBe(true);
  expect(readStep(newStep(1, { on: 'accounts', field: 'price', typed: { basisPoints: '5' } }))).toMatchObject({
    problem: 'Choose an account',
    isOpen: true,
  });
});

test('combinations are named by their values', () => {
  const draft = newStep(1, { on: 'combinations', verb: 'more', typed: { amount: '+3' } });
  const expected: Step = { ...onItem('price', { verb: 'more', amount: 300 }), where: { on: 'combinations', of: {} } };
  expect(readStep(draft)).toEqual(expected);
  expect(readStep({ ...draft, combinations: 'Size: Large, XL; Colour: Tan' })).toMatchObject({
    where: { of: { Size: ['Large', 'XL'], Colour: ['Tan'] } },
  });
  expect(readStep({ ...draft, combinations: 'Large' })).toMatchObject({ problem: 'Write Size: Large, XL' });
});

test('a field has its like at another place', () => {
  const catalogue = fieldsFor();
  expect(fieldsAt('item', catalogue).map((field) => field.id)).toContain('photos');
  expect(fieldsAt('item', catalogue).map((field) => field.id)).not.toContain('variations');
  expect(sameAt('quantity', 'combinations', catalogue)).toBe('quantity');
  expect(sameAt('title', 'combinations', catalogue)).toBe('on');
});

const photo = 'a'.repeat(64);
const other = 'b'.repeat(64);
const layer = {
  badge: 3,
  art: { kind: 'picture' as const, hash: photo, colour: '#112233', ratio: 1.5 },
  place: { anchor: 'top-left' as const, dx: 30, dy: 40, size: 200 },
};

test.each([
  onItem('price', { verb: 'percent', basisPoints: -550, rounding: 'ninety', floor: 950 }),
  onItem('price', { verb: 'amount', amount: -250 }),
  onItem('price', { verb: 'set', value: 1_999 }),
  onItem('cost', { verb: 'formula', formula: 'price / 2' }),
  onItem('quantity', { verb: 'add', by: -2 }),
  onItem('weightGrams', { verb: 'add', by: -500 }),
  onItem('title', { verb: 'before', text: 'Sale: ' }),
  onItem('title', { verb: 'after', text: ' checked' }),
  onItem('title', { verb: 'replace', find: 'a ', put: '', as: 'words', matchCase: true }),
  onItem('keywords', { verb: 'add-to', entries: ['one', 'two'], first: true }),
  onItem('attributes', { verb: 'set-name', name: 'Colour', text: 'tan' }),
  onItem('condition', { verb: 'set', value: 'mint' }),
  onItem('condition', { verb: 'translate', from: 'mint', to: 'excellent' }),
  onItem('boughtOn', { verb: 'shift', days: -7 }),
  onItem('notes', { verb: 'clear' }),
  onItem('photos', { verb: 'photo-put', photo, at: 'before-last' }),
  onItem('photos', { verb: 'photo-replace', photo, put: other, alike: true }),
  onItem('photos', { verb: 'photo-remove-at', places: [2, -1] }),
  onItem('photos', { verb: 'photo-order', order: [3, 1] }),
  onItem('photos', { verb: 'keep-first', count: 5 }),
  onItem('photos', { verb: 'photo-original-last' }),
  onItem('photos', { verb: 'photo-crop', to: 'portrait', fit: 'whole', which: 'all' }),
  onItem('photos', { verb: 'photo-turn', degrees: -1.5, which: 'others' }),
  onItem('photos', { verb: 'photo-light', brightness: 20, warmth: -5 }),
  onItem('photos', { verb: 'photo-backdrop', reach: 30 }),
  onItem('photos', { verb: 'photo-badge', layer, apart: { [other]: { ...layer.place, anchor: 'bottom' } } }),
  onItem('photos', { verb: 'photo-unbadge', badge: 3 }),
  onItem('photos', { verb: 'photo-unbadge', which: 'first' }),
  onItem('photos', { verb: 'photo-plain' }),
  onItem('retailPrice', { verb: 'take', from: 'price' }),
  { ...onItem('price', { verb: 'more', amount: 300 }), where: { on: 'combinations', of: { Size: ['Large', 'XL'] } } },
  { ...onItem('tags', { verb: 'add-to', entries: ['x'], first: false }), where: { on: 'accounts', accounts: [3, 4] } },
  { field: 'price', where: { on: 'overrides' }, do: { verb: 'follow' } },
] as Step[])('a kept step comes back into its boxes as it was: $field $do.verb', (step) =>
  expect(readStep(writeStep(step, 1, catalogueOfListings), catalogueOfListings)).toEqual(step),
);

test('what is typed beside a common value is one step, which goes with its last letter', () => {
  const first = withSet([newStep(1)], 'brand', null, 'B');
  expect(first).toEqual([expect.objectContaining({ field: 'brand', verb: 'set', typed: { value: 'B' } })]);
  const both = withSet(withSet(first, 'brand', null, 'Brask'), 'price', 3, '9,90');
  expect(both.map(({ field, on, accounts, typed }) => [field, on, accounts, typed.value])).toEqual([
    ['brand', 'item', [], 'Brask'],
    ['price', 'accounts', [3], '9,90'],
  ]);
  expect(withSet(both, 'brand', null, '').map((one) => one.field)).toEqual(['price']);
  expect(withSet(withSet(both, 'brand', null, ''), 'price', 3, '')).toEqual([newStep(1)]);
});

test.each([
  ['oak', [2]],
  ['Oakhand, shop', [2, 3]],
  ['pip', [4, 5]],
  ['Pippet', [4]],
  ['pippet finds; Oakhand', [2, 5]],
  ['nobody', []],
  [' , ', []],
])('accounts by their names: %s', (text, ids) => {
  const accounts = ['Oakhand', 'Shopfront', 'Pippet', 'Pippet finds'].map((name, at) => ({ id: at + 2, name }));
  expect(accountsNamed(text, accounts)).toEqual(ids);
});
