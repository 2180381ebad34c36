import { database } from '../../db/client';
import type { TaskRow } from '../../db/schema';
import { advanceTask } from '../records/tasks/advance-task';
import { forgetGone, readPage } from './read-page';
import { waitOut } from './wait-out';

/** Everything that an account has listed is read, page by page. */
export type SurveyTask = { account: number };
type Cursor = { after: string; since: string };

/** The next page; how far it has come is kept with it, so that a silent marketplace goes on where it was. */
export const surveyStep = (task: TaskRow, holder: string): Promise<TaskRow> =>
  waitOut(task, holder, async () => {
    const { account } = task.input as SurveyTask; // written by `beginSurvey`
    const cursor = task.cursor as Cursor | null; // written below
    const since = cursor?.since ?? new Date().toISOString();
    const { next, read } = await readPage(database(), account, cursor?.after ?? null);
    if (next === null) await forgetGone(database(), account, new Date(since));
    return advanceTask(database(), task, holder, {
      cursor: { after: next, since },
      done: read,
      finished: next === null,
      result: null,
    });
  });
