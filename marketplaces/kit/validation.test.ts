import { hallowick } from '../hallowick/market';
import { oakhand } from '../oakhand/market';
import { pippet } from '../pippet/market';
import type { Data, Look, Market, Seller } from './types';

const seller: Seller = {
  id: 's',
  market: '',
  name: 's',
  password: '',
  apiKey: '',
  exceptions: {},
  lockedUntil: 0,
  warned: false,
};
const look: Look = {
  now: Date.UTC(2026, 0, 15),
  photo: (id) =>
    id === 'p' ? { width: 1_200, height: 900 } : id === 'small' ? { width: 320, height: 240 } : undefined,
  clip: (id) => ({ short: { seconds: 12 }, long: { seconds: 16 } })[id],
  taken: () => null,
  own: null,
};
const leaf = (market: Market, name: string) => market.firstRules.categories.find((one) => one.name === name)?.id ?? '';
const problems = (market: Market, data: Data, who = seller) =>
  market.validate(data, market.firstRules, who, look).map((one) => one.pointer);

const camera: Record<string, [Market, Data]> = {
  hallowick: [
    hallowick,
    {
      heading: 'Brask K-2',
      story: '<p>Fine</p>',
      category: leaf(hallowick, 'Film SLR cameras'),
      details: { film_format: '35 mm', model: 'K-2' },
      condition: { grade: 'used' },
      price: { value: '149.00', currency: 'EUR' },
      stock: 1,
      pictures: ['p'],
      parcel: { pounds: 2 },
      terms: { returns: 'none', postage: 'free' },
    },
  ],
  pippet: [
    pippet,
    {
      name: 'Brask K-2',
      text: 'Checked and fine',
      category: leaf(pippet, 'Film cameras'),
      grade: 'fine',
      brand: 'Brask',
      cents: 14_900,
      photos: ['p'],
      postagePaidBy: 'buyer',
      weightClass: 'light',
    },
  ],
  oakhand: [
    oakhand,
    {
      name: 'Brask K-2',
      about: 'Fine',
      category: leaf(oakhand, 'Vintage film cameras'),
      condition: 'vintage-fine',
      price: 149,
      amount: 1,
      pictureNumbers: ['p'],
      maker: 'other',
      decade: '1970s',
      kind: 'finished',
      postageProfile: 'parcel',
      returnProfile: 'no',
    },
  ],
};

test.each(Object.entries(camera))('%s accepts a complete listing', (_name, [market, data]) =>
  expect(problems(market, data)).toEqual([]),
);

test.each([
  ['hallowick', { heading: 'x'.repeat(76) }, '/heading'],
  ['hallowick', { story: '<script>x</script>' }, '/story'],
  ['hallowick', { condition: { grade: 'brand-new', note: 'Forbidden' } }, '/condition/note'],
  ['hallowick', { details: {} }, '/details/film_format'],
  ['hallowick', { price: { value: '0.10', currency: 'EUR' } }, '/price/value'],
  ['hallowick', { price: { value: '10', currency: 'SGD' } }, '/price/currency'],
  ['hallowick', { pictures: Array(17).fill('p') }, '/pictures'],
  ['hallowick', { parcel: {} }, '/parcel/pounds'],
  ['pippet', { name: 'x'.repeat(46) }, '/name'],
  ['pippet', { text: 'short' }, '/text'],
  ['pippet', { text: 'Has <b>markup</b> in it' }, '/text'],
  ['pippet', { tags: ['a', 'b', 'c', 'd'] }, '/tags'],
  ['pippet', { brand: 'Unheard of' }, '/brand'],
  ['pippet', { category: 'p100' }, '/category'],
  ['oakhand', { tags: Array(13).fill('t') }, '/tags'],
  ['oakhand', { tags: ['semi;colon'] }, '/tags'],
  ['oakhand', { maker: null }, '/maker'],
  ['oakhand', { decade: '1830s' }, '/decade'],
  ['oakhand', { personalPrompt: 'x'.repeat(201) }, '/personalPrompt'],
  ['oakhand', { pictureNumbers: [] }, '/pictureNumbers'],
  ['oakhand', { clip: 'long' }, '/clip'],
  ['oakhand', { clip: 'never uploaded' }, '/clip'],
] as [string, Data, string][])('%s refuses %j at %s', (name, part, pointer) => {
  const [market, data] = camera[name] ?? [hallowick, {}];
  expect(problems(market, { ...data, ...part })).toContain(pointer);
});

test('a favoured account may write longer titles', () => {
  const [market, data] = camera.pippet ?? [pippet, {}];
  const long = { ...data, name: 'x'.repeat(90) };
  expect(problems(market, long)).toEqual(['/name']);
  expect(problems(market, long, { ...seller, exceptions: { title: 90 } })).toEqual([]);
});

test('fees as the marketplaces publish them', () => {
  expect(hallowick.feeOf(hallowick.firstRules, 10_000, { category: leaf(hallowick, 'Film SLR cameras') })).toBe(
    1_180 + 35,
  );
  expect(hallowick.feeOf(hallowick.firstRules, 300_000, { category: leaf(hallowick, 'Film SLR cameras') })).toBe(
    23_600 + 2_400 + 35,
  );
  expect(hallowick.feeOf(hallowick.firstRules, 10_000, { category: leaf(hallowick, 'Photography books') })).toBe(
    1_400 + 35,
  );
  expect(pippet.feeOf(pippet.firstRules, 10_000, {})).toBe(900 + 270 + 40);
  expect(oakhand.feeOf(oakhand.firstRules, 10_000, {})).toBe(620 + 320 + 25);
});
