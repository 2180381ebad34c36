import fc from 'fast-check';
import { afterAnswer, afterSilence, fullPace, healthy, paceOn, permission, secondsFor, waitForNew } from '.';
import { daysOf } from './pace';

const allowed = { perMinute: 600, newPerDay: 200 };
const noon = new Date('2026-05-10T12:00:00Z');
const midnight = new Date('2026-05-11T00:00:00Z');

describe('the pace of an account', () => {
  test('is what the marketplace allows, or less when its seller wants less', () => {
    expect(paceOn(allowed, fullPace, noon)).toEqual({ perMinute: 600, newToday: 200, spread: false });
    expect(paceOn(allowed, { ...fullPace, perMinute: 60, newPerDay: 30 }, noon)).toMatchObject({
      perMinute: 60,
      newToday: 30,
    });
    expect(paceOn(allowed, { ...fullPace, perMinute: 9_000, newPerDay: 900 }, noon)).toMatchObject({
      perMinute: 600,
      newToday: 200,
    });
  });

  test('of a new shop begins with a tenth and grows to the whole in two weeks', () => {
    const on = (day: number) =>
      paceOn(allowed, { ...fullPace, slowStartFrom: '2026-05-01' }, new Date(Date.UTC(2026, 4, 1 + day, 12))).newToday;
    const days = Array.from({ length: 20 }, (_, day) => on(day));
    expect(days[0]).toBe(20);
    expect(days[14]).toBe(200);
    expect(days).toEqual([...days].sort((a, b) => a - b));
  });

  test('is never above either side and never below one a day', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 5_000 }),
        fc.integer({ min: 1, max: 5_000 }),
        fc.integer({ min: 0, max: 30 }),
        (theirs, ours, day) => {
          const pace = paceOn(
            { perMinute: 60, newPerDay: theirs },
            { ...fullPace, newPerDay: ours, slowStartFrom: '2026-05-01' },
            new Date(Date.UTC(2026, 4, 1 + day, 1)),
          );
          return pace.newToday >= 1 && pace.newToday <= Math.min(theirs, ours);
        },
      ),
    );
  });
});

describe('the next new listing', () => {
  const pace = paceOn(allowed, { ...fullPace, newPerDay: 24 }, noon);
  test('goes at once until the daily number is reached, then after midnight', () => {
    expect(waitForNew(pace, { today: 23, last: noon }, noon, midnight)).toBe(0);
    expect(waitForNew(pace, { today: 24, last: noon }, noon, midnight)).toBe(12 * 3_600_000 + 5_000);
  });
  test('waits its part of the day when they are spread', () => {
    const spread = { ...pace, spread: true };
    expect(waitForNew(spread, { today: 0, last: null }, noon, midnight)).toBe(0);
    expect(waitForNew(spread, { today: 3, last: new Date(noon.getTime() - 600_000) }, noon, midnight)).toBe(3_000_000);
    expect(waitForNew(spread, { today: 3, last: new Date(noon.getTime() - 3_600_000) }, noon, midnight)).toBe(0);
  });
});

test('the time for a piece of work counts requests, and days where the daily number puts it off', () => {
  const pace = { perMinute: 60, newToday: 10, spread: false };
  expect(secondsFor({ create: 5, update: 10, end: 0, renew: 0 }, pace)).toBe(20);
  expect(secondsFor({ create: 25, update: 0, end: 0, renew: 0 }, pace, 5)).toBe(50 + 2 * 86_400);
  expect(secondsFor({ create: 10, update: 0, end: 0, renew: 0 }, { ...pace, spread: true })).toBe(86_400);
});

describe('a marketplace that does not answer', () => {
  const after = (times: number) => {
    let health = healthy;
    for (let time = 0; time < times; time++) health = afterSilence(health, noon);
    return health;
  };
  test('is left alone after five silences in a row, and asked again later and later', () => {
    expect(permission(after(4), noon)).toBe('send');
    expect(permission(after(5), noon)).toBe('wait');
    expect(permission(after(5), new Date(noon.getTime() + 2_000))).toBe('probe');
    const pauses = [5, 6, 7, 20].map((times) => (after(times).probeAt?.getTime() ?? 0) - noon.getTime());
    expect(pauses).toEqual([2_000, 4_000, 8_000, 120_000]);
  });
  test('is well again after one answer', () => {
    expect(permission(afterAnswer(after(9)), noon)).toBe('send');
    expect(afterSilence(afterAnswer(after(4)), noon)).toMatchObject({ failures: 1, unwellSince: null });
  });
});

test('new listings by their days: today as many as there is room for, then as many as a day takes', () => {
  const pace = { newToday: 8 };
  expect(daysOf(24, pace, 0, '2026-11-28')).toEqual([
    { on: '2026-11-28', count: 8 },
    { on: '2026-11-29', count: 8 },
    { on: '2026-11-30', count: 8 },
  ]);
  expect(daysOf(3, pace, 8, '2026-11-30')).toEqual([{ on: '2026-12-01', count: 3 }]);
  expect(daysOf(0, pace, 3, '2026-11-28')).toEqual([]);
});
