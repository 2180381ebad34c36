import fc from 'fast-check';
import { sampleAccount, sampleItem, sampleRules } from '../testing.test-data';
import { computeListing } from '.';

const compute = (part: Parameters<typeof sampleItem>[0] = {}, overrides = {}, account = sampleAccount()) =>
  computeListing({ item: sampleItem(part), overrides, account });
const field = (computed: ReturnType<typeof compute>, name: string) =>
  computed.values.find((value) => value.field === name);
const codes = (computed: ReturnType<typeof compute>) => computed.issues.map((issue) => issue.code);

test('a complete item is ready, each value with its origin', () => {
  const computed = compute();
  expect(codes(computed)).toEqual([]);
  expect(computed.ready).toBe(true);
  expect(field(computed, 'title')).toMatchObject({ origin: 'fitted', max: 45 });
  expect(field(computed, 'price')).toMatchObject({ value: 14_900, origin: 'master' });
  expect(field(computed, 'category')).toMatchObject({ value: '11', origin: 'rule' });
  expect(field(computed, 'extra.postage')).toMatchObject({ value: 'buyer', origin: 'account' });
  expect(field(computed, 'attr.colour')).toMatchObject({ value: 'Black', origin: 'master' });
  expect(field(computed, 'size')).toMatchObject({ origin: 'unused' });
});

test('what is written here wins, and the master’s change does not reach it', () => {
  const computed = compute({ price: 1 }, { price: 9_900, title: 'Own title' });
  expect(field(computed, 'price')).toMatchObject({ value: 9_900, origin: 'override' });
  expect(computed.content.title).toBe('Own title');
});

test('the note stands in the text and in its field; on new goods, where it is forbidden, only in the text', () => {
  const used = compute();
  expect(used.content.conditionNote).toBe('Light brassing.');
  expect(String(used.content.description).match(/Light brassing/g)).toHaveLength(1);
  const fresh = compute({ condition: 'new' });
  expect(fresh.content.conditionNote).toBeUndefined();
  expect(String(fresh.content.description)).toContain('Light brassing.');
});

test('a long description is cut, but the note and the footer stay whole', () => {
  const computed = compute(
    { description: `<p>${'Sentence goes on. '.repeat(200)}</p>` },
    {},
    sampleAccount(sampleRules(), { footer: 'Find us at the harbour.' }),
  );
  const text = String(computed.content.description);
  expect([...text].length).toBeLessThanOrEqual(900);
  expect(text).toContain('Light brassing.');
  expect(text.endsWith('Find us at the harbour.')).toBe(true);
  expect(field(computed, 'description')?.lost).toEqual(['the end of the description']);
});

test.each([
  ['title-missing', { title: '' }, {}],
  ['title-long', {}, { title: 'x'.repeat(46) }],
  ['description-short', { description: '', conditionNote: '' }, {}],
  ['description-markup', {}, { description: 'Some <b>markup</b> here' }],
  ['condition-missing', { condition: 'parts' }, {}],
  ['condition-unknown', {}, { condition: 'ruined' }],
  ['category-missing', { category: '', title: '' }, {}],
  ['category-unmapped', { category: 'garden/spades', title: 'Spade' }, {}],
  ['category-gone', {}, { category: '99' }],
  ['category-not-leaf', {}, { category: '1' }],
  ['price-missing', { price: null }, {}],
  ['price-range', { price: 100 }, {}],
  ['photos-few', { photos: [] }, {}],
  ['photos-small', { photos: [{ hash: 'b'.repeat(64), width: 400, height: 300 }] }, {}],
  ['tags-many', {}, { tags: ['a', 'b', 'c'] }],
  ['tag-long', {}, { tags: ['x'.repeat(21)] }],
  ['tag-characters', {}, { tags: ['a!'] }],
  ['note-long', {}, { conditionNote: 'x'.repeat(41) }],
  ['quantity-none', { quantity: 0 }, {}],
  ['weight-missing', { weightGrams: null }, {}],
  ['attribute-missing', { attributes: {} }, {}],
  ['attribute-value', { attributes: { 'Film format': '16 mm' } }, {}],
  ['extra-value', {}, { 'extra.postage': 'by owl' }],
] as const)('%s is found, with its place and a mend', (code, part, overrides) => {
  const computed = compute(part as Parameters<typeof sampleItem>[0], overrides);
  const issue = computed.issues.find((one) => one.code === code);
  expect(issue).toBeDefined();
  expect(issue?.message.length).toBeGreaterThan(5);
  expect(issue?.fix.label.length).toBeGreaterThan(3);
  expect(computed.ready).toBe(false);
});

test('a needed field of the marketplace without any value points to the account', () => {
  const computed = compute({}, {}, sampleAccount(sampleRules(), { defaults: {} }));
  expect(computed.issues[0]).toMatchObject({
    code: 'extra-missing',
    fix: { kind: 'account-default', field: 'postage' },
  });
});

test('an optional value that the list does not hold is left out and said', () => {
  const computed = compute({ attributes: { 'Film format': '35 mm', Colour: 'Mauve' } });
  expect(field(computed, 'attr.colour')).toMatchObject({ value: null, lost: ['Mauve'] });
  expect(computed.ready).toBe(true);
});

test('a brand that the marketplace does not list becomes its word for none', () => {
  expect(compute({ brand: 'Fennick' }).content.brand).toBe('none');
  expect(compute({ brand: 'ORVANE' }).content.brand).toBe('Orvane');
});

test('a cap lowers what is offered and never invents stock', () => {
  const account = sampleAccount(sampleRules({ quantity: { max: 5 } }));
  expect(compute({ quantity: 3 }, {}, account).content.quantity).toBe(3);
  expect(compute({ quantity: 30 }, {}, account).content.quantity).toBe(5);
  expect(compute({ quantity: 3 }, { quantity: 2 }, account).content.quantity).toBe(2);
  expect(compute({ quantity: 1 }, { quantity: 4 }, account).content.quantity).toBe(1);
});

test('photos: the first that fit, or those chosen here, never strangers', () => {
  const photos = ['a', 'b', 'c', 'd'].map((letter) => ({ hash: letter.repeat(64), width: 900, height: 700 }));
  expect(compute({ photos }).content.photos).toEqual(['a', 'b', 'c'].map((letter) => letter.repeat(64)));
  expect(compute({ photos }, { photos: ['d'.repeat(64), 'f'.repeat(64)] }).content.photos).toEqual(['d'.repeat(64)]);
});

test('computing twice is the same', () => {
  fc.assert(
    fc.property(
      fc.string({ maxLength: 200 }),
      fc.string({ maxLength: 400 }),
      fc.integer({ min: 0, max: 1e6 }),
      (title, description, price) => {
        const input = { title, description, price };
        const once = JSON.stringify(compute(input));
        return JSON.stringify(compute({ ...input })) === once;
      },
    ),
  );
});
