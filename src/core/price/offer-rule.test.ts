import fc from 'fast-check';
import { sampleRules } from '../testing.test-data';
import { netOf, type OfferRule, offerRuleSchema, offerVerdict } from '.';

const at = (price: number) =>
  netOf({
    fees: sampleRules().fees,
    price,
    cost: 5_000,
    categoryId: null,
    liveCount: 0,
    weightGrams: 900,
    sellerPaysPostage: false,
    packaging: 60,
  });
const same = (amount: number) => amount;
const rule: OfferRule = {
  acceptFrom: { kind: 'net', amount: 4_000 },
  declineBelow: { kind: 'net', amount: 1_000 },
};

test('taken where enough is left, declined where too little is, and a person is asked between', () => {
  expect(offerVerdict(at(12_000), rule, same)).toBe('accept');
  expect(offerVerdict(at(9_000), rule, same)).toBe('ask');
  expect(offerVerdict(at(6_000), rule, same)).toBe('decline');
  expect(offerVerdict(at(12_000), { acceptFrom: null, declineBelow: null }, same)).toBe('ask');
});

test('amounts are of the shop’s own currency; without a rate nobody decides by them', () => {
  expect(offerVerdict(at(12_000), rule, (amount) => amount * 2)).toBe('ask');
  expect(offerVerdict(at(6_000), rule, () => null)).toBe('ask');
});

test('a higher offer is never treated worse than a lower one', () => {
  const rank = { decline: 0, ask: 1, accept: 2 };
  fc.assert(
    fc.property(fc.nat(20_000), fc.nat(20_000), fc.nat(8_000), fc.nat(8_000), (price, more, low, above) => {
      const some: OfferRule = {
        acceptFrom: { kind: 'net', amount: low + above },
        declineBelow: { kind: 'net', amount: low },
      };
      const of = (amount: number) => rank[offerVerdict(at(amount), some, same)];
      // Fees are rounded: a cent more may leave a cent less.
      expect(of(price + more + 2)).toBeGreaterThanOrEqual(of(price));
    }),
  );
});

test('what is declined may not lie above what is taken', () => {
  const wrong = { acceptFrom: { kind: 'net', amount: 100 }, declineBelow: { kind: 'net', amount: 200 } };
  expect(offerRuleSchema.safeParse(wrong).success).toBe(false);
  expect(offerRuleSchema.safeParse(rule).success).toBe(true);
});
