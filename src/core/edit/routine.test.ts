import fc from 'fast-check';
import { accountsIn, nextDue, type RoutinePlan, routinePlanSchema, withAccounts } from '.';

const plan = (part: Partial<RoutinePlan> = {}): RoutinePlan => ({
  every: 'day',
  weekday: 0,
  time: '07:30',
  zone: 'Europe/Lisbon',
  most: 100,
  isTrial: false,
  ...part,
});

describe('when it is due', () => {
  test.each([
    ['the same day, when its time is still to come', plan(), '2026-11-26T06:00:00Z', '2026-11-26T07:30:00.000Z'],
    ['the next day, from its very moment on', plan(), '2026-11-26T07:30:00Z', '2026-11-27T07:30:00.000Z'],
    ['by the clock of summer', plan(), '2026-07-01T00:00:00Z', '2026-07-01T06:30:00.000Z'],
    ['far from here', plan({ zone: 'Pacific/Auckland' }), '2026-11-26T00:00:00Z', '2026-11-26T18:30:00.000Z'],
    ['once a week', plan({ every: 'week', weekday: 1 }), '2026-11-26T00:00:00Z', '2026-11-30T07:30:00.000Z'],
    // On this night 01:00 is followed by 02:00.
    ['in an hour that spring leaves out', plan({ time: '01:30' }), '2026-03-28T12:00:00Z', '2026-03-29T01:30:00.000Z'],
  ])('%s', (_, given, after, due) => expect(nextDue(given, new Date(after)).toISOString()).toBe(due));

  test('it is always later, within eight days and two hours, and shows its time on the clock of its zone', () => {
    const zones = ['UTC', 'Europe/Lisbon', 'America/New_York', 'Asia/Kathmandu', 'Australia/Lord_Howe'];
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 23 }),
        fc.integer({ min: 0, max: 59 }),
        fc.constantFrom(...zones),
        fc.constantFrom('day' as const, 'week' as const),
        fc.date({ min: new Date('2026-01-01'), max: new Date('2028-12-31'), noInvalidDate: true }),
        (hour, minute, zone, every, after) => {
          const time = `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
          const due = nextDue(plan({ time, zone, every, weekday: 3 }), after);
          expect(due.getTime()).toBeGreaterThan(after.getTime());
          expect(due.getTime() - after.getTime()).toBeLessThan(8 * 86_400_000 + 7_200_000);
          const shown = due.toLocaleTimeString('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit' });
          // Only an hour that does not exist is shown as another one.
          const apart = Math.abs(Number(shown.slice(0, 2)) * 60 + Number(shown.slice(3)) - hour * 60 - minute);
          expect(apart).toBeLessThanOrEqual(60);
          if (zone === 'UTC') expect(shown).toBe(time);
        },
      ),
    );
  });

  test.each([{ time: '7:30' }, { time: '24:00' }, { zone: 'Middle/Nowhere' }, { most: 0 }])('%j is no plan', (part) =>
    expect(routinePlanSchema.safeParse(plan(part)).success).toBe(false),
  );
});

describe('accounts by other numbers', () => {
  const said = {
    filter: { all: [{ listing: { account: 7, state: 'live' } }, { any: [{ listing: { account: 9 } }] }] },
    steps: [
      { field: 'price', where: { on: 'accounts', accounts: [7, 8] }, do: { verb: 'percent', basisPoints: -500 } },
      { field: 'title', where: { on: 'item' }, do: { verb: 'set', value: 'account' } },
    ],
  };
  test('every one that is named is found, in steps and at any depth of the filter', () =>
    expect(accountsIn(said).sort()).toEqual([7, 8, 9]));
  test('there and back is what it was', () => {
    const there = withAccounts(said, (account) => account + 100);
    expect(accountsIn(there).sort()).toEqual([107, 108, 109]);
    expect(withAccounts(there, (account) => account - 100)).toEqual(said);
  });
  test('one that has no other number is told', () =>
    expect(withAccounts(said, (account) => (account === 9 ? undefined : account))).toBeUndefined());
});
