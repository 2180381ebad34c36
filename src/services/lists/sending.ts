import type { z } from 'zod';
import { findCauses } from '../outbox/find-causes';
import { findJobs, type findJobsSchema } from '../outbox/find-jobs';
import { findRuns } from '../outbox/find-runs';
import { findUnsent, type findUnsentSchema } from '../outbox/find-unsent';
import { accountNames } from '../records/accounts/account-names';
import { causeItems } from './cause-items';
import { heads, type ListFile, pages } from './list-file';

const portion = 200;

/** Every single job of the outbox, the newest first. */
export const jobList: ListFile<Omit<z.output<typeof findJobsSchema>, 'before' | 'limit'>> = {
  name: 'outbox',
  columns: heads(
    'made',
    'stock number',
    'title',
    'account',
    'state',
    'outcome',
    'attempts#',
    'next try',
    'reason',
    'mend',
    'field',
    'listing number',
    'link',
    'finished',
  ),
  async *rows(filter) {
    for await (const { jobs } of pages<number, Awaited<ReturnType<typeof findJobs>>>((before) =>
      findJobs({ ...filter, before, limit: portion }),
    ))
      for (const one of jobs)
        yield [
          one.createdAt,
          one.sku,
          one.title,
          one.accountName,
          one.state,
          one.outcome,
          one.attempts,
          one.state === 'waiting' ? one.dueAt : '',
          one.refusal ?? one.message,
          one.fix,
          one.field,
          one.remoteId,
          one.url,
          one.finishedAt,
        ];
  },
};

/** What was done to many, the newest first, with how its sending stands. */
export const runList: ListFile<unknown> = {
  name: 'runs',
  columns: heads('at', 'kind', 'what', 'by', 'items#', 'waiting#', 'done#', 'failed#', 'taken back'),
  async *rows() {
    for await (const { runs } of pages<number, Awaited<ReturnType<typeof findRuns>>>((before) =>
      findRuns({ before, limit: portion }),
    ))
      for (const one of runs)
        yield [
          one.createdAt,
          one.kind,
          one.title,
          one.byName,
          one.itemCount,
          one.waiting + one.running + one.held,
          one.done,
          one.failed,
          one.undoneBy === null ? '' : 'yes',
        ];
  },
};

/** What needs a person: a row for each item of each cause. */
export const causeList: ListFile<unknown> = {
  name: 'attention',
  columns: heads('account', 'why', 'mend', 'field', 'of how many#', 'stock number', 'title'),
  async *rows() {
    for (const cause of await findCauses())
      for await (const items of causeItems(cause))
        for (const { sku, title } of items)
          yield [cause.accountName, cause.message, cause.fix, cause.field, cause.count, sku, title];
  },
};

/** What was changed here and not sent: a row for each field. */
export const unsentList: ListFile<Omit<z.output<typeof findUnsentSchema>, 'after' | 'limit'>> = {
  name: 'changed',
  columns: heads('account', 'stock number', 'title', 'field', 'there', 'wanted', 'why it would not be taken'),
  async *rows(filter) {
    const names = await accountNames();
    for await (const { listings } of pages<number, Awaited<ReturnType<typeof findUnsent>>>((after = 0) =>
      findUnsent({ ...filter, after, limit: portion }),
    ))
      for (const one of listings)
        for (const { label, there, wanted } of one.fields)
          yield [names.get(one.accountId), one.sku, one.title, label, there, wanted, one.problem];
  },
};
