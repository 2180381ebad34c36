import { eq, inArray, isNull, sql } from 'drizzle-orm';
import mysql from 'mysql2/promise';
import { closeDatabase, database } from '../../../src/db/client';
import { account, job } from '../../../src/db/schema';
import { publishItems, readyFilm, stateOn } from '../../support/items';
import { accountOf, call, control, stack, until } from '../../support/stack';

const db = database();
afterAll(closeDatabase);

const markets = ['Hallowick', 'Shopfront', 'Swishel', 'Glintfeed'];
const ownersOf = async (ids: number[]) =>
  new Map(
    (await db.select({ id: account.id, owner: account.laneOwner }).from(account).where(inArray(account.id, ids))).map(
      (row) => [row.id, row.owner],
    ),
  );

/** A second worker that says it is there, and takes nothing: the first one has to give half of its lanes up. */
function anotherWorker(): () => Promise<void> {
  const name = `beside-${process.pid}`;
  const say = () =>
    db.execute(
      sql`insert into worker_presence (name, seen_at) values (${name}, utc_timestamp(3)) on duplicate key update seen_at = utc_timestamp(3)`,
    );
  const timer = setInterval(() => void say().catch(() => undefined), 1_000);
  void say();
  return async () => {
    clearInterval(timer);
    await db.execute(sql`delete from worker_presence where name = ${name}`);
  };
}

test('a lane that is to go to another worker still ends what is sold', async () => {
  const accounts = await Promise.all(markets.map(accountOf));
  const [last, slow] = await Promise.all([readyFilm(1), readyFilm(1)]);
  await publishItems([last.id], accounts);
  const states = () => Promise.all(accounts.map((one) => stateOn(last.id, one)));
  await until(states, (all) => all.every((state) => state === 'live'));
  for (const market of markets)
    await control(market.toLowerCase(), 'fault', { kind: 'slow', method: 'POST', ms: 16_000 });
  await publishItems([slow.id], accounts);
  const running = () => db.select().from(job).where(eq(job.state, 'running'));
  await until(running, (jobs) => accounts.every((id) => jobs.some((one) => one.accountId === id)));
  const before = await ownersOf(accounts);

  const leave = anotherWorker();
  try {
    // Idle lanes are given up by now; the busy ones of that half are to follow as soon as nothing runs in them.
    await until(
      () => db.select({ id: account.id }).from(account).where(isNull(account.laneOwner)),
      (given) => given.length > 0,
    );
    await call('POST', `/items/${last.id}/sold`, { quantity: 1, unitPrice: 1_000 });
    await until(states, (all) => all.every((state) => state === 'ended'));
    expect((await running()).map((one) => one.accountId)).toEqual(expect.arrayContaining(accounts));
    expect(await ownersOf(accounts)).toEqual(before);
    // Then they do go.
    await until(
      async () => [...(await ownersOf(accounts)).values()],
      (owners) => owners.some((owner) => owner === null),
    );
  } finally {
    await leave();
  }
  // Whoever is left takes them, and what was under way is there.
  await until(
    () => Promise.all(accounts.map((one) => stateOn(slow.id, one))),
    (all) => all.every((state) => state === 'live'),
    60_000,
  );
}, 180_000);

test('a change of many waits for nobody who holds an account’s row', async () => {
  const oakhand = await accountOf('Oakhand');
  const item = await readyFilm(2);
  await publishItems([item.id], [oakhand]);
  await until(
    () => stateOn(item.id, oakhand),
    (state) => state === 'live',
  );
  const other = await mysql.createConnection({
    host: '127.0.0.1',
    port: stack.databasePort,
    user: 'netting',
    password: stack.databasePassword,
    database: 'netting',
  });
  try {
    await other.beginTransaction();
    await other.query('select id from account where id = ? for update', [oakhand]);
    const { body } = await call<{ runId: number }>('POST', '/edits', {
      selection: { kind: 'items', ids: [item.id] },
      steps: [{ field: 'price', do: { verb: 'set', value: 2_345 } }],
      send: true,
    });
    // Its job is in the line while the row is held still.
    await until(
      () => db.select().from(job).where(eq(job.runId, body.runId)),
      (jobs) => jobs.some((one) => one.accountId === oakhand),
    );
  } finally {
    await other.rollback();
    await other.end();
  }
});
