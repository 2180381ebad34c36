import fc from 'fast-check';
import { Pacer } from './pacer';

/** Takes `count` turns one after the other on a clock that stands still while nobody waits. */
function turns(perMinute: number, count: number): number[] {
  let now = 1_000_000;
  const pacer = new Pacer(perMinute, () => now);
  return Array.from({ length: count }, () => {
    now += pacer.take();
    return now;
  });
}

test('in any minute no more turns are given than the rate and a small burst', () => {
  fc.assert(
    fc.property(fc.integer({ min: 10, max: 1_200 }), (perMinute) => {
      const times = turns(perMinute, 300);
      return times.every(
        (start) => times.filter((time) => time >= start && time < start + 60_000).length <= perMinute + 4,
      );
    }),
  );
});

test('a thousand turns take hardly longer than the rate allows', () => {
  const times = turns(600, 1_000);
  const took = (times.at(-1) ?? 0) - (times[0] ?? 0);
  expect(took).toBeLessThanOrEqual((1_000 / 600) * 60_000 * 1.1);
});

test('“too many” pushes all further turns back', () => {
  let now = 0;
  const pacer = new Pacer(60_000, () => now);
  pacer.take();
  pacer.backOff(5_000);
  expect(pacer.take()).toBe(5_000);
  now = 20_000;
  expect(pacer.take()).toBe(0);
});

test('who is urgent goes before those who wait already, and nobody is forgotten', async () => {
  const pacer = new Pacer(6_000);
  const order: string[] = [];
  const ask = (name: string, urgent = false) => pacer.turn(urgent).then(() => order.push(name));
  const all = ['a', 'b', 'c', 'd', 'e', 'f', 'g'].map((name) => ask(name));
  all.push(ask('urgent', true));
  await Promise.all(all);
  expect(order).toHaveLength(8);
  expect(order.indexOf('urgent')).toBeLessThan(order.indexOf('g'));
  expect(order.filter((name) => name !== 'urgent')).toEqual(['a', 'b', 'c', 'd', 'e', 'f', 'g']);
  expect(pacer.waiting).toBe(0);
});
