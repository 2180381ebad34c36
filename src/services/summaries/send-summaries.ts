import { and, eq, lte } from 'drizzle-orm';
import { Webhook } from 'standardwebhooks';
import { insideOrigins } from '../../config';
import { nextTryMinutes, type Summary, titleOf } from '../../core/summary';
import { database } from '../../db/client';
import { dailySummary } from '../../db/schema';
import { type AskOptions, askOutside, NotAsked } from '../../outside/ask-outside';
import { readSummarySettings } from './summary-settings';

/** Sends one, signed (Standard Webhooks); its id is the day's, so that who hears it twice knows. Null when it was taken. */
async function send(address: string, secret: string, summary: Summary, options: AskOptions): Promise<string | null> {
  const id = `attention-${summary.day}`;
  const at = new Date();
  const data = { day: summary.day, title: titleOf(summary), lines: summary.lines };
  const body = JSON.stringify({ type: 'attention.summary', timestamp: at.toISOString(), data });
  const headers = {
    'content-type': 'application/json',
    'webhook-id': id,
    'webhook-timestamp': String(Math.floor(at.getTime() / 1_000)),
    'webhook-signature': new Webhook(secret).sign(id, at, body),
  };
  try {
    const answer = await askOutside(new URL(address), { method: 'POST', headers, body }, options);
    answer.destroy();
    const { statusCode = 0 } = answer;
    return statusCode >= 200 && statusCode < 300 ? null : `It answered ${statusCode}`;
  } catch (error) {
    return error instanceof NotAsked ? error.message : 'It does not answer';
  }
}

/** Sends the summaries that are due; each try is taken by one process alone, and a later one follows where it failed. */
export async function sendSummaries(now: Date, options: AskOptions = {}): Promise<void> {
  const db = database();
  const due = await db.select().from(dailySummary).where(lte(dailySummary.nextTryAt, now));
  if (due.length === 0) return;
  const { address, secret } = await readSummarySettings();
  for (const row of due) {
    const tries = row.tries + 1;
    const minutes = nextTryMinutes(tries);
    const nextTryAt = minutes === null || !address ? null : new Date(now.getTime() + minutes * 60_000);
    const [taken] = await db
      .update(dailySummary)
      .set({ tries, nextTryAt })
      .where(and(eq(dailySummary.day, row.day), eq(dailySummary.tries, row.tries)));
    if (taken.affectedRows === 0 || !address) continue;
    const summary: Summary = { day: row.day, lines: row.lines, madeAt: row.madeAt.toISOString() };
    const trusts = { trusts: insideOrigins(), ...options };
    const problem = secret ? await send(address, secret, summary, trusts) : 'There is no secret to sign it with';
    const told = problem === null ? { sentAt: new Date(), nextTryAt: null, problem: null } : { problem };
    await db.update(dailySummary).set(told).where(eq(dailySummary.day, row.day));
  }
}
