import type { DropView } from '@/services/photos/find-drop';
import { duration } from '@/ui/controls/format';
import { Link } from '@/ui/controls/link';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { useTask } from '@/ui/data/use-task';
import { type Dropping, stopBringing } from '@/ui/photos/dropping';

/** How far the files have come, and how far they are put on their items. */
export function Progress({ drop, dropping }: { drop: DropView; dropping: Dropping | undefined }) {
  const { task, counts } = drop;
  const { stop, goOn } = useTask(task?.id, [['photo-drops']]);
  const close = useCommand(
    async () => {
      await api('POST /photo-drops/{id}/close', { params: { id: drop.id } });
      return undefined;
    },
    { touches: [['photo-drops']], tells: true },
  );
  if (dropping)
    return (
      <span role="status" className="flex items-center gap-2">
        <progress
          className="progress w-28"
          aria-label="Files that have come"
          value={dropping.done}
          max={dropping.total}
        />
        <span className="figures">
          {dropping.done.toLocaleString('en')} of {dropping.total.toLocaleString('en')} here
          {dropping.secondsLeft ? `, ${duration(dropping.secondsLeft)} left` : ''}
        </span>
        {dropping.waits ? <span className="text-warning">{dropping.waits}</span> : null}
        <button type="button" className="btn btn-xs" onClick={() => stopBringing(drop.id)}>
          Stop
        </button>
      </span>
    );
  if (task?.state === 'running' || task?.state === 'waiting')
    return (
      <span role="status" className="flex items-center gap-2">
        <progress
          className="progress w-28"
          aria-label="Items that have their photos"
          value={task.done}
          max={task.total}
        />
        <span className="figures">
          {task.done.toLocaleString('en')} of {task.total.toLocaleString('en')} items
          {task.secondsLeft ? `, ${duration(task.secondsLeft)} left` : ''}
        </span>
        <button type="button" className="btn btn-xs" onClick={() => void stop.run()}>
          Stop
        </button>
      </span>
    );
  return (
    <span className="flex items-center gap-2">
      {counts.coming ? (
        <span className="text-warning">
          {counts.coming.toLocaleString('en')} did not come: drop the same folder here again
        </span>
      ) : null}
      {task && (task.state === 'stopped' || task.state === 'failed') && counts.tied ? (
        <button type="button" className="btn btn-xs" onClick={() => void goOn.run()}>
          Go on adding
        </button>
      ) : null}
      {task?.runId && counts.added ? (
        <Link className="link" href={`/runs/${task.runId}`}>
          Look at what was added, or take it back
        </Link>
      ) : null}
      {drop.state === 'open' && counts.coming === 0 && counts.tied === 0 ? (
        <button type="button" className="btn btn-xs" onClick={() => void close.run()}>
          Done with these files
        </button>
      ) : null}
    </span>
  );
}
