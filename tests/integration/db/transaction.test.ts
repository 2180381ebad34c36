import { sql } from 'drizzle-orm';
import { closeDatabase, database, isDeadlock, isDuplicate, type Tx, transaction } from '../../../src/db/client';

const add = (tx: Tx, id: number) => tx.execute(sql`update lock_probe set count = count + 1 where id = ${id}`);
const counts = async () =>
  ((await database().execute(sql`select count from lock_probe order by id`))[0] as unknown as { count: number }[]).map(
    (row) => row.count,
  );

/** Lets the first pass of both sides go on only when both hold their first row. */
function bothAt(): () => Promise<void> {
  let open: () => void = () => undefined;
  const together = new Promise<void>((resolve) => {
    open = resolve;
  });
  let here = 0;
  return () => {
    if (++here === 2) open();
    return together;
  };
}

beforeAll(() => database().execute(sql`create or replace table lock_probe (id int primary key, count int not null)`));
beforeEach(async () => {
  await database().execute(sql`replace into lock_probe values (1, 0), (2, 0)`);
});
afterAll(async () => {
  await database().execute(sql`drop table lock_probe`);
  await closeDatabase();
});

test('of two that wait for each other one is run again, and each counts once', async () => {
  const meet = bothAt();
  let passes = 0;
  const side = (first: number, second: number) =>
    transaction(async (tx) => {
      passes++;
      await add(tx, first);
      await meet();
      await add(tx, second);
      return `${first}, then ${second}`;
    });
  expect(await Promise.all([side(1, 2), side(2, 1)])).toEqual(['1, then 2', '2, then 1']);
  expect(passes).toBe(3);
  expect(await counts()).toEqual([2, 2]);
});

test('where no further pass is allowed the one that lost is told so, and left nothing', async () => {
  const meet = bothAt();
  const side = (first: number, second: number) =>
    transaction(async (tx) => {
      await add(tx, first);
      await meet();
      await add(tx, second);
    }, 1);
  const ended = await Promise.allSettled([side(1, 2), side(2, 1)]);
  const lost = ended.filter((one) => one.status === 'rejected');
  expect(lost).toHaveLength(1);
  expect(isDeadlock(lost[0]?.reason)).toBe(true);
  expect(isDuplicate(lost[0]?.reason)).toBe(false);
  expect(await counts()).toEqual([1, 1]);
});

test('what fails half way leaves nothing, and is not run again', async () => {
  let passes = 0;
  const failing = transaction(async (tx) => {
    passes++;
    await add(tx, 1);
    await tx.execute(sql`insert into lock_probe values (2, 9)`);
  });
  const error: unknown = await failing.catch((caught: unknown) => caught);
  expect(isDuplicate(error)).toBe(true);
  expect(isDeadlock(error)).toBe(false);
  expect(passes).toBe(1);
  expect(await counts()).toEqual([0, 0]);
});
