import { z } from 'zod';
import { auditAndKeep, auditSchema, lastAudit } from '../../services/audit/audit';
import { cancelScheduled } from '../../services/outbox/cancel-scheduled';
import { causeSchema, findCauses } from '../../services/outbox/find-causes';
import { findJobs, findJobsSchema, outboxJobSchema } from '../../services/outbox/find-jobs';
import { findNeeds } from '../../services/outbox/find-needs';
import { findRuns, findRunsSchema, runProgressSchema } from '../../services/outbox/find-runs';
import { findScheduled, scheduledSchema } from '../../services/outbox/find-scheduled';
import { findUnsent, findUnsentSchema, unsentListingSchema } from '../../services/outbox/find-unsent';
import { liveNewsSchema, subscribeLive } from '../../services/outbox/live';
import { needSchema } from '../../services/outbox/needs/need';
import { publishLater, publishLaterSchema } from '../../services/outbox/publish-later';
import { putOff, putOffSchema } from '../../services/outbox/put-off';
import { resumeRun } from '../../services/outbox/resume-run';
import { retryJobs, retryJobsSchema } from '../../services/outbox/retry-jobs';
import { sendUnsent, sendUnsentSchema } from '../../services/outbox/send-unsent';
import { progress, sendingProgressSchema } from '../../services/outbox/sending-progress';
import { skipJobs } from '../../services/outbox/skip-jobs';
import { stopRun } from '../../services/outbox/stop-run';
import { done, endpoint, streamed } from '../endpoint';
import { eventStream } from '../event-stream';

/** What is planned, under way, done and failed. */
export const outboxEndpoints = [
  endpoint({
    method: 'GET',
    path: '/progress',
    tag: 'Overview',
    role: 'packer',
    summary: 'What is being sent, to whom, how fast, how long still',
    answer: sendingProgressSchema,
    run: () => progress(),
  }),
  endpoint({
    method: 'GET',
    path: '/jobs',
    tag: 'Jobs',
    role: 'seller',
    summary: 'Jobs, newest first',
    query: findJobsSchema,
    answer: z.object({ jobs: z.array(outboxJobSchema), next: z.number().nullable() }),
    run: ({ query }) => findJobs(query),
  }),
  endpoint({
    method: 'POST',
    path: '/jobs/retry',
    tag: 'Jobs',
    role: 'seller',
    summary: 'Try failed jobs again: by number, or all of one cause',
    body: retryJobsSchema,
    answer: z.object({ queued: z.number() }),
    run: ({ actor, body }) => retryJobs(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/jobs/skip',
    tag: 'Jobs',
    role: 'seller',
    summary: 'Take waiting jobs out',
    body: z.object({ jobs: z.array(z.number().int()).min(1).max(2_000) }).strict(),
    answer: z.object({ skipped: z.number() }),
    run: ({ actor, body }) => skipJobs(actor, body.jobs),
  }),
  endpoint({
    method: 'GET',
    path: '/needs',
    tag: 'Overview',
    role: 'seller',
    summary: 'What waits for a person besides refusals, offers and reminders: a line a cause',
    answer: z.object({ needs: z.array(needSchema) }),
    run: () => findNeeds(),
  }),
  endpoint({
    method: 'POST',
    path: '/needs/later',
    tag: 'Overview',
    role: 'seller',
    summary: 'Put one of them off for some days, with a word why; no days bring it back',
    body: putOffSchema,
    answer: done,
    run: ({ actor, body }) => putOff(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/runs',
    tag: 'Jobs',
    role: 'seller',
    summary: 'Bulk changes and publishes, newest first',
    query: findRunsSchema,
    answer: z.object({ runs: z.array(runProgressSchema), next: z.number().nullable() }),
    run: ({ query }) => findRuns(query),
  }),
  endpoint({
    method: 'POST',
    path: '/runs/{id}/stop',
    tag: 'Jobs',
    role: 'seller',
    summary: 'Hold what a run has not sent yet',
    body: z.object({}).strict(),
    answer: z.object({ held: z.number() }),
    run: ({ actor, params }) => stopRun(actor, params.id),
  }),
  endpoint({
    method: 'POST',
    path: '/runs/{id}/resume',
    tag: 'Jobs',
    role: 'seller',
    summary: 'Let a held run go on',
    body: z.object({}).strict(),
    answer: z.object({ resumed: z.number() }),
    run: ({ actor, params }) => resumeRun(actor, params.id),
  }),
  endpoint({
    method: 'GET',
    path: '/audit',
    tag: 'Outbox',
    role: 'seller',
    summary: 'What the last look found that does not add up',
    answer: auditSchema,
    run: () => lastAudit(),
  }),
  endpoint({
    method: 'POST',
    path: '/audit',
    tag: 'Outbox',
    role: 'seller',
    summary: 'Look now whether everything adds up; what can be put right by sending it is queued',
    body: z.object({}).strict(),
    answer: auditSchema,
    run: () => auditAndKeep(),
  }),
  endpoint({
    method: 'GET',
    path: '/unsent',
    tag: 'Outbox',
    role: 'seller',
    summary: 'Live listings whose changes have not been sent, field by field',
    query: findUnsentSchema,
    answer: z.object({ listings: z.array(unsentListingSchema), next: z.number().nullable() }),
    run: ({ query }) => findUnsent(query),
  }),
  endpoint({
    method: 'POST',
    path: '/unsent/send',
    tag: 'Outbox',
    role: 'seller',
    summary: 'Send them: chosen listings or all, all that differs or chosen fields',
    body: sendUnsentSchema,
    answer: z.object({ queued: z.number() }),
    run: ({ actor, body }) => sendUnsent(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/causes',
    tag: 'Jobs',
    role: 'seller',
    summary: 'What needs a person, grouped by cause',
    answer: z.object({ causes: z.array(causeSchema) }),
    run: async () => ({ causes: await findCauses() }),
  }),
  endpoint({
    method: 'POST',
    path: '/publish/later',
    tag: 'Publishing',
    role: 'seller',
    summary: 'Publish at a time',
    body: publishLaterSchema.extend({ title: z.string().trim().min(1).max(200) }),
    answer: z.object({ id: z.number() }),
    run: ({ actor, body: { title, ...input } }) => publishLater(actor, input, title),
  }),
  endpoint({
    method: 'GET',
    path: '/scheduled',
    tag: 'Publishing',
    role: 'seller',
    summary: 'What is to be published at a later time',
    answer: z.object({ scheduled: z.array(scheduledSchema) }),
    run: () => findScheduled(),
  }),
  endpoint({
    method: 'POST',
    path: '/scheduled/{id}/cancel',
    tag: 'Publishing',
    role: 'seller',
    summary: 'Call off what is to be published later',
    body: z.object({}).strict(),
    answer: done,
    run: ({ actor, params }) => cancelScheduled(actor, params.id),
  }),
  streamed({
    path: '/live',
    tag: 'Overview',
    role: 'packer',
    summary: 'News for an open page: how the sending stands, and what has changed',
    media: 'text/event-stream',
    answer: liveNewsSchema,
    run: async ({ request }) => eventStream<z.infer<typeof liveNewsSchema>>(request, subscribeLive),
  }),
];
