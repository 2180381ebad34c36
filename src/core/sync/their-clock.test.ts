import fc from 'fast-check';
import { heardClock, type TheirClock, theirDayBegan, theirTomorrow } from '.';

const day = 86_400_000;
const same: TheirClock = { aheadMs: 0, beforeMs: 0, changedAt: null };
const noon = new Date('2026-11-28T12:00:00.000Z');
const later = (ms: number) => new Date(noon.getTime() + ms);

test('the same clock: days begin at midnight', () => {
  expect(theirDayBegan(same, noon)).toEqual(new Date('2026-11-28T00:00:00.000Z'));
  expect(theirTomorrow(same, noon)).toEqual(new Date('2026-11-29T00:00:00.000Z'));
});

test('a clock that is three hours ahead has its midnight three hours sooner', () => {
  const ahead: TheirClock = { aheadMs: 3 * 3_600_000, beforeMs: 3 * 3_600_000, changedAt: null };
  expect(theirDayBegan(ahead, noon)).toEqual(new Date('2026-11-27T21:00:00.000Z'));
  expect(theirTomorrow(ahead, noon)).toEqual(new Date('2026-11-28T21:00:00.000Z'));
});

test('set a day ahead: what was made before counts to the day before', () => {
  const heard = heardClock(same, later(day), noon);
  expect(heard).toEqual({ aheadMs: day, beforeMs: 0, changedAt: noon });
  if (!heard) return;
  expect(theirDayBegan(heard, later(60_000))).toEqual(noon);
  // Set an hour ahead at noon it is the same day as before.
  const hour = heardClock(same, later(3_600_000), noon);
  expect(hour && theirDayBegan(hour, later(60_000))).toEqual(new Date('2026-11-28T00:00:00.000Z'));
});

test('what differs by the way of an answer is no other clock', () => {
  expect(heardClock(same, later(20_000), noon)).toBeNull();
  expect(heardClock(same, later(-20_000), noon)).toBeNull();
});

test('a day has begun, and the next one is to come, whatever the clocks say', () => {
  const ms = fc.integer({ min: -3 * day, max: 3 * day });
  fc.assert(
    fc.property(ms, ms, fc.integer({ min: 0, max: 2 * day }), (aheadMs, beforeMs, since) => {
      const clock = { aheadMs, beforeMs, changedAt: noon };
      const now = later(since);
      expect(theirDayBegan(clock, now).getTime()).toBeLessThanOrEqual(now.getTime());
      expect(now.getTime() - theirDayBegan(clock, now).getTime()).toBeLessThanOrEqual(
        day + Math.abs(aheadMs - beforeMs),
      );
      const wait = theirTomorrow(clock, now).getTime() - now.getTime();
      expect(wait).toBeGreaterThan(0);
      expect(wait).toBeLessThanOrEqual(day);
    }),
  );
});
