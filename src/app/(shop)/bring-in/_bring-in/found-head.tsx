import type { AccountView } from '@/services/accounts/find-accounts';
import type { FoundPage } from '@/services/gathering/find-found';
import { When } from '@/ui/controls/when';
import { useTask } from '@/ui/data/use-task';

type Props = { page: FoundPage | undefined; account: AccountView; reading: boolean; read: () => void };

/** When an account was read and how much was found; how far a reading is that is under way. */
export function FoundHead({ page, account, reading, read }: Props) {
  const task = page?.reading;
  const { stop, goOn } = useTask(task?.id, [['found']]);
  if (task)
    return (
      <p role="status" className="flex items-center gap-3">
        <span>
          {task.state === 'failed' ? 'Reading broke off' : `Reading ${account.name}`}: {task.done.toLocaleString('en')}{' '}
          by now
          {task.message ? <span className="text-warning"> – {task.message}</span> : null}
        </span>
        {task.state === 'failed' ? (
          <button type="button" className="btn btn-sm" onClick={() => void goOn.run()}>
            Go on reading
          </button>
        ) : (
          <button type="button" className="btn btn-sm" onClick={() => void stop.run()}>
            Stop
          </button>
        )}
      </p>
    );
  return (
    <>
      <button type="button" className="btn btn-sm" disabled={reading} onClick={read}>
        {reading ? `Reading ${account.name} …` : page?.readAt ? 'Read again' : 'Read what is there'}
      </button>
      {page?.readAt ? (
        <p className="quiet">
          {page.read.toLocaleString('en')} found, {page.in.toLocaleString('en')} in already; read{' '}
          <When at={page.readAt} />
        </p>
      ) : null}
    </>
  );
}
