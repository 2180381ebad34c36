import { z } from 'zod';
import { findSummaries, summariesSchema } from '../../services/summaries/find-summaries';
import { makeSummary } from '../../services/summaries/make-summary';
import { sendSummaries } from '../../services/summaries/send-summaries';
import { newSummaryKey, saveSummarySettings, summarySettingsSchema } from '../../services/summaries/summary-settings';
import { done, endpoint } from '../endpoint';

/** What needs a person, told once a day by feed and webhook. */
export const summariesEndpoints = [
  endpoint({
    method: 'GET',
    path: '/summaries',
    tag: 'Overview',
    role: 'owner',
    summary: 'How the summary of a day is told, and how the last ones went',
    answer: summariesSchema,
    run: () => findSummaries(),
  }),
  endpoint({
    method: 'PUT',
    path: '/summaries',
    tag: 'Overview',
    role: 'owner',
    summary: 'Say from which hour on it is made, and where it is sent to',
    body: summarySettingsSchema,
    answer: done,
    run: ({ actor, body }) => saveSummarySettings(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/summaries/key',
    tag: 'Overview',
    role: 'owner',
    isShownOnce: true,
    summary: 'A new address of the feed, or a new secret to sign with; shown once. Or no feed any more',
    body: z.object({ what: z.enum(['feed', 'secret', 'off']) }).strict(),
    answer: z.object({ key: z.string() }),
    run: ({ actor, body }) => newSummaryKey(actor, body.what),
  }),
  endpoint({
    method: 'POST',
    path: '/summaries/now',
    tag: 'Overview',
    role: 'owner',
    summary: 'Make and send today’s now',
    body: z.object({}).strict(),
    answer: summariesSchema,
    run: async () => {
      const now = new Date();
      await makeSummary(now, true);
      await sendSummaries(now);
      return findSummaries();
    },
  }),
];
