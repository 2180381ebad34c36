import fc from 'fast-check';
import { applyChanges, invert } from '../change';
import { fieldsFor, type KindName } from '../field';
import type { Item } from '../item';
import type { Overrides } from '../listing';
import { roundings, roundTo } from '../measure';
import { sampleItem } from '../testing.test-data';
import {
  applySteps,
  applyToNumbers,
  argumentFault,
  asChange,
  type Do,
  doSchema,
  isFor,
  onItem,
  readFormula,
  readKeptStep,
  type Step,
  type StepContext,
  sayStep,
  stepFault,
  stepSchema,
  type VerbName,
  verbsFor,
} from '.';

const catalogue = fieldsFor([
  {
    key: 'shelf',
    label: 'Shelf',
    type: 'text',
    choices: [],
    most: 12,
    from: null,
    to: null,
    category: '',
    copied: true,
  },
]);
const context: StepContext = {
  catalogue,
  currency: 'EUR',
  listed: ({ item }, _account, field) =>
    field === 'description' ? `${item.description}\n--` : field === 'tags' ? item.keywords : undefined,
  listingField: (_account, field) => catalogue.listing(field),
  currencyOf: () => 'EUR',
  amountThere: (_account, amount) => amount,
  // What is left is the price without a tenth of it and the cost.
  boxes: [
    { id: 1, name: 'Small', lengthMm: 200, widthMm: 150, heightMm: 100, grams: 80, cost: null },
    { id: 2, name: 'Large', lengthMm: 400, widthMm: 300, heightMm: 200, grams: 250, cost: null },
  ],
  soldFor: ({ model }, days) => (model ? { median: 20_000, count: days >= 30 ? 5 : 1 } : null),
  termsOf: (account) => (account === 7 ? [{ from: 'camera', to: 'Kamera' }] : account === 8 ? [] : null),
  suggestedCategory: ({ category }) => ({ id: `leaf of ${category}`, certainty: category ? 80 : 55 }),
  priceFor: ({ item }, _account, goal, rounding) =>
    goal.kind === 'net' ? roundTo(Math.ceil(((goal.amount + (item.cost ?? 0)) * 10) / 9), roundings[rounding]) : null,
};
const options = { catalogue, newKey: () => '' };
const strap: Partial<Item> = {
  axes: [
    { name: 'Size', values: ['Small', 'Large'] },
    { name: 'Colour', values: ['Black', 'Tan'] },
  ],
  variations: ['Small', 'Large'].flatMap((size) =>
    ['Black', 'Tan'].map((colour) => ({
      values: [size, colour],
      on: true,
      sku: '',
      quantity: 2,
      price: null,
      barcode: '',
      key: `${size}${colour}`.toLowerCase().slice(0, 16),
    })),
  ),
  quantity: 8,
};
const record = (part: Partial<Item> = {}, overrides: [number, Overrides][] = []) => ({
  item: sampleItem(part),
  overrides: new Map(overrides),
});
const after = (steps: Step[], part: Partial<Item> = {}, overrides: [number, Overrides][] = []) => {
  const result = applySteps(steps, record(part, overrides), context);
  if ('refused' in result) throw new Error(result.refused);
  return result;
};
const itemAfter = (steps: Step[], part: Partial<Item> = {}) => after(steps, part).record.item;
const refusal = (steps: Step[], part: Partial<Item> = {}) => {
  const result = applySteps(steps, record(part), context);
  return 'refused' in result ? result.refused : null;
};

const word = fc.stringMatching(/^[A-Za-z][a-z]{0,6}$/);
const text = fc.array(word, { minLength: 1, maxLength: 4 }).map((words) => words.join(' '));
const bounds = {
  rounding: fc.constantFrom(
    'none' as const,
    'whole' as const,
    'half' as const,
    'ninetyNine' as const,
    'ninety' as const,
  ),
  floor: fc.option(fc.integer({ min: 0, max: 20_000 })),
  ceiling: fc.option(fc.integer({ min: 20_000, max: 90_000 })),
};
const done = <Name extends VerbName>(verb: Name, args: Record<string, fc.Arbitrary<unknown>>, ...fields: string[]) =>
  fc
    .tuple(fc.constantFrom(...fields), fc.record(args))
    .map(([field, given]) => onItem(field, { verb, ...given } as unknown as Do)); // arguments as the verb's schema has them, checked by it

/** Every verb with any arguments, on a field of a kind that it is for. */
const steps: Record<
  Exclude<
    VerbName,
    'more' | 'solve' | 'suggest' | 'by-terms' | 'follow-sales' | 'as-first' | `photo-${string}` | 'clip-make'
  >,
  fc.Arbitrary<Step>
> = {
  set: fc.oneof(
    done('set', { value: text }, 'title', 'brand', 'own.shelf', 'attributes.Colour').filter(
      ({ do: what }) => what.verb === 'set' && String(what.value).length <= 12,
    ),
    done('set', { value: fc.integer({ min: 0, max: 99_999 }) }, 'price', 'cost', 'quantity', 'weightGrams'),
  ),
  clear: done('clear', {}, 'title', 'price', 'keywords', 'boughtOn', 'condition', 'attributes', 'own.shelf'),
  before: done('before', { text }, 'title', 'description'),
  after: done('after', { text }, 'title', 'description'),
  replace: done('replace', { find: fc.constantFrom('a', 'film', 'Brask', 'x'), put: text }, 'title', 'description'),
  case: done('case', { to: fc.constantFrom('upper', 'lower', 'words', 'sentence') }, 'title', 'brand'),
  cut: done('cut', { most: fc.integer({ min: 1, max: 60 }) }, 'title'),
  fill: done(
    'fill',
    {
      pattern: fc.constantFrom(
        '{{ brand }} {{ model }}',
        'Film: {{ title }}',
        '{{ barcode }}',
        '{{ attributes.colour }}',
      ),
    },
    'title',
    'description',
    'notes',
  ),
  percent: done('percent', { basisPoints: fc.integer({ min: -9_900, max: 9_900 }), ...bounds }, 'price', 'cost'),
  amount: done('amount', { amount: fc.integer({ min: -20_000, max: 20_000 }), ...bounds }, 'price', 'cost'),
  formula: done(
    'formula',
    { formula: fc.constantFrom('cost * 2.2 + 4', 'max(price, cost * 1.5)', 'price / (stock - 1)'), ...bounds },
    'price',
    'weightGrams',
  ),
  ending: done('ending', { rounding: bounds.rounding }, 'price'),
  bounds: done(
    'bounds',
    { least: fc.integer({ min: 0, max: 9_000 }), most: fc.integer({ min: 9_000, max: 20_000 }) },
    'price',
    'weightGrams',
  ),
  add: done('add', { by: fc.integer({ min: -3, max: 9 }) }, 'quantity', 'weightGrams'),
  allowance: done('allowance', { percent: fc.integer({ min: -50, max: 50 }) }, 'weightGrams'),
  'add-to': done('add-to', { entries: fc.array(word, { minLength: 1, maxLength: 3 }) }, 'keywords', 'highlights'),
  'remove-from': done('remove-from', { entries: fc.constant(['slr', 'Film Camera']) }, 'keywords'),
  'replace-in': done('replace-in', { find: fc.constantFrom('slr', 'none'), put: word }, 'keywords'),
  sort: done('sort', { by: fc.constantFrom('name', 'name-back', 'length') }, 'keywords'),
  'keep-first': done('keep-first', { count: fc.integer({ min: 0, max: 5 }) }, 'keywords'),
  translate: done(
    'translate',
    { from: fc.constantFrom('very-good', 'mint'), to: fc.constant('excellent') },
    'condition',
  ),
  shift: done('shift', { days: fc.integer({ min: -400, max: 400 }) }, 'boughtOn'),
  'set-name': done('set-name', { name: word, text: word }, 'attributes'),
  'remove-name': done('remove-name', { name: fc.constantFrom('Colour', 'None') }, 'attributes'),
  'rename-value': done(
    'rename-value',
    { name: fc.constant('Colour'), from: fc.constantFrom('black', 'red'), to: word },
    'attributes',
  ),
  box: done('box', {}, 'weightGrams', 'lengthMm', 'widthMm'),
  'set-axes': done(
    'set-axes',
    {
      axes: fc.constantFrom(
        [],
        [{ name: 'Size', values: ['Small', 'Large'] }],
        [
          { name: 'Size', values: ['Small'] },
          { name: 'Colour', values: ['Black', 'Tan'] },
        ],
      ),
    },
    'axes',
  ),
  take: done('take', { from: fc.constantFrom('brand', 'model', 'title', 'description') }, 'title', 'notes'),
};
const anyStep = fc.oneof(...Object.values(steps));
const thing = fc.record({
  title: text,
  price: fc.option(fc.integer({ min: 1, max: 90_000 })),
  quantity: fc.integer({ min: 0, max: 9 }),
  boughtOn: fc.option(fc.constant('2026-02-27')),
  lengthMm: fc.constantFrom(null, 180, 380, 900),
  widthMm: fc.constant(120),
  heightMm: fc.constant(90),
  keywords: fc.constantFrom<string[]>(['film camera', 'slr', 'analogue'], []),
});

test.each(Object.entries(steps))(
  '%s: taken back it is exactly what it was, and refused it is left as it was',
  (_verb, step) => {
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 3 }), thing, (some, part) => {
        const before = record(part);
        const kept = structuredClone(before.item);
        const result = applySteps(some, before, context);
        expect(before.item).toEqual(kept);
        if ('refused' in result) return expect(result.refused).toMatch(/^\S/);
        const back = result.changes.map((change) => {
          const field = catalogue.item(change.field);
          const inverse = field && invert(change, change.to, field);
          if (inverse?.kind !== 'restore') throw new Error(`${change.field} cannot be restored`);
          return { target: change.target, field: change.field, to: inverse.to };
        });
        const restored = applyChanges(result.record, back, options);
        if ('refused' in restored) throw new Error(restored.refused.why);
        expect(restored.record.item).toEqual(kept);
        // What it says is what the one writer makes of it.
        const written = applyChanges(before, asChange(result), options);
        if ('refused' in written) throw new Error(written.refused.why);
        expect(written.record.item).toEqual(result.record.item);
      }),
      { numRuns: 60 },
    );
  },
);

const onlyOnce: VerbName[] = [
  'set',
  'clear',
  'case',
  'cut',
  'ending',
  'bounds',
  'add-to',
  'remove-from',
  'sort',
  'keep-first',
  'translate',
  'set-name',
  'remove-name',
  'set-axes',
  'take',
];
test.each(onlyOnce)('%s done twice changes nothing the second time', (verb) => {
  fc.assert(
    fc.property(steps[verb as keyof typeof steps], thing, (step, part) => {
      const first = applySteps([step], record(part), context);
      if ('refused' in first) return;
      expect(applySteps([step], first.record, context)).toMatchObject({ changes: [] });
    }),
    { numRuns: 60 },
  );
});

test('price and units alone come to the same, read as two numbers', () => {
  const numbers = fc.oneof(
    ...(['set', 'percent', 'amount', 'ending', 'bounds', 'add'] as const).map((verb) =>
      steps[verb].filter((step) => step.field === 'price' || step.field === 'quantity'),
    ),
  );
  fc.assert(
    fc.property(fc.array(numbers, { minLength: 1, maxLength: 4 }), thing, (some, part) => {
      const whole = applySteps(some, record(part), context);
      const slim = applyToNumbers(some, { price: part.price, quantity: part.quantity }, 'EUR');
      if ('refused' in whole) return expect(slim).toEqual({ ...slim, refused: whole.refused, changed: [] });
      expect(slim).toMatchObject({
        price: whole.record.item.price,
        quantity: whole.record.item.quantity,
        refused: null,
      });
    }),
  );
});

test('a cut never ends above the old price, never under the floor, and a floor never raises', () => {
  const price = fc.integer({ min: 1, max: 1e7 });
  fc.assert(
    fc.property(
      price,
      fc.integer({ min: -9_000, max: -1 }),
      bounds.rounding,
      fc.option(price),
      (old, by, rounding, floor) => {
        const step = onItem('price', { verb: 'percent', basisPoints: by, rounding, floor });
        const result = applyToNumbers([step], { price: old, quantity: 1 }, 'EUR').price ?? 0;
        return result <= old && result >= Math.min(old, floor ?? 0) && result > 0;
      },
    ),
  );
});

test('when one step is refused the item stays as a whole, and it is said why', () => {
  const lower = onItem('price', { verb: 'percent', basisPoints: -500 });
  expect(refusal([lower, onItem('quantity', { verb: 'add', by: -9 })], { quantity: 2 })).toBe(
    'Only 2 in stock, 9 cannot be taken away',
  );
  expect(refusal([lower], { price: null })).toBe('It has no price to change');
  expect(refusal([onItem('price', { verb: 'amount', amount: -500 })], { price: 400 })).toBe(
    'Its price would not be above zero',
  );
  expect(refusal([onItem('price', { verb: 'percent', basisPoints: -9_900 })], { price: 10 })).toBe(
    'Its price would not be above zero',
  );
  expect(refusal([onItem('quantity', { verb: 'set', value: 3 })], strap)).toBe(
    'Its stock is counted by its variations',
  );
  expect(refusal([onItem('title', { verb: 'before', text: 'Sale: ' })], { title: 'x'.repeat(295) })).toBe(
    'At most 300 characters',
  );
  expect(refusal([onItem('keywords', { verb: 'add-to', entries: ['x'.repeat(61)] })])).toBe('At most 60 characters');
});

test('each step sees what those before it made', () => {
  const item = itemAfter([
    onItem('title', { verb: 'set', value: 'brask k-2' }),
    onItem('title', { verb: 'case', to: 'words' }),
    onItem('title', { verb: 'after', text: ', checked' }),
    onItem('notes', { verb: 'take', from: 'title' }),
  ]);
  expect([item.title, item.notes]).toEqual(['Brask K-2, checked', 'Brask K-2, checked']);
});

test('words and patterns are replaced; one that would backtrack for ever ends at once, one that cannot be read is said', () => {
  const replaced = (find: string, put: string, as: 'words' | 'pattern', title: string) =>
    itemAfter([onItem('title', { verb: 'replace', find, put, as })], { title }).title;
  expect(replaced('35 MM', '35-mm', 'words', 'Camera, 35 mm (35 mm film)')).toBe('Camera, 35-mm (35-mm film)');
  expect(replaced('($1', '$2\\', 'words', 'a ($1 b')).toBe('a $2\\ b');
  expect(replaced('(\\d+) ?mm', '$1 millimetres', 'pattern', 'Lens 50mm')).toBe('Lens 50 millimetres');
  expect(replaced('(a+)+$', 'x', 'pattern', `${'a'.repeat(290)}b`)).toHaveLength(291);
  const faultOf = (find: string, put: string) =>
    argumentFault(doSchema.parse({ verb: 'replace', find, put, as: 'pattern' }));
  expect(faultOf('(a', '')).toEqual({
    argument: 'find',
    message: 'The pattern cannot be read: missing closing ): `(a`',
  });
  expect(faultOf('(a)', '$2')).toEqual({ argument: 'put', message: 'There is no group 2 in the pattern' });
  expect(faultOf('(a)', '$1')).toBeNull();
  expect(
    applySteps([onItem('title', { verb: 'replace', find: '(a', put: '', as: 'pattern' })], record({}), context),
  ).toMatchObject({ refused: expect.stringContaining('missing closing') });
});

test('a text put after one in HTML is a paragraph of its own, and its signs are no tags', () => {
  const { description } = itemAfter([onItem('description', { verb: 'after', text: 'Returns < 30 days' })], {
    description: '<p>Fine.</p>',
  });
  expect(description).toBe('<p>Fine.</p><p>Returns &lt; 30 days</p>');
});

test('a formula computes in the shop’s money, and says where it cannot be read', () => {
  const price = (formula: string, part: Partial<Item> = {}) =>
    itemAfter([onItem('price', { verb: 'formula', formula })], { price: 10_000, cost: 4_000, ...part }).price;
  expect(price('cost * 2.2 + 4')).toBe(9_200);
  expect(price('max(price, cost * 3)')).toBe(12_000);
  expect(price('if(stock > 5, price * 0.9, price)', { quantity: 9 })).toBe(9_000);
  const fault = (formula: string) => {
    const read = readFormula(formula);
    return 'fault' in read ? [read.fault, read.at] : null;
  };
  expect(fault('cost *')).toEqual(['Something is missing at the end', 6]);
  expect(fault('cost + prise')).toEqual([expect.stringContaining('“prise” is not known'), 7]);
  expect(fault('price.constructor')?.[0]).toContain('cannot stand there');
  expect(fault('"a" + 1')?.[0]).toBe('“"” has no place in a formula');
  expect(fault('a = 5')?.[0]).toBe('“=” has no place in a formula');
  expect(fault('random()')?.[0]).toContain('“random” is not known');
  for (const [formula, why] of [
    ['price / (stock - 1)', 'The formula divides by nothing'],
    ['0 / (stock - 1)', 'The formula gives no number'],
    ['grams * 2', 'It has no grams to compute with'],
    ['price - 500', 'Its price would not be above zero'],
  ] as const)
    expect(refusal([onItem('price', { verb: 'formula', formula })], { quantity: 1, weightGrams: null })).toBe(why);
});

test('combinations: all large ones cost more, and one that follows the item again', () => {
  const more: Step = {
    field: 'price',
    where: { on: 'combinations', of: { Size: ['Large'] } },
    do: { verb: 'more', amount: 300 },
  };
  const { item } = after([more, more], strap).record;
  expect(item.variations.map((one) => one.price)).toEqual([
    null,
    null,
    { kind: 'difference', amount: 600 },
    { kind: 'difference', amount: 600 },
  ]);
  const less = after([{ ...more, do: { verb: 'more', amount: -600 } }], item).record.item;
  expect(less.variations.map((one) => one.price)).toEqual([null, null, null, null]);
  const stock: Step = { field: 'quantity', where: { on: 'combinations', of: {} }, do: { verb: 'add', by: 1 } };
  expect(itemAfter([stock], strap).quantity).toBe(12);
});

test('on accounts: what they get is changed for them alone, earlier steps seen; elsewhere it is not there', () => {
  const result = after(
    [
      onItem('description', { verb: 'set', value: '<p>New.</p>' }),
      {
        field: 'description',
        where: { on: 'accounts', accounts: [7, 9] },
        do: { verb: 'replace', find: '--', put: 'Returns', as: 'words', matchCase: false },
      },
    ],
    {},
    [[7, {}]],
  );
  expect(result.record.overrides.get(7)?.description).toBe('<p>New.</p>\nReturns');
  expect(result.record.overrides.has(9)).toBe(false);
  expect(result.record.item.description).toBe('<p>New.</p>');
  const own: [number, Overrides][] = [
    [7, { price: 5_000 }],
    [8, {}],
  ];
  const percent: Step = {
    field: 'price',
    where: { on: 'overrides' },
    do: onItem('price', { verb: 'percent', basisPoints: 1_000 }).do,
  };
  expect(after([percent], {}, own).record.overrides).toEqual(
    new Map([
      [7, { price: 5_500 }],
      [8, {}],
    ]),
  );
  const follow: Step = { field: 'price', where: { on: 'overrides' }, do: { verb: 'follow' } };
  const followed = after([follow], {}, own);
  expect(followed.record.overrides.get(7)).toEqual({});
  expect(asChange(followed)).toEqual([{ target: { item: 1, account: 7 }, field: 'price' }]);
});

test('steps are checked at the edge, and kept ones of before are read as what they meant', () => {
  expect(stepSchema.safeParse({ field: 'price', do: { verb: 'percent', basisPoints: -20_000 } }).success).toBe(false);
  expect(stepSchema.safeParse({ field: 'price', do: { verb: 'drop table' } }).success).toBe(false);
  expect(stepFault(onItem('quantity', { verb: 'set', value: -1.5 }), catalogue)).not.toBeNull();
  expect(stepFault(onItem('photos', { verb: 'clear' }), catalogue)).toBe('Photos has no such change');
  // What lies at a warehouse is moved, never written.
  expect(stepFault(onItem('elsewhere', { verb: 'clear' }), catalogue)).toContain('no field elsewhere');
  expect(stepFault(onItem('title', { verb: 'shift', days: 1 }), catalogue)).toBe('Title has no such change');
  expect(stepFault({ field: 'title', where: { on: 'item' }, do: { verb: 'follow' } }, catalogue)).toContain(
    'Only what',
  );
  expect(readKeptStep({ op: 'price-percent', basisPoints: -500, rounding: 'ninety', floor: 100 })).toEqual(
    onItem('price', { verb: 'percent', basisPoints: -500, rounding: 'ninety', floor: 100 }),
  );
  expect(readKeptStep({ op: 'quantity-add', delta: 3 })).toEqual(onItem('quantity', { verb: 'add', by: 3 }));
  expect(readKeptStep(onItem('title', { verb: 'clear' }))).toEqual(onItem('title', { verb: 'clear' }));
});

test('every kind of field has its verbs, and every verb says what it does', () => {
  const kinds: KindName[] = [
    'text',
    'rich',
    'money',
    'whole',
    'number',
    'weight',
    'length',
    'date',
    'choice',
    'boolean',
    'list',
    'map',
    'priceRule',
  ];
  for (const kind of kinds)
    expect(verbsFor(kind).map((one) => one.name)).toEqual(expect.arrayContaining(['set', 'clear', 'take']));
  // Photos are made and put in order; nobody types them.
  expect(verbsFor('photos').filter(({ name }) => !/^(photo-|keep-first)/.test(name))).toEqual([]);
  fc.assert(
    fc.property(anyStep, (step) => {
      const field = catalogue.item(step.field);
      expect(field && step.do.verb !== 'follow' && isFor(step.do.verb, field)).toBe(true);
      expect(stepFault(step, catalogue)).toBeNull();
      expect(sayStep(step, 'EUR', catalogue)).toMatch(/^\S.+\S$/s);
      expect(doSchema.safeParse(step.do).success).toBe(true);
    }),
  );
  expect(
    sayStep(onItem('price', { verb: 'percent', basisPoints: -500, rounding: 'ninety', floor: 1_000 }), 'EUR'),
  ).toBe('price −5 %, ending .90, never under 10.00');
  const said = ['a', 'b'];
  expect(sayStep(onItem('keywords', { verb: 'add-to', entries: said }), 'EUR')).toBe('keywords with “a, b”');
});

describe('a text filled from a pattern', () => {
  const filled = (pattern: string, field = 'title', part: Partial<Item> = {}) =>
    itemAfter([onItem(field, { verb: 'fill', pattern })], part);
  test('speaks of the item as it is by then', () => {
    expect(
      filled('{{ brand }} {{ model }}, {{ condition | downcase }}', 'title', { brand: 'Brask', model: 'K-2' }).title,
    ).toMatch(/^Brask K-2, /);
    const both = itemAfter(
      [onItem('brand', { verb: 'set', value: 'Orvane' }), onItem('title', { verb: 'fill', pattern: '{{ brand }} M4' })],
      {},
    );
    expect(both.title).toBe('Orvane M4');
  });
  test('in rich text what the item says is escaped', () =>
    expect(filled('<p>{{ brand }}</p>', 'description', { brand: 'A<b>' }).description).toBe('<p>A&lt;b&gt;</p>'));
  test('what the item does not say refuses it, and a broken pattern is no step', () => {
    expect(refusal([onItem('title', { verb: 'fill', pattern: '{{ barcode }}' })], { barcode: '' })).toBe(
      'It has no barcode',
    );
    expect(argumentFault({ verb: 'fill', pattern: '{{ brand' })).toMatchObject({ argument: 'pattern' });
  });
});

describe('a price for a wanted net', () => {
  const onOne = (what: object): Step =>
    stepSchema.parse({ field: 'price', where: { on: 'accounts', accounts: [7] }, do: { verb: 'solve', ...what } });
  test('is written for the account, ending as it shall', () => {
    const { record: made } = after([onOne({ goal: 'net', amount: 900, rounding: 'ninety' })], { cost: 900 }, [[7, {}]]);
    expect(made.overrides.get(7)).toEqual({ price: 1_990 });
  });
  test('that nothing reaches, or that is asked of the item itself, is refused', () => {
    const result = applySteps([onOne({ goal: 'margin', basisPoints: 9_900 })], record({}, [[7, {}]]), context);
    expect(result).toMatchObject({ refused: 'No price leaves that much there' });
    expect(stepFault(onItem('price', { verb: 'solve', goal: 'net', amount: 1 }), catalogue)).toContain(
      'choose accounts',
    );
    expect(doSchema.safeParse({ verb: 'solve', goal: 'margin' }).success).toBe(false);
    expect(doSchema.safeParse({ verb: 'solve', goal: 'net' }).success).toBe(false);
  });
});

describe('what is proposed', () => {
  test('a price follows what such things sold for, within its bounds; with too few sales it stays', () => {
    const step = (args: object) => onItem('price', doSchema.parse({ verb: 'follow-sales', ...args }));
    expect(itemAfter([step({})]).price).toBe(20_000);
    expect(itemAfter([step({ basisPoints: 9_500, rounding: 'ninety', ceiling: 18_000 })]).price).toBe(18_000);
    expect(applySteps([step({ days: 7 })], record(), context)).toMatchObject({
      refused: 'Only 1 comparable sale in 7 days',
    });
    expect(applySteps([step({})], record({ model: '' }), context)).toMatchObject({
      refused: 'Only 0 comparable sales in 180 days',
    });
    expect(stepFault({ ...step({}), where: { on: 'accounts', accounts: [7] } }, catalogue)).toMatch(/for the item/);
  });

  test('the sides and the weight come from the smallest box that holds it', () => {
    const sides = { lengthMm: 180, widthMm: 120, heightMm: 90, weightGrams: 500 };
    const all = ['lengthMm', 'widthMm', 'heightMm', 'weightGrams'].map((field) => onItem(field, { verb: 'box' }));
    expect(itemAfter(all, sides)).toMatchObject({ lengthMm: 200, widthMm: 150, heightMm: 100, weightGrams: 580 });
    const refused = applySteps(all, record({ ...sides, lengthMm: 900 }), context);
    expect(refused).toMatchObject({ refused: 'None of the boxes holds it, or its sides are not known' });
    expect(verbsFor('length', 'own.depth').map((one) => one.name)).not.toContain('box');
    expect(stepFault(onItem('price', { verb: 'box' }), catalogue)).toMatch(/no such change/);
  });

  test('combinations are filled down from the first of those that are meant', () => {
    const down = (field: string, of: Record<string, string[]>): Step => ({
      field,
      where: { on: 'combinations', of },
      do: { verb: 'as-first' },
    });
    const own = { kind: 'own' as const, amount: 999 };
    const varied = {
      ...strap,
      variations: strap.variations?.map((row, at) => (at === 2 ? { ...row, price: own } : row)),
    };
    const { variations } = itemAfter([down('price', { Size: ['Large'] })], varied);
    expect(variations.map((row) => row.price)).toEqual([null, null, own, own]);
    expect(itemAfter([down('price', {})], varied).variations.every((row) => row.price === null)).toBe(true);
    expect(stepFault(onItem('price', { verb: 'as-first' }), catalogue)).toMatch(/Only combinations/);
  });

  test('a suggested category is taken from the certainty that is asked for; else it stays as it is', () => {
    const step = (certainty: number): Step => ({
      field: 'category',
      where: { on: 'accounts', accounts: [7] },
      do: { verb: 'suggest', certainty },
    });
    const made = applySteps([step(70)], record({}, [[7, {}]]), context);
    expect(made).toMatchObject({ changes: [{ field: 'category', to: 'leaf of cameras/slr' }] });
    expect(applySteps([step(90)], record({}, [[7, {}]]), context)).toMatchObject({ changes: [] });
    expect(applySteps([onItem('category', { verb: 'suggest' })], record(), context)).toMatchObject({
      refused: expect.stringContaining('choose accounts'),
    });
  });

  test('texts of an account get one’s own terms, word for word; without a language or terms that is said', () => {
    const step = (account: number): Step => ({
      field: 'description',
      where: { on: 'accounts', accounts: [account] },
      do: { verb: 'by-terms' },
    });
    const written = { description: '<p>A camera</p>' };
    expect(applySteps([step(7)], record(written, [[7, {}]]), context)).toMatchObject({
      changes: [{ field: 'description', to: '<p>A Kamera</p>\n--' }],
    });
    expect(applySteps([step(8)], record(written, [[8, {}]]), context)).toMatchObject({
      refused: expect.stringContaining('no terms'),
    });
    expect(applySteps([step(9)], record(written, [[9, {}]]), context)).toMatchObject({
      refused: expect.stringContaining('which language'),
    });
    expect(applySteps([onItem('title', { verb: 'by-terms' })], record(), context)).toMatchObject({
      refused: expect.stringContaining('choose accounts'),
    });
  });

  test('axes bring their table, keep what was written in it, and leave no unit without a combination', () => {
    const axes = (values: string[]) =>
      onItem('axes', {
        verb: 'set-axes',
        axes: [
          { name: 'Size', values },
          { name: 'Colour', values: ['Black', 'Tan'] },
        ],
      });
    const more = itemAfter([axes(['Small', 'Large', 'Huge'])], strap);
    expect(more.variations.map((row) => row.quantity)).toEqual([2, 2, 2, 2, 0, 0]);
    expect(more.quantity).toBe(8);
    expect(applySteps([axes(['Small'])], record(strap), context)).toMatchObject({
      refused: '4 in stock would belong to no combination: give them to others first',
    });
    expect(applySteps([axes(['Small'])], record({ quantity: 3 }), context)).toMatchObject({
      refused: expect.stringMatching(/^3 in stock/),
    });
  });
});

test('for which accounts an item is meant is said of accounts alone, and of none where it is live', () => {
  const target = (value: boolean, accounts = [7, 8]): Step => ({
    field: 'target',
    where: { on: 'accounts', accounts },
    do: { verb: 'set', value },
  });
  const meant = (states: [number, 'yes' | 'no' | 'live' | 'busy'][]) => ({ ...record(), meant: new Map(states) });
  expect(applySteps([target(true)], meant([[7, 'yes']]), context)).toMatchObject({
    changes: [{ target: { item: 1, account: 8 }, field: 'target', from: false, to: true }],
  });
  expect(applySteps([target(false)], meant([[7, 'live']]), context)).toMatchObject({
    refused: expect.stringContaining('live there'),
  });
  expect(applySteps([target(false)], meant([[7, 'busy']]), context)).toMatchObject({
    refused: expect.stringContaining('on its way'),
  });
  expect(applySteps([target(false)], meant([[7, 'yes']]), context)).toMatchObject({ changes: [{ to: false }] });
  expect(stepFault({ ...target(true), where: { on: 'item' } }, catalogue)).not.toBeNull();
  expect(stepFault({ ...target(true), do: { verb: 'follow' } }, catalogue)).toMatch(/for which accounts/);
});
