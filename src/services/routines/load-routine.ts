import { eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { routine } from '../../db/schema';
import type { Selection } from '../records/items/selection';

export type RoutineRow = typeof routine.$inferSelect;

export async function loadRoutine(id: number): Promise<RoutineRow> {
  const [row] = await database().select().from(routine).where(eq(routine.id, id));
  if (!row) throw new NettingError('not-found', 'There is no such routine');
  return row;
}

/** The items that a routine is for, as they are found now. */
export const selectionOf = ({ filter }: Pick<RoutineRow, 'filter'>): Selection => ({
  kind: 'filter',
  filter: {},
  except: [],
  narrowed: filter,
});
