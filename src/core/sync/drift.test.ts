import fc from 'fast-check';
import type { Content } from '../listing';
import { answerFor, canBeTaken, type DriftRules, driftOf } from '.';

/** A listing as it is right after it was sent: they show what we sent, in their own way of showing. */
const settled = (part: { wanted?: Content; seen?: Content } = {}) => {
  const sent: Content = {
    title: 'Brask K-2',
    price: 14_900,
    weightGrams: 907,
    tags: ['camera'],
    sku: 'C1',
    quantity: 1,
  };
  // They round weights and put tags in capitals: that is their way, not a change.
  const base: Content = { ...sent, weightGrams: 900, tags: ['CAMERA'] };
  return { sent, base, wanted: { ...sent, ...part.wanted }, seen: { ...base, ...part.seen } };
};
const verdicts = (part: Parameters<typeof settled>[0], rules: DriftRules = {}) =>
  driftOf(settled(part), rules).map(({ field, verdict, answer }) => [field, verdict, answer]);

describe('what has to be settled with a marketplace', () => {
  test('is nothing right after it was sent, however they show it', () => {
    expect(driftOf(settled(), {})).toEqual([]);
  });

  test('is nothing when only we changed: that is on its way anyhow', () => {
    expect(verdicts({ wanted: { title: 'Ours', weightGrams: 800 } })).toEqual([]);
  });

  test('is what only they changed, with both values', () => {
    expect(driftOf(settled({ seen: { title: 'Theirs' } }), {})).toEqual([
      { field: 'title', sent: 'Brask K-2', wanted: 'Brask K-2', seen: 'Theirs', verdict: 'theirs', answer: 'ask' },
    ]);
    expect(verdicts({ seen: { weightGrams: 850 } })).toEqual([['weightGrams', 'theirs', 'ask']]);
  });

  test('is a conflict when both changed apart, and nothing when both came to the same', () => {
    expect(verdicts({ wanted: { title: 'Ours' }, seen: { title: 'Theirs' } })).toEqual([['title', 'conflict', 'ask']]);
    expect(verdicts({ wanted: { title: 'Same' }, seen: { title: 'Same' } })).toEqual([]);
  });

  test('is never the number of units or the stock number: those have their own ways', () => {
    expect(verdicts({ seen: { quantity: 0, sku: 'X' } })).toEqual([]);
  });

  test('is not what they began to show only now', () => {
    expect(verdicts({ seen: { brand: 'Brask' } })).toEqual([]);
  });

  test('a field that they took away differs', () => {
    const { seen, ...rest } = settled();
    const { title: _title, ...without } = seen;
    expect(driftOf({ ...rest, seen: { ...without, title: '' } }, {})).toHaveLength(1);
  });
});

describe('rules', () => {
  test('a field’s own rule goes before the one for everything; without any a person is asked', () => {
    expect(answerFor({}, 'title')).toBe('ask');
    expect(answerFor({ '*': 'take' }, 'title')).toBe('take');
    expect(answerFor({ '*': 'take', title: 'put-back' }, 'title')).toBe('put-back');
  });

  test('decide where only they changed, and never a conflict', () => {
    expect(verdicts({ seen: { title: 'Theirs', price: 1 } }, { title: 'take', '*': 'put-back' })).toEqual([
      ['price', 'theirs', 'put-back'],
      ['title', 'theirs', 'take'],
    ]);
    expect(verdicts({ wanted: { title: 'Ours' }, seen: { title: 'Theirs' } }, { '*': 'take' })).toEqual([
      ['title', 'conflict', 'ask'],
    ]);
  });

  test('pictures, products and stock cannot be taken over, words and prices can', () => {
    expect(['photos', 'product', 'variations', 'quantity', 'sku'].map(canBeTaken)).toEqual(Array(5).fill(false));
    expect(['title', 'price', 'description', 'attr.colour', 'extra.place'].map(canBeTaken)).toEqual(
      Array(5).fill(true),
    );
  });
});

const value = fc.oneof(fc.string({ minLength: 1, maxLength: 5 }), fc.integer({ min: 0, max: 9 }));
const content = fc.record({ title: value, brand: value, price: value });

test('putting ours back leaves nothing to settle, and neither does taking theirs', () => {
  fc.assert(
    fc.property(content, content, content, (sent, wanted, seen) => {
      const open = driftOf({ base: sent, sent, wanted, seen }, {}).map((one) => one.field);
      // Ours: they are told again, so what they show counts as known.
      const ours = { ...sent };
      const base = { ...sent };
      const taken = { ...wanted };
      for (const field of open) {
        base[field as keyof typeof base] = seen[field as keyof typeof seen];
        ours[field as keyof typeof ours] = seen[field as keyof typeof seen];
        taken[field as keyof typeof taken] = seen[field as keyof typeof seen];
      }
      return (
        driftOf({ base, sent: ours, wanted, seen }, {}).length === 0 &&
        driftOf(
          {
            base,
            sent: { ...sent, ...Object.fromEntries(open.map((field) => [field, taken[field as keyof typeof taken]])) },
            wanted: taken,
            seen,
          },
          {},
        ).length === 0
      );
    }),
  );
});

test('what is to be settled is always something that they changed', () => {
  fc.assert(
    fc.property(content, content, content, (sent, wanted, seen) =>
      driftOf({ base: sent, sent, wanted, seen }, {}).every(
        ({ field }) => seen[field as keyof typeof seen] !== sent[field as keyof typeof sent],
      ),
    ),
  );
});
