import { randomUUID } from 'node:crypto';
import { eq, sql } from 'drizzle-orm';
import type { Executor } from '../../../db/client';
import { type TaskRow, task } from '../../../db/schema';
import type { Actor } from '../../access/actor';

/** How long a task stays with the one who holds it without a sign of life. */
export const taskLease = sql`utc_timestamp(3) + interval 20 second`;

/** A name for a request that begins a task itself. */
export const holderHere = (): string => `here-${randomUUID()}`;

type NewTask = {
  kind: TaskRow['kind'];
  title: string;
  input: unknown;
  total: number;
  runId?: number;
  /** At a later time; as soon as a worker is free when left out. */
  dueAt?: Date;
  /** Who begins it at once; nobody else takes it while the lease lasts. */
  holder?: string;
};

/** Writes a task down, in the caller's transaction. */
export async function startTask(db: Executor, actor: Actor, given: NewTask): Promise<TaskRow> {
  const { kind, title, input, total, runId, dueAt, holder } = given;
  const at = new Date();
  const [{ insertId }] = await db.insert(task).values({
    kind,
    title: title.slice(0, 200),
    input,
    totalCount: total,
    runId: runId ?? null,
    dueAt: dueAt ?? at,
    byId: actor.id,
    byName: actor.name,
    createdAt: at,
    ...(holder ? { state: 'running' as const, leaseOwner: holder, leaseUntil: taskLease, startedAt: at } : {}),
  });
  const [row] = await db.select().from(task).where(eq(task.id, insertId));
  if (!row) throw new Error(`the task ${insertId} was not stored`);
  return row;
}
