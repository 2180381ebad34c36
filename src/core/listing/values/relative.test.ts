import { sampleAccount, sampleItem, sampleRules } from '../../testing.test-data';
import { computeListing } from '../compute';
import { readPercentOff } from './relative';

const field = { required: false, values: null, maxLength: null, maxItems: null, fallback: null };
const rules = sampleRules({
  extras: [
    { ...field, id: 'salePrice', label: 'Sale price', type: 'money', against: 'below-price', sells: true },
    { ...field, id: 'tiers', label: 'Tiers', type: 'list', form: 'tiers', maxItems: 3, maxLength: 20 },
    { ...field, id: 'ads', label: 'Advertising', type: 'integer', suggested: 6.4, max: 20 },
  ],
});
const valuesWith = (defaults: Record<string, string>, price = 10_000) => {
  const { values, issues } = computeListing({
    item: sampleItem({ price }),
    overrides: {},
    account: sampleAccount(rules, { defaults }),
  });
  const of = (id: string) => values.find((one) => one.field === `extra.${id}`)?.value;
  return { sale: of('salePrice'), tiers: of('tiers'), ads: of('ads'), codes: issues.map((one) => one.field) };
};

test('a sale price and tiers of an account follow each item’s own price', () => {
  expect(valuesWith({ salePrice: '-10 %', tiers: '3: -5 %; 10: -12,5 %' })).toMatchObject({
    sale: 9_000,
    tiers: ['3: 95.00', '10: 87.50'],
  });
  expect(valuesWith({ salePrice: '-10 %' }, 4_950).sale).toBe(4_455);
});

test('the suggested rate is a manner: whatever it is by now, rounded up', () => {
  expect(valuesWith({ ads: 'suggested' }).ads).toBe(7);
  expect(valuesWith({}).ads).toBeNull();
});

test('what is no share stays as it was typed, and is told as wrong at its place', () => {
  expect(readPercentOff('-10')).toBeNull();
  expect(valuesWith({ salePrice: 'cheap' })).toMatchObject({ sale: 'cheap', codes: ['extra.salePrice'] });
});
