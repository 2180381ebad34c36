import fc from 'fast-check';
import { type Content, computeListing } from '../listing';
import { sampleAccount, sampleItem } from '../testing.test-data';
import {
  diff,
  driftedFields,
  type FieldDiff,
  knotState,
  type ListingFacts,
  mergeFields,
  planListing,
  priorities,
  retryPause,
} from '.';

const content = fc.dictionary(
  fc.constantFrom('title', 'price', 'quantity', 'tags'),
  fc.oneof(fc.string({ minLength: 1 }), fc.integer(), fc.array(fc.string())),
);
const whole = fc.record({ title: fc.string(), price: fc.integer(), tags: fc.array(fc.string()) });
const facts = (part: Partial<ListingFacts> = {}): ListingFacts => ({
  wanted: 'live',
  remote: 'live',
  dirty: false,
  drifted: false,
  busy: false,
  problem: false,
  ...part,
});

const applied = (content: Content, changes: FieldDiff[]): Content =>
  Object.fromEntries(
    Object.entries({ ...content, ...Object.fromEntries(changes.map(({ field, to }) => [field, to])) }).filter(
      ([, value]) => value !== null,
    ),
  );

test('a difference applied gives the other side, and equal sides differ in nothing', () => {
  fc.assert(fc.property(content, content, (a, b) => diff(applied(a, diff(a, b)), b).length === 0));
  fc.assert(fc.property(content, (a) => diff(a, { ...a }).length === 0));
});

test('merging equal sides is that side; both changed apart is a conflict', () => {
  fc.assert(
    fc.property(whole, whole, (base, side) => mergeFields(base, side, side).every((field) => field.verdict === 'same')),
  );
  expect(mergeFields({ price: 1 }, { price: 2 }, { price: 3 })[0]?.verdict).toBe('conflict');
  expect(mergeFields({ price: 1 }, { price: 2 }, { price: 1 })[0]?.verdict).toBe('ours');
  expect(mergeFields({ price: 1 }, { price: 1 }, { price: 3 })[0]?.verdict).toBe('theirs');
});

test('a field that they do not show back has not drifted', () => {
  expect(driftedFields({ title: 'a', photos: ['x'] }, { title: 'b' })).toEqual(['title']);
});

test.each([
  ['none', { wanted: 'none', remote: 'none' }],
  ['draft', { wanted: 'draft', remote: 'none' }],
  ['waiting', { remote: 'none', busy: true }],
  ['live', {}],
  ['live', { busy: true }],
  ['changed', { dirty: true }],
  ['changed', { drifted: true }],
  ['conflict', { dirty: true, drifted: true }],
  ['attention', { problem: true, dirty: true }],
  ['ended', { remote: 'ended' }],
  ['ended', { remote: 'gone' }],
  ['sold', { remote: 'sold' }],
] as [string, Partial<ListingFacts>][])('a knot is %s', (state, part) => expect(knotState(facts(part))).toBe(state));

describe('the plan', () => {
  const account = sampleAccount();
  const computed = (part = {}) => computeListing({ item: sampleItem(part), overrides: {}, account });

  test('makes what is wanted and not there, changes only what differs, leaves alone what is the same', () => {
    expect(planListing(facts({ remote: 'none' }), computed(), null)).toEqual({ kind: 'create' });
    expect(planListing(facts(), computed(), computed().content)).toMatchObject({ kind: 'nothing' });
    expect(planListing(facts(), computed({ price: 13_000 }), computed().content)).toEqual({
      kind: 'update',
      changes: [{ field: 'price', from: 14_900, to: 13_000 }],
    });
  });

  test('ends what is sold out or no longer wanted', () => {
    expect(planListing(facts(), computed({ quantity: 0 }), computed().content)).toEqual({ kind: 'end' });
    expect(planListing(facts({ wanted: 'ended' }), computed(), computed().content)).toEqual({ kind: 'end' });
    expect(planListing(facts({ wanted: 'ended', remote: 'none' }), computed(), null).kind).toBe('nothing');
  });

  test('sends nothing that is not ready, and makes nothing again by itself', () => {
    expect(planListing(facts({ remote: 'none' }), computed({ title: '' }), null).kind).toBe('not-ready');
    expect(planListing(facts({ remote: 'none' }), computed({ quantity: 0 }), null).kind).toBe('nothing');
    expect(planListing(facts({ remote: 'none' }), computed({ title: '', quantity: 0 }), null).kind).toBe('nothing');
    for (const remote of ['sold', 'ended', 'gone'] as const)
      expect(planListing(facts({ remote }), computed(), computed().content).kind).toBe('nothing');
  });
});

test('ends overtake quantities, quantities prices, prices new listings, and those texts', () => {
  const { end, quantity, price, create, content, renew } = priorities;
  expect([end, quantity, price, create, content, renew]).toEqual(
    [end, quantity, price, create, content, renew].sort((a, b) => a - b),
  );
});

test('pauses grow, respect what the marketplace asks for, and come to an end', () => {
  const pauses = [1, 2, 3].map((attempt) => retryPause(attempt, 0.5) ?? 0);
  expect([...pauses].sort((a, b) => a - b)).toEqual(pauses);
  expect(retryPause(1, 0.5, 90_000)).toBe(90_000);
  expect(retryPause(4, 0.5)).toBeNull();
});

test('ends and lowerings never give up: their pauses grow up to ten minutes and stay there', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1_000 }), fc.double({ min: 0, max: 1, noNaN: true }), (attempts, random) => {
      const pause = retryPause(attempts, random, 0, true);
      expect(pause).not.toBeNull();
      expect(pause).toBeLessThanOrEqual(600_000);
      expect(pause).toBeGreaterThanOrEqual(1_600);
    }),
  );
  const [third = 0, fourth = 0, tenth = 0] = [3, 4, 10].map((attempt) => retryPause(attempt, 0.5, 0, true) ?? 0);
  expect(fourth).toBeGreaterThan(third);
  expect(tenth).toBe(600_000);
});

describe('a listing that is reviewed', () => {
  const computed = computeListing({ item: sampleItem(), overrides: {}, account: sampleAccount() });
  const plan = (remote: ListingFacts['remote'], wanted: ListingFacts['wanted'] = 'live') =>
    planListing({ wanted, remote }, computed, remote === 'none' ? null : computed.content).kind;

  test('is there already: nothing is made twice, it can be changed and taken back', () => {
    expect(plan('review')).toBe('nothing');
    expect(plan('review', 'ended')).toBe('end');
    const changed = computeListing({ item: sampleItem({ price: 1_000 }), overrides: {}, account: sampleAccount() });
    expect(planListing({ wanted: 'live', remote: 'review' }, changed, computed.content)).toMatchObject({
      kind: 'update',
      changes: [{ field: 'price' }],
    });
  });

  test('once refused it is not sent again by itself', () => {
    expect(plan('refused')).toBe('nothing');
    expect(plan('none')).toBe('create');
  });

  test.each([
    [{ remote: 'review' }, 'waiting'],
    [{ remote: 'review', busy: true }, 'waiting'],
    [{ remote: 'refused', problem: true }, 'attention'],
    [{ remote: 'refused' }, 'ended'],
    [{ remote: 'refused', busy: true }, 'waiting'],
  ] as [Partial<ListingFacts>, string][])('%j is shown as %s', (part, state) =>
    expect(knotState(facts(part))).toBe(state),
  );
});
