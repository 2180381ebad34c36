import { eq } from 'drizzle-orm';
import { database } from '../../src/db/client';
import { ownTransaction } from '../../src/db/raw';
import { task } from '../../src/db/schema';
import { changePortion } from '../../src/services/changes/many/change-portion';
import { type EditTask, editStep } from '../../src/services/changes/many/edit-step';

/** Does one step of a task that it holds, begins the next one, says so, and waits in the middle of it to be killed. */
async function half(id: number, holder: string): Promise<void> {
  const [row] = await database().select().from(task).where(eq(task.id, id));
  if (!row) throw new Error(`there is no task ${id}`);
  const after = await editStep(row, holder, 2);
  const { ids, steps, send } = after.input as EditTask; // written by the test
  await ownTransaction(async (db, connection) => {
    const actor = { id: row.byId, name: row.byName };
    await changePortion(db, ids.slice(2, 4), { connection, actor, runId: row.runId ?? 0, steps, send });
    console.log('inside');
    await new Promise(() => undefined);
  });
}

const [id, holder] = process.argv.slice(2);
// The database's connection alone does not keep the process.
setInterval(() => undefined, 1_000);
void half(Number(id), String(holder));
