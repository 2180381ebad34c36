import type { ExtraRule } from '../../rules/rules';
import { sampleAccount, sampleItem, sampleRules } from '../../testing.test-data';
import { computeListing, type Overrides } from '..';

const extra = (part: Partial<ExtraRule>): ExtraRule => ({
  id: 'field',
  label: 'Field',
  type: 'text',
  required: false,
  values: null,
  maxLength: null,
  maxItems: null,
  fallback: null,
  ...part,
});
const choices = [
  { id: 'a', label: 'First one' },
  { id: 'b', label: 'Second one' },
  { id: 'c', label: 'Third one' },
];

type Given = {
  rule: Partial<ExtraRule>;
  own?: unknown;
  defaults?: Record<string, string>;
  item?: Parameters<typeof sampleItem>[0];
};
function told({ rule, own, defaults = {}, item = {} }: Given) {
  const account = sampleAccount(sampleRules({ extras: [extra(rule)] }), { defaults });
  const overrides: Overrides = own === undefined ? {} : { 'extra.field': own as string };
  const value = computeListing({ item: sampleItem(item), overrides, account }).values.find(
    (one) => one.field === 'extra.field',
  );
  return { value: value?.value, origin: value?.origin, codes: value?.issues.map((issue) => issue.code) };
}

describe('where a value comes from', () => {
  const choice = { type: 'choice', values: choices } as const;
  test.each([
    ['written here', { rule: choice, own: 'b', defaults: { field: 'a' } }, 'b', 'override'],
    [
      'said by the item under its label',
      { rule: choice, item: { attributes: { Field: 'Second one' } } },
      'b',
      'master',
    ],
    ['said by the item by its id', { rule: choice, item: { attributes: { Field: 'c' } } }, 'c', 'master'],
    [
      'from another place in the item',
      { rule: { ...choice, from: ['attributes.Other'] }, item: { attributes: { Other: 'first one' } } },
      'a',
      'fitted',
    ],
    ['the account’s default', { rule: choice, defaults: { field: 'c' } }, 'c', 'account'],
    ['the marketplace’s own default', { rule: { ...choice, fallback: 'a' } }, 'a', 'rule'],
    ['nothing', { rule: choice }, null, 'rule'],
  ] as [string, Given, unknown, string][])('%s', (_what, given, value, origin) =>
    expect(told(given)).toMatchObject({ value, origin, codes: [] }),
  );
});

describe('how words are read', () => {
  test.each([
    [{ type: 'choices', values: choices, maxItems: 2 }, 'First one, third one, b', ['a', 'c']],
    [{ type: 'choices', values: choices, maxItems: 3 }, 'first one; first one', ['a']],
    [{ type: 'list', maxItems: 2 }, 'one, two, three', ['one', 'two']],
    [{ type: 'list', form: 'contents', maxItems: 3 }, 'tank, 2 trays', ['1 x Tank', '2 x Trays']],
    [{ type: 'boolean' }, 'Yes', true],
    [{ type: 'boolean' }, 'no', false],
    [{ type: 'integer' }, '42', 42],
    [{ type: 'money' }, '12.50', 1_250],
    [{ type: 'date' }, '2027-05-31', '2027-05-31'],
    [{ type: 'text', maxLength: 12 }, 'some words that are long', 'some words'],
    [
      { type: 'text', form: 'handle', maxLength: 30 },
      'Größe & Ähnliches',
      'grosse-ahnliches-c1-100'.replace('grosse', 'gro-e'),
    ],
  ] as [Partial<ExtraRule>, string, unknown][])('%j from %j is %j', (rule, said, value) =>
    expect(told({ rule, item: { attributes: { Field: said } } }).value).toEqual(value),
  );

  test('a retail price that is no higher than the price is nothing to compare with', () => {
    const rule = { type: 'money', against: 'above-price', from: ['retailPrice'] } as const;
    expect(told({ rule: { ...rule, from: [...rule.from] }, item: { retailPrice: 20_000, price: 14_900 } }).value).toBe(
      20_000,
    );
    expect(
      told({ rule: { ...rule, from: [...rule.from] }, item: { retailPrice: 14_900, price: 14_900 } }).value,
    ).toBeNull();
  });
});

describe('what is wrong', () => {
  test.each([
    [{ required: true }, null, ['extra-missing']],
    [{ required: true }, '', ['extra-missing']],
    [{ required: true, type: 'list' }, [], ['extra-missing']],
    [{ required: false }, null, []],
    [{ type: 'choice', values: choices }, 'x', ['extra-value']],
    [{ type: 'choices', values: choices, maxItems: 2 }, ['a', 'b', 'c'], ['extra-list']],
    [{ type: 'choices', values: choices, maxItems: 2 }, ['a', 'z'], ['extra-list']],
    [{ type: 'choices', values: choices, maxItems: 2 }, 'a', ['extra-list']],
    [{ type: 'list', maxItems: 1 }, ['a', 'b'], ['extra-list']],
    [{ type: 'list', maxLength: 3 }, ['long one'], ['extra-list']],
    [{ type: 'list', form: 'contents' }, ['tank'], ['extra-list']],
    [{ type: 'list', form: 'contents' }, ['1 x Tank'], []],
    [{ type: 'text', maxLength: 3 }, 'four', ['extra-long']],
    [{ type: 'text', form: 'handle', maxLength: 40 }, 'Not a handle', ['extra-form']],
    [{ type: 'text', form: 'handle', maxLength: 40 }, 'a-handle-1', []],
    [{ type: 'integer', min: 1, max: 5 }, 6, ['extra-number']],
    [{ type: 'integer', min: 1, max: 5 }, 0, ['extra-number']],
    [{ type: 'integer', min: 1, max: 5 }, 'three', ['extra-number']],
    [{ type: 'integer', min: 1, max: 5 }, 3, []],
    [{ type: 'money', against: 'above-price' }, 14_900, ['extra-number']],
    [{ type: 'money', against: 'above-price' }, 14_901, []],
    [{ type: 'money', against: 'below-price' }, 14_900, ['extra-number']],
    [{ type: 'money', against: 'below-price' }, 14_899, []],
    [{ type: 'date' }, 'tomorrow', ['extra-date']],
    [{ type: 'date', minDaysAhead: 60 }, '2026-04-30', ['extra-date']],
    [{ type: 'date', minDaysAhead: 60 }, '2026-05-01', []],
    [{ type: 'boolean' }, 'maybe', ['extra-value']],
    [{ type: 'boolean' }, true, []],
    [{ requiredWhen: { field: 'brand', values: ['Brask'] } }, null, ['extra-missing']],
    [{ requiredWhen: { field: 'brand', values: ['Orvane'] } }, null, []],
    [{ goesWith: ['title'] }, null, ['extra-missing']],
    [{ goesWith: ['extra.other'] }, null, []],
  ] as [Partial<ExtraRule>, unknown, string[]][])('%j with %j: %j', (rule, own, codes) =>
    expect(told({ rule, own }).codes).toEqual(codes),
  );

  test('a category may demand a field that is optional elsewhere', () => {
    const rules = sampleRules({ extras: [extra({ id: 'expires', label: 'Expiry date', type: 'date' })] });
    const demanding = {
      ...rules,
      categories: rules.categories.map((one) => (one.id === '11' ? { ...one, demands: ['expires'] } : one)),
    };
    const issues = (from: typeof rules) =>
      computeListing({ item: sampleItem(), overrides: {}, account: sampleAccount(from) }).issues.map(
        (issue) => issue.code,
      );
    expect(issues(rules)).not.toContain('extra-missing');
    expect(issues(demanding)).toContain('extra-missing');
  });
});
