import { spawn } from 'node:child_process';
import { join, resolve } from 'node:path';
import { and, eq, inArray, sql } from 'drizzle-orm';
import { onItem, type Step } from '../../../src/core/edit';
import { closeDatabase, database, transaction } from '../../../src/db/client';
import { changeRecord, item, run, task } from '../../../src/db/schema';
import type { EditTask } from '../../../src/services/changes/many/edit-step';
import { editStep } from '../../../src/services/changes/many/edit-step';
import { LostTask } from '../../../src/services/records/tasks/advance-task';
import { startTask } from '../../../src/services/records/tasks/start-task';
import { readyItem } from '../../support/items';
import { call, until } from '../../support/stack';

const db = database();
const actor = { id: 'ines', name: 'Ines' };
const root = resolve(__dirname, '..', '..', '..');
const lower: Step[] = [onItem('price', { verb: 'percent', basisPoints: -1_000 })];
afterAll(closeDatabase);

async function items(count: number): Promise<number[]> {
  const ids: number[] = [];
  for (let made = 0; made < count; made++) ids.push((await readyItem({ price: 10_000 })).id);
  return ids;
}

/** A change of many as a request begins it, held by somebody. */
const begin = (ids: number[], holder: string) =>
  transaction(async (tx) => {
    const [{ insertId: runId }] = await tx
      .insert(run)
      .values({ kind: 'edit', title: 'Ten percent less', detail: {}, byName: actor.name });
    const input: EditTask = { ids, steps: lower, send: false };
    return startTask(tx, actor, { kind: 'edit', title: 'Ten percent less', input, total: ids.length, runId, holder });
  });
const rowOf = async (id: number) => (await db.select().from(task).where(eq(task.id, id)))[0];
const prices = async (ids: number[]) =>
  (await db.select({ price: item.price }).from(item).where(inArray(item.id, ids)).orderBy(item.id)).map(
    (one) => one.price,
  );
/** The holder gives no more sign of life. */
const runOut = (id: number) =>
  db.update(task).set({ leaseUntil: sql`utc_timestamp(3) - interval 1 second` }).where(eq(task.id, id));

test('killed in its middle it goes on elsewhere, and does nothing twice', async () => {
  const ids = await items(6);
  const begun = await begin(ids, 'to-be-killed');
  const child = spawn(
    process.execPath,
    ['--import', 'tsx', join(root, 'tests/support/half-a-task.ts'), String(begun.id), 'to-be-killed'],
    { cwd: root, env: process.env },
  );
  let said = '';
  let wrong = '';
  child.stdout.on('data', (text: Buffer) => {
    said += text.toString();
  });
  child.stderr.on('data', (text: Buffer) => {
    wrong += text.toString();
  });
  await until(
    async () => said,
    (text) => text.includes('inside'),
  );
  expect(wrong).toBe('');
  child.kill('SIGKILL');
  await new Promise((ended) => child.once('exit', ended));
  // What was kept is whole: the two of the first step, none of the second.
  await until(
    () => prices(ids),
    (now) => now.filter((price) => price === 9_000).length === 2,
  );
  expect(await rowOf(begun.id)).toMatchObject({ state: 'running', doneCount: 2, leaseOwner: 'to-be-killed' });
  await runOut(begun.id);
  await until(
    () => rowOf(begun.id),
    (row) => row?.state === 'done',
  );
  expect(await prices(ids)).toEqual(ids.map(() => 9_000));
  const history = await db
    .select()
    .from(changeRecord)
    .where(eq(changeRecord.runId, begun.runId ?? 0));
  expect(history.map((one) => one.itemId).sort()).toEqual([...ids].sort());
  expect(
    (
      await db
        .select()
        .from(run)
        .where(eq(run.id, begun.runId ?? 0))
    )[0]?.itemCount,
  ).toBe(6);
});

test('one whose lease ran out keeps nothing of what it was about to do', async () => {
  const ids = await items(2);
  const begun = await begin(ids, 'slow');
  await db.update(task).set({ leaseOwner: 'somebody-else' }).where(eq(task.id, begun.id));
  await expect(editStep(begun, 'slow')).rejects.toThrow(LostTask);
  expect(await prices(ids)).toEqual([10_000, 10_000]);
  await db.delete(task).where(eq(task.id, begun.id));
});

test('stopped by a person it keeps what is done, goes on when asked, and is taken back as a whole', async () => {
  const ids = await items(4);
  const begun = await begin(ids, 'here');
  const half = await editStep(begun, 'here', 2);
  expect(half).toMatchObject({ state: 'running', doneCount: 2 });
  expect((await call('POST', `/runs/${begun.runId}/undo`, {})).status).toBe(409);
  expect((await call('POST', `/tasks/${begun.id}/stop`, {})).status).toBe(201);
  await runOut(begun.id);
  await until(
    () => rowOf(begun.id),
    (row) => row?.state === 'stopped',
  );
  expect(await prices(ids)).toEqual([9_000, 9_000, 10_000, 10_000]);
  type Tasks = { tasks: { id: number; state: string; done: number; total: number }[] };
  const seen = (await call<Tasks>('GET', '/tasks')).body.tasks.find((one) => one.id === begun.id);
  expect(seen).toMatchObject({ state: 'stopped', done: 2, total: 4 });

  expect((await call('POST', `/tasks/${begun.id}/resume`, {})).status).toBe(201);
  await until(
    () => rowOf(begun.id),
    (row) => row?.state === 'done',
  );
  expect(await prices(ids)).toEqual(ids.map(() => 9_000));
  expect((await call('POST', `/tasks/${begun.id}/stop`, {})).status).toBe(409);
  const undone = await call<{ items: number; finished: boolean }>('POST', `/runs/${begun.runId}/undo`, {});
  expect(undone.body).toMatchObject({ items: 4, finished: true });
  expect(await prices(ids)).toEqual(ids.map(() => 10_000));
});

test('what cannot be done fails with a sentence and holds up nobody', async () => {
  const broken = await startTask(db, actor, { kind: 'publish', title: 'Broken', input: { nonsense: 1 }, total: 1 });
  const fine = await begin(await items(1), 'nobody');
  await runOut(fine.id);
  await until(
    () => rowOf(fine.id),
    (row) => row?.state === 'done',
  );
  expect(await rowOf(broken.id)).toMatchObject({
    state: 'failed',
    message: 'It was written down in a way that is not understood',
  });
  await db.delete(task).where(and(eq(task.id, broken.id)));
});
