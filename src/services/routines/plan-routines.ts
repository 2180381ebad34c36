import { and, eq, lte, type SQL, sql } from 'drizzle-orm';
import { nextDue, type RoutinePlan } from '../../core/edit';
import { NettingError } from '../../core/errors';
import { database, isAway, isDeadlock, transaction } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { routine } from '../../db/schema';
import { beginEdit } from '../changes/many/begin-edit';
import { previewCounts } from '../changes/preview/preview-counts';
import { knowSelection, selectionWhere } from '../records/items/selection';
import { type RoutineRow, selectionOf } from './load-routine';

const items = (count: number) => `${count.toLocaleString('en')} ${count === 1 ? 'item' : 'items'}`;

const idsWhere = async (where: SQL): Promise<number[]> =>
  rowsOf<{ id: number }>(await database().execute(sql`select i.id from item i where ${where} order by i.id`)).map(
    (row) => row.id,
  );

type Verdict = { said: string; needsLook: boolean; goes: boolean };

/** What a routine that is due would do, and whether it may. */
async function verdictOn(row: RoutineRow, plan: RoutinePlan): Promise<Verdict> {
  try {
    const { changed, refused } = await previewCounts({ selection: selectionOf(row), steps: row.steps });
    const without = refused.reduce((sum, one) => sum + one.count, 0);
    const left = without ? `, ${items(without)} cannot be changed this way` : '';
    if (plan.isTrial)
      return { said: `Tried: ${items(changed)} would change${left}. Nothing was done`, needsLook: true, goes: false };
    if (changed > plan.most)
      return {
        said: `${items(changed)} would change, more than ${plan.most.toLocaleString('en')}. Nothing was done`,
        needsLook: true,
        goes: false,
      };
    return {
      said: changed ? `${items(changed)} to change${left}` : 'Nothing to change',
      needsLook: false,
      goes: changed > 0,
    };
  } catch (error) {
    if (isAway(error) || isDeadlock(error)) throw error;
    // Whatever is wrong with this one holds up no other.
    const why = error instanceof NettingError ? error.message : `It could not be counted: ${String(error)}`;
    return { said: why.slice(0, 300), needsLook: true, goes: false };
  }
}

/**
 * Begins the routines that are due, each once, whoever else looks at the same time: the next time is kept together with
 * the task. A trial, or one that would change more than it may, changes nothing and is told.
 * @returns how many were begun
 */
export async function planRoutines(now: Date): Promise<number> {
  const due = await database().select().from(routine).where(lte(routine.dueAt, now));
  let begun = 0;
  for (const row of due) {
    const { plan, dueAt, steps, send, name, id } = row;
    if (!plan || !dueAt) continue;
    const { said, needsLook, goes } = await verdictOn(row, plan);
    await knowSelection(selectionOf(row));
    const where = selectionWhere(selectionOf(row));
    const ids = goes ? await idsWhere(where) : [];
    begun += await transaction(async (tx) => {
      const [{ affectedRows }] = await tx
        .update(routine)
        .set({ dueAt: nextDue(plan, now), lastAt: now, lastSaid: said, needsLook })
        .where(and(eq(routine.id, id), eq(routine.dueAt, dueAt)));
      // Somebody else was faster, or a person has changed the plan meanwhile.
      if (affectedRows !== 1 || ids.length === 0) return 0;
      const actor = { id: row.byId, name: `${row.byName}, by plan`.slice(0, 120) };
      await beginEdit(tx, actor, { ids, steps, send, title: name, routineId: id });
      return 1;
    });
  }
  return begun;
}
