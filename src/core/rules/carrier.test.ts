import { computeListing } from '../listing';
import { carrierThere, netOfContent } from '../listing/net';
import type { Tariff } from '../price';
import { diff, mergeFields } from '../sync';
import { sampleAccount, sampleItem, sampleRules } from '../testing.test-data';
import { carrierField, compileRules, withCarrier } from '.';

const tariff = (id: string, cents: number): Tariff => ({
  id,
  name: id.toUpperCase(),
  volumeDivisor: 6_000,
  steps: [{ upToGrams: 5_000, cents }],
  bands: { home: 100 },
  longestMm: 1_000,
});
const tariffs = [tariff('dear', 700), tariff('cheap', 400)];
const bare = sampleRules();
const plain = { ...bare, fees: { ...bare.fees, labels: [] } };
const rules = withCarrier(plain, tariffs);

test('a marketplace that sells labels has no choice of a carrier, nor has one on which the buyer always pays', () => {
  expect(withCarrier(bare, tariffs)).toBe(bare);
  const never = { ...plain, sellerPaysWhen: null };
  expect(withCarrier(never, tariffs)).toBe(never);
  expect(withCarrier(plain, [])).toBe(plain);
  expect(rules.extras.at(-1)).toMatchObject({
    id: 'carrier',
    values: [
      { id: 'dear', label: 'DEAR' },
      { id: 'cheap', label: 'CHEAP' },
    ],
  });
  expect(plain.extras.some((one) => one.id === 'carrier')).toBe(false);
});

test('said by the account, or for one listing; the net goes by its quote, and by the cheapest where none is said', () => {
  const item = sampleItem({ weightGrams: 900 });
  const of = (defaults: Record<string, string>, overrides: Record<string, string> = {}) => {
    const account = sampleAccount(compileRules(rules).rules, {
      defaults: { postage: 'free', ...defaults },
      parcels: { boxes: [], tariffs },
    });
    const { content } = computeListing({ item, overrides, account });
    return [carrierThere(account, content, item)?.carrier, netOfContent(account, content, item, 0)?.postage];
  };
  expect(of({})).toEqual(['cheap', 400]);
  expect(of({ carrier: 'dear' })).toEqual(['dear', 700]);
  expect(of({ carrier: 'dear' }, { [carrierField]: 'cheap' })).toEqual(['cheap', 400]);
  // One that was there once and is not any more.
  expect(of({ carrier: 'gone' })).toEqual(['cheap', 400]);
});

test('it is no change of a listing', () => {
  const one = { title: 'A', [carrierField]: 'dear' };
  expect(diff(one, { title: 'A', [carrierField]: 'cheap' })).toEqual([]);
  expect(diff({ title: 'A' }, { ...one, title: 'B' }).map(({ field }) => field)).toEqual(['title']);
  expect(mergeFields({ title: 'A' }, one, { title: 'A' })).toEqual([]);
});
