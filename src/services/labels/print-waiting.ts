import { and, asc, eq, isNull, lt, or } from 'drizzle-orm';
import { z } from 'zod';
import { config } from '../../config';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { printJob } from '../../db/schema';
import { labelFile } from './print-labels';

/** Whoever prints has so long for one job, in milliseconds. */
const leaseMs = 60_000;
/** While the printer is out it is asked again so often. */
const againMs = 3_000;

let isPrinting = false;
let again: NodeJS.Timeout | null = null;

/**
 * Prints what waits, one after the other in its order; a printer that is out holds the queue, which is gone on with when it
 * answers again. One job that cannot be made is stopped with its reason and holds up none behind it.
 */
export async function printWaiting(): Promise<void> {
  if (isPrinting) return;
  isPrinting = true;
  if (again) clearTimeout(again);
  again = null;
  try {
    for (let more = true; more; ) more = await printNext();
  } finally {
    isPrinting = false;
  }
}

/** Prints the job that is next. Returns whether there may be more. */
async function printNext(): Promise<boolean> {
  const db = database();
  const [next] = await db
    .select()
    .from(printJob)
    .where(eq(printJob.state, 'waiting'))
    .orderBy(asc(printJob.id))
    .limit(1);
  if (!next) return false;
  const now = new Date();
  const [{ affectedRows }] = await db
    .update(printJob)
    .set({ leaseUntil: new Date(now.getTime() + leaseMs) })
    .where(
      and(
        eq(printJob.id, next.id),
        eq(printJob.state, 'waiting'),
        or(isNull(printJob.leaseUntil), lt(printJob.leaseUntil, now)),
      ),
    );
  // Somebody else prints it just now.
  if (affectedRows !== 1) return false;
  const done = async (set: Partial<typeof printJob.$inferInsert>) => {
    await db
      .update(printJob)
      .set({ leaseUntil: null, ...set })
      .where(eq(printJob.id, next.id));
  };
  try {
    const { pdf } = await labelFile(next.request);
    const out = await sendToPrinter(pdf, `${next.id}-${next.at.getTime()}`, next.title);
    if (out === null) {
      await done({ state: 'printed', message: null, printedAt: new Date() });
      return true;
    }
    await done({ message: out.slice(0, 300) });
    again ??= setTimeout(() => void printWaiting().catch(() => undefined), againMs);
    return false;
  } catch (error) {
    if (!(error instanceof NettingError)) throw error;
    await done({
      state: 'stopped',
      message: [error.message, error.facts.fix].filter(Boolean).join('. ').slice(0, 300),
    });
    return true;
  }
}

/** Hands a PDF to the printer, under a number by which it prints it once. Returns why it did not take it; null when it did. */
async function sendToPrinter(pdf: Uint8Array, job: string, title: string): Promise<string | null> {
  try {
    const answer = await fetch(`${config.printerUrl}/jobs`, {
      method: 'POST',
      headers: { 'content-type': 'application/pdf', 'x-job': job, 'x-title': encodeURIComponent(title) },
      body: Buffer.from(pdf),
      signal: AbortSignal.timeout(10_000),
    });
    if (answer.ok) return null;
    const said = z.object({ title: z.string().max(200) }).safeParse(await answer.json().catch(() => null));
    return said.success ? `The printer says: ${said.data.title}` : `The printer refused it (${answer.status})`;
  } catch {
    return 'The printer does not answer';
  }
}
