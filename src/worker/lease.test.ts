import { Lease, leaseMs } from './lease';

test('a lease is over before the database gives it to another worker, counted from before it was asked for', () => {
  let now = 1_000;
  const lease = new Lease(() => now);
  expect(lease.holds).toBe(false);
  const askedAt = lease.ask();
  now += 3_000; // the database was slow to answer
  lease.renewed(askedAt);
  expect(lease.holds).toBe(true);
  now = askedAt + leaseMs - 501;
  expect(lease.holds).toBe(true);
  now = askedAt + leaseMs - 499;
  expect(lease.holds).toBe(false);
});
