import { eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database, transaction } from '../../db/client';
import { fileImport, fileImportRow, task } from '../../db/schema';
import type { Actor } from '../access/actor';
import { holderHere, startTask } from '../records/tasks/start-task';
import { workOnTask } from '../records/tasks/work-on-task';
import { type CheckTask, checkStep, noCounts } from './check-step';
import { loadImport } from './load-import';

/** Compares every row of a file with what is there; few rows are done when it answers, many go on in the background. */
export async function beginCheck(actor: Actor, id: number): Promise<{ taskId: number; finished: boolean }> {
  const holder = holderHere();
  const begun = await transaction(async (tx) => {
    // One after the other: two that begin at the same moment would keep every row twice.
    await tx.select({ id: fileImport.id }).from(fileImport).where(eq(fileImport.id, id)).for('update');
    const row = await loadImport(tx, id);
    if (row.state === 'applying' || row.state === 'applied')
      throw new NettingError('too-late', 'This file has been applied', { fix: 'Read it in again' });
    if (row.state === 'checking') throw new NettingError('too-late', 'It is being compared already');
    if (row.ties.every((one) => one === null))
      throw new NettingError('invalid', 'Say what at least one column is', { field: 'ties' });
    await tx.delete(fileImportRow).where(eq(fileImportRow.importId, id));
    const input: CheckTask = { importId: id };
    // How many rows there are is known at the end; the first ones say about how many to expect.
    const sample = row.samples[0]?.length ?? 0;
    const length = row.samples.flat().reduce((sum, one) => sum + one.length + 1, 0);
    const total = sample < 200 ? sample : Math.round(row.bytes / Math.max(1, length / sample));
    const started = await startTask(tx, actor, { kind: 'check', title: `Comparing ${row.name}`, input, total, holder });
    await tx
      .update(fileImport)
      .set({ state: 'checking', counts: noCounts, taskId: started.id })
      .where(eq(fileImport.id, id));
    return started;
  });
  try {
    const last = await workOnTask(begun, holder, checkStep);
    if (last.state === 'done') await database().delete(task).where(eq(task.id, begun.id));
    return { taskId: begun.id, finished: last.state === 'done' };
  } catch (error) {
    // A file that breaks off in its middle: nothing of it is applied, and it can be read otherwise.
    await transaction(async (tx) => {
      await tx.delete(fileImportRow).where(eq(fileImportRow.importId, id));
      await tx.update(fileImport).set({ state: 'open', counts: noCounts, taskId: null }).where(eq(fileImport.id, id));
      await tx.delete(task).where(eq(task.id, begun.id));
    });
    throw error;
  }
}
