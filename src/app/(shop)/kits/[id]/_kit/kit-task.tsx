'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import type { KitView } from '@/services/kits/find-kit';
import { Link } from '@/ui/controls/link';
import { countedAre } from '@/ui/data/counted';
import { useTask } from '@/ui/data/use-task';

type Task = NonNullable<KitView['task']>;
type Result = {
  priced?: number;
  unpriced?: number;
  kept?: number;
  made?: number;
  added?: number;
  changed?: number;
  left?: { name: string; why: string }[];
};

export const isUnderWay = (task: Task | null): boolean => task?.state === 'running' || task?.state === 'waiting';

/** What came of it, in words. */
function wordsOf({ kind, result }: Task): string {
  const { priced = 0, unpriced = 0, kept = 0, made = 0, added = 0, changed = 0 } = (result ?? {}) as Result; // written by the two steps
  const said =
    kind === 'pricing'
      ? [
          `${countedAre(priced, 'lot')} priced`,
          unpriced ? `${unpriced} found no price` : '',
          kept ? `${kept} kept theirs` : '',
        ]
      : [
          made ? `${countedAre(made, 'lot')} new in stock` : '',
          added ? `${countedAre(added, 'lot')} added to what was there` : '',
          changed ? `${countedAre(changed, 'lot')} changed in stock` : '',
        ];
  return said.filter(Boolean).join(', ') || 'Nothing became different';
}

/** Long work on these sets: how far it is, how to stop it, and what came of it. */
export function KitTask({ kit }: { kit: KitView }) {
  const { id, task } = kit;
  const client = useQueryClient();
  const { stop, goOn } = useTask(task?.id, [['kit', id]]);
  const [dismissed, setDismissed] = useState(0);
  const seen = useRef<string>('');
  const key = task ? `${task.id} ${task.state}` : '';
  // A task that was over when the page was opened is no news.
  const first = useRef(task?.id ?? 0);
  const wasOver = useRef(!isUnderWay(task));
  useEffect(() => {
    if (seen.current && seen.current !== key) void client.invalidateQueries({ queryKey: ['kit-lots', id] });
    seen.current = key || 'none';
  }, [client, id, key]);
  if (!task || dismissed === task.id || (task.id === first.current && wasOver.current && task.state === 'done'))
    return null;
  const left = ((task.result ?? {}) as Result).left ?? []; // written by the steps
  const what = task.kind === 'pricing' ? 'Pricing' : 'Stock';
  return (
    <div
      className="flex flex-wrap items-center gap-3 border-b border-base-300 bg-base-200 px-4 py-1.5 text-[13px]"
      role="status"
    >
      {isUnderWay(task) ? (
        <>
          <span>
            {what} under way: {task.done.toLocaleString('en')} of {task.total.toLocaleString('en')}
          </span>
          <progress className="progress progress-primary w-48" value={task.done} max={Math.max(1, task.total)} />
          <button type="button" className="btn btn-xs" disabled={stop.busy} onClick={() => void stop.run()}>
            Stop
          </button>
        </>
      ) : (
        <>
          <span className={task.state === 'failed' ? 'text-error' : ''}>
            {task.state === 'done'
              ? wordsOf(task)
              : task.state === 'stopped'
                ? 'Stopped; what was done stays'
                : `${what}: ${task.message ?? 'it failed'}`}
          </span>
          {left.length ? (
            <span title={left.map((one) => `${one.name}: ${one.why}`).join('\n')}>
              {countedAre(left.length, 'lot')} left: {left[0]?.why}
            </span>
          ) : null}
          {task.state === 'done' ? null : (
            <button type="button" className="btn btn-xs" disabled={goOn.busy} onClick={() => void goOn.run()}>
              Go on
            </button>
          )}
          {task.runId === null ? null : (
            <Link className="link" href={`/runs/${task.runId}`}>
              See it, or take it back
            </Link>
          )}
          <button type="button" className="btn btn-ghost btn-xs ml-auto" onClick={() => setDismissed(task.id)}>
            Seen
          </button>
        </>
      )}
    </div>
  );
}
