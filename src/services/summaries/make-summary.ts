import { and, desc, lt, sql } from 'drizzle-orm';
import type { Summary } from '../../core/summary';
import { database } from '../../db/client';
import { dailySummary } from '../../db/schema';
import { linesNow } from '../outbox/lines-now';
import { readSummarySettings } from './summary-settings';

const keptDays = 60;
const dayOf = (at: Date): string =>
  [at.getFullYear(), at.getMonth() + 1, at.getDate()].map((part) => String(part).padStart(2, '0')).join('-');

/**
 * Makes the summary of a day, once its hour has come, where somebody reads the feed or has it sent; once, however many
 * look for it at the same moment.
 * @param soon also before its hour, and anew where there is one: when somebody asks for it
 */
export async function makeSummary(now: Date, soon = false): Promise<void> {
  const { hour, address, feed } = await readSummarySettings();
  if (!soon && ((!address && !feed) || now.getHours() < hour)) return;
  const day = dayOf(now);
  const db = database();
  const [known] = await db
    .select({ day: dailySummary.day })
    .from(dailySummary)
    .where(sql`${dailySummary.day} = ${day}`);
  if (known && !soon) return;
  const row = { lines: await linesNow(), madeAt: now, sentAt: null, tries: 0, nextTryAt: address ? now : null };
  const made = db.insert(dailySummary).values({ day, ...row, problem: null });
  await made.onDuplicateKeyUpdate({ set: soon ? { ...row, problem: null } : { day } });
  const before = dayOf(new Date(now.getTime() - keptDays * 86_400_000));
  await db.delete(dailySummary).where(and(lt(dailySummary.day, before)));
}

/** The last days, the newest first. */
export async function lastSummaries(
  count = 30,
): Promise<(Summary & { sentAt: Date | null; problem: string | null })[]> {
  const rows = await database().select().from(dailySummary).orderBy(desc(dailySummary.day)).limit(count);
  return rows.map(({ day, lines, madeAt, sentAt, problem }) => ({
    day,
    lines,
    madeAt: madeAt.toISOString(),
    sentAt,
    problem,
  }));
}
