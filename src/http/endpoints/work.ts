import { z } from 'zod';
import { findCauses } from '../../services/outbox/find-causes';
import { findJobs, findJobsSchema } from '../../services/outbox/find-jobs';
import { findRuns } from '../../services/outbox/find-runs';
import { retryJobs, retryJobsSchema } from '../../services/outbox/retry-jobs';
import { progress } from '../../services/outbox/sending-progress';
import { skipJobs } from '../../services/outbox/skip-jobs';
import { stageCounts } from '../../services/records/count-stages';
import { endpoint } from '../endpoint';

export const workEndpoints = [
  endpoint({
    method: 'GET',
    path: '/stages',
    tag: 'Overview',
    summary: 'How many items stand at each stage',
    run: () => stageCounts(),
  }),
  endpoint({
    method: 'GET',
    path: '/progress',
    tag: 'Overview',
    summary: 'What is being sent, to whom, how fast, how long still',
    run: () => progress(),
  }),
  endpoint({
    method: 'GET',
    path: '/jobs',
    tag: 'Jobs',
    summary: 'Jobs, newest first',
    query: findJobsSchema,
    run: ({ query }) => findJobs(query),
  }),
  endpoint({
    method: 'POST',
    path: '/jobs/retry',
    tag: 'Jobs',
    summary: 'Try failed jobs again: by number, or all of one cause',
    body: retryJobsSchema,
    run: ({ actor, body }) => retryJobs(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/jobs/skip',
    tag: 'Jobs',
    summary: 'Take waiting jobs out',
    body: z.object({ jobs: z.array(z.number().int()).min(1).max(2_000) }).strict(),
    run: ({ actor, body }) => skipJobs(actor, body.jobs),
  }),
  endpoint({
    method: 'GET',
    path: '/runs',
    tag: 'Jobs',
    summary: 'Bulk changes and publishes, newest first',
    run: async () => ({ runs: await findRuns() }),
  }),
  endpoint({
    method: 'GET',
    path: '/causes',
    tag: 'Jobs',
    summary: 'What needs a person, grouped by cause',
    run: async () => ({ causes: await findCauses() }),
  }),
];
