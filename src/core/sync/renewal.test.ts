import fc from 'fast-check';
import { type RenewalFacts, renewalOrder, renewalRuleSchema, renewalVerdict } from '.';

const now = new Date('2026-06-30T10:00:00Z');
const daysAgo = (days: number) => new Date(now.getTime() - days * 86_400_000);
const facts = (part: Partial<RenewalFacts> = {}): RenewalFacts => ({
  state: 'live',
  liveSince: daysAgo(25),
  renewsAt: daysAgo(-3),
  offersOpen: 0,
  quantity: 1,
  busy: false,
  ...part,
});
const rule = { minDays: 20, withinDays: null };

describe('whether a listing may be made anew', () => {
  test('it is due when it is old enough and nothing blocks it', () => {
    expect(renewalVerdict(facts(), rule, now)).toEqual({ due: true, blocks: null, days: 25, daysToTheirs: 3 });
    expect(renewalVerdict(facts({ liveSince: daysAgo(19) }), rule, now).due).toBe(false);
    expect(renewalVerdict(facts({ liveSince: null }), rule, now)).toMatchObject({ due: false, days: null });
  });

  test.each([
    [{ state: 'review' as const }, 'review'],
    [{ state: 'elsewhere' as const }, 'not live'],
    [{ quantity: 0 }, 'sold out'],
    [{ offersOpen: 1 }, '1 open offer there'],
    [{ offersOpen: 2 }, '2 open offers there'],
    [{ busy: true }, 'on its way'],
  ])('%j blocks it, and it is said why', (part, words) => {
    const verdict = renewalVerdict(facts(part), rule, now);
    expect(verdict.blocks).toContain(words);
    expect(verdict.due).toBe(false);
  });

  test('where only those are wanted that the marketplace would charge for soon, the others are not due', () => {
    const soon = { minDays: 1, withinDays: 2 };
    expect(renewalVerdict(facts({ renewsAt: daysAgo(-1) }), soon, now).due).toBe(true);
    expect(renewalVerdict(facts({ renewsAt: daysAgo(-5) }), soon, now).due).toBe(false);
    expect(renewalVerdict(facts({ renewsAt: null }), soon, now).due).toBe(false);
  });
});

test('those that the marketplace would renew soonest come first, then the oldest', () => {
  const listings = [
    facts({ liveSince: daysAgo(5), renewsAt: null }),
    facts({ liveSince: daysAgo(90), renewsAt: null }),
    facts({ liveSince: daysAgo(2), renewsAt: daysAgo(-26) }),
    facts({ liveSince: daysAgo(27), renewsAt: daysAgo(-1) }),
  ];
  expect([...listings].sort(renewalOrder)).toEqual([listings[3], listings[2], listings[1], listings[0]]);
});

test('the order is the same from whichever side it is looked at', () => {
  const one = fc.record({
    liveSince: fc.option(fc.integer({ min: 0, max: 400 }).map(daysAgo)),
    renewsAt: fc.option(fc.integer({ min: -60, max: 0 }).map(daysAgo)),
  });
  fc.assert(
    fc.property(
      one,
      one,
      (a, b) => Math.sign(renewalOrder(a, b)) === -Math.sign(renewalOrder(b, a)) || renewalOrder(a, b) === 0,
    ),
  );
});

test('a daily plan has to be of this world', () => {
  const plan = { on: true, minDays: 20, mostPerDay: 10, withinDays: null };
  expect(renewalRuleSchema.safeParse(plan).success).toBe(true);
  for (const part of [{ minDays: 0 }, { mostPerDay: 0 }, { withinDays: 0 }, { mostPerDay: 1.5 }, { extra: 1 }])
    expect(renewalRuleSchema.safeParse({ ...plan, ...part }).success).toBe(false);
});
