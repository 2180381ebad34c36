import { eq, inArray } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { authRateLimit, peopleEvent } from '../../../src/db/schema';
import { forgetTries } from '../../../src/services/tasks/forget-tries';

afterAll(closeDatabase);

test('old tries and sign-ins go; fresh ones stay, and what was done about people stays for good', async () => {
  const db = database();
  const now = new Date();
  const ago = (days: number) => new Date(now.getTime() - days * 86_400_000);
  const run = `tries-${now.getTime()}`;
  const keys = [2, 0].map((days) => ({ key: `${run}-${days}`, lastRequest: ago(days).getTime() }));
  for (const one of keys) await db.insert(authRateLimit).values({ id: one.key, count: 1, ...one });
  for (const kind of ['change', 'sign-in'] as const)
    for (const days of [800, 1])
      await db.insert(peopleEvent).values({ at: ago(days), kind, byName: run, what: `${kind} ${days}` });
  await forgetTries(now, ago(730));
  const left = await db
    .select()
    .from(authRateLimit)
    .where(
      inArray(
        authRateLimit.key,
        keys.map((one) => one.key),
      ),
    );
  expect(left.map((one) => one.key)).toEqual([`${run}-0`]);
  const events = await db.select().from(peopleEvent).where(eq(peopleEvent.byName, run));
  expect(events.map((one) => one.what).sort()).toEqual(['change 1', 'change 800', 'sign-in 1']);
  await db.delete(peopleEvent).where(eq(peopleEvent.byName, run));
  await db.delete(authRateLimit).where(eq(authRateLimit.key, `${run}-0`));
});
