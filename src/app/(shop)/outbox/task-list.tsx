'use client';

import { useQuery } from '@tanstack/react-query';
import type { TaskView } from '@/services/tasks/find-tasks';
import { duration } from '@/ui/controls/format';
import { Failed } from '@/ui/controls/states';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

const isLater = (task: TaskView) => task.state === 'waiting' && new Date(task.dueAt).getTime() > Date.now();
/** What is over and went well stands with the runs; what was called off, or has been left lying for long, is no work any more. */
const isOpen = (task: TaskView) =>
  task.state === 'running' ||
  task.state === 'waiting' ||
  (task.state !== 'done' &&
    !(task.kind === 'publish' && task.state === 'stopped') &&
    Date.now() - new Date(task.finishedAt ?? 0).getTime() < 2 * 86_400_000);
const stateWords: Record<TaskView['state'], string> = {
  waiting: 'begins in a moment',
  running: 'under way',
  done: 'done',
  failed: 'failed',
  stopped: 'stopped',
};

/** Long work that is not sending: how far it is, what is to happen later, and what came of it. */
export function TaskList() {
  const { data, isLoadingError, error } = useQuery({
    queryKey: ['tasks'],
    queryFn: () => api('GET /tasks'),
    refetchInterval: (query) => (query.state.data?.tasks.some((one) => one.state === 'running') ? 1_000 : 10_000),
  });
  const stop = useCommand(
    async (task: TaskView) => {
      if (isLater(task)) await api('POST /scheduled/{id}/cancel', { params: { id: task.id }, body: {} });
      else await api('POST /tasks/{id}/stop', { params: { id: task.id }, body: {} });
      return isLater(task) ? 'Called off' : 'Stopped; what is done stays';
    },
    { touches: [['tasks'], ['runs']], tells: true },
  );
  const resume = useCommand(
    async (id: number) => {
      await api('POST /tasks/{id}/resume', { params: { id }, body: {} });
      return 'It goes on';
    },
    { touches: [['tasks']], tells: true },
  );
  if (isLoadingError) return <Failed error={error} />;
  const shown = data?.tasks.filter(isOpen) ?? [];
  const later = shown.filter(isLater);
  const now = shown.filter((one) => !isLater(one));
  if (shown.length === 0) return null;
  return (
    <>
      {now.length ? (
        <section aria-label="Long work" className="border-b border-base-300">
          <h2 className="px-4 pt-2 text-[12px] font-semibold">Long work</h2>
          <ul>
            {now.map((one) => (
              <li key={one.id} className="px-4 py-1.5">
                <span className="block truncate">{one.title}</span>
                <progress
                  className="progress h-1.5 w-full"
                  value={one.done}
                  max={Math.max(1, one.total)}
                  aria-label={`Progress of ${one.title}`}
                />
                <span className="quiet figures text-[12px]">
                  {one.done.toLocaleString('en')} of {one.total.toLocaleString('en')}, {stateWords[one.state]}
                  {one.secondsLeft ? `, ${duration(one.secondsLeft)} left` : ''}
                  {one.finishedAt ? (
                    <>
                      {' '}
                      <When at={one.finishedAt} />
                    </>
                  ) : null}{' '}
                </span>
                {one.message ? <span className="block text-[12px] text-warning">{one.message}</span> : null}
                {one.state === 'running' || one.state === 'waiting' ? (
                  <button type="button" className="text-[12px] underline" onClick={() => void stop.run(one)}>
                    Stop
                  </button>
                ) : (
                  <button type="button" className="text-[12px] underline" onClick={() => void resume.run(one.id)}>
                    Go on
                  </button>
                )}
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      {later.length ? (
        <section aria-label="At a later time" className="border-b border-base-300">
          <h2 className="px-4 pt-2 text-[12px] font-semibold">At a later time</h2>
          <ul>
            {later.map((one) => (
              <li key={one.id} className="px-4 py-1.5">
                <span className="block truncate">{one.title}</span>
                <span className="quiet text-[12px]">
                  {new Date(one.dueAt).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })},{' '}
                  {one.byName}{' '}
                </span>
                <button type="button" className="text-[12px] underline" onClick={() => void stop.run(one)}>
                  Call it off
                </button>
              </li>
            ))}
          </ul>
        </section>
      ) : null}
    </>
  );
}
