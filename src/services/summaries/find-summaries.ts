import { z } from 'zod';
import { lastSummaries } from './make-summary';
import { readSummarySettings, summarySettingsSchema } from './summary-settings';

export const summariesSchema = summarySettingsSchema.extend({
  hasFeed: z.boolean(),
  hasSecret: z.boolean(),
  /** The newest first. */
  days: z.array(
    z.object({ day: z.string(), lines: z.number(), sentAt: z.string().nullable(), problem: z.string().nullable() }),
  ),
});

const shownDays = 7;

/** How the summary of a day is told, and how the last ones went. */
export async function findSummaries(): Promise<z.infer<typeof summariesSchema>> {
  const [{ hour, address, feed, secret }, days] = await Promise.all([readSummarySettings(), lastSummaries(shownDays)]);
  return {
    hour,
    address,
    hasFeed: feed !== null,
    hasSecret: secret !== null,
    days: days.map(({ day, lines, sentAt, problem }) => ({
      day,
      lines: lines.length,
      sentAt: sentAt?.toISOString() ?? null,
      problem,
    })),
  };
}
