import fc from 'fast-check';
import { covers, lesser, roles, withheldField, withoutCosts } from '.';

const role = fc.constantFrom(...roles);

test('each role may do what those after it may, and no more', () => {
  expect(roles.map((needed) => roles.map((has) => covers(has, needed)))).toEqual([
    [true, false, false],
    [true, true, false],
    [true, true, true],
  ]);
  fc.assert(
    fc.property(role, role, role, (one, other, needed) => {
      expect(covers(lesser(one, other), needed)).toBe(covers(one, needed) && covers(other, needed));
    }),
  );
});

test('an answer without costs is the same answer but for them', () => {
  expect(
    withoutCosts({
      item: { id: 3, cost: 5_000, price: 9_000, photos: ['a'] },
      nets: [1, 2],
      history: [
        { field: 'cost', from: 1, to: 2 },
        { field: 'title', from: 'a', to: 'b' },
      ],
      at: null,
    }),
  ).toEqual({
    item: { id: 3, cost: null, price: 9_000, photos: ['a'] },
    nets: [],
    history: [{ field: 'title', from: 'a', to: 'b' }],
    at: null,
  });
});

test('whatever the answer, no cost is left in it; what has none stays as it is', () => {
  const secret = 7_777_123;
  fc.assert(
    fc.property(fc.json(), fc.constantFrom('cost', 'net', 'margin', 'totalCost'), (text, key) => {
      const around: unknown = JSON.parse(text);
      const hidden = JSON.stringify(withoutCosts([around, { deep: [{ [key]: secret, beside: around }] }]));
      expect(hidden).not.toContain(String(secret));
      if (!/cost|net|margin|best|shares/i.test(text)) expect(withoutCosts(around)).toEqual(around);
    }),
  );
});

test('a question that names a cost is known, at any depth and inside text', () => {
  expect(withheldField({ sort: 'cost' })).toBe('cost');
  expect(withheldField({ where: JSON.stringify({ all: [{ any: [{ field: 'cost', op: 'filled' }] }] }) })).toBe('cost');
  expect(withheldField({ where: '{"listing":{"netBelow":0}}' })).toBe('netBelow');
  expect(withheldField({ fields: { cost: 100 } })).toBe('cost');
  expect(withheldField({ fields: { cost: null } })).toBe('cost');
  expect(withheldField({ fields: { title: 'cost' }, q: 'cost', sort: undefined, where: '{broken' })).toBeNull();
});
