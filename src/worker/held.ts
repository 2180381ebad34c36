import { and, eq } from 'drizzle-orm';
import { job } from '../db/schema';
import type { JobRow } from './claim';

/** The job is still this worker's, taken by this very claim. */
export const isHeld = (row: JobRow, worker: string) =>
  and(eq(job.id, row.id), eq(job.state, 'running'), eq(job.leaseOwner, worker), eq(job.lease, row.lease));
