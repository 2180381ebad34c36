'use client';

import { useQuery } from '@tanstack/react-query';
import type { GatheringView } from '@/services/gathering/find-gathering';
import { Link } from '@/ui/controls/link';
import { Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';
import { useCommand } from '@/ui/data/use-command';
import { useTask } from '@/ui/data/use-task';
import { BroughtIn } from './brought-in';
import { Questions } from './questions';

/** One bringing in: how far it is, what is to be decided, and what came of it. */
export function Gathering({ id }: { id: number }) {
  const made = useQuery({
    queryKey: ['gatherings', id],
    queryFn: () => api('GET /gatherings/{id}', { params: { id } }),
    refetchInterval: ({ state }) => (state.data?.state === 'working' ? 800 : false),
  });
  if (made.isError) return <Failed error={made.error} retry={() => void made.refetch()} />;
  if (!made.data) return <Loading what="what was brought in" />;
  const view = made.data;
  const open = view.questions.filter((one) => one.answer === null || one.answer === 'later');
  return (
    <div className="flex flex-col lg:h-[calc(100dvh-var(--frame))]">
      <PageHead title={view.title}>
        <Link className="link" href="/bring-in">
          Bring in more
        </Link>
        <Progress view={view} />
      </PageHead>
      <div
        className={`grid min-h-0 flex-1 divide-x divide-base-300 max-lg:grid-cols-1 max-lg:overflow-auto ${view.questions.length ? 'grid-cols-[minmax(0,3fr)_minmax(0,2fr)]' : 'grid-cols-1'}`}
      >
        {view.questions.length ? <Questions view={view} open={open.length} /> : null}
        <BroughtIn view={view} />
      </div>
    </div>
  );
}

/** In one line: what was done, and the next thing to do. */
function Progress({ view }: { view: GatheringView }) {
  const { task } = view;
  const { stop, goOn } = useTask(task?.id, [['gatherings', view.id]]);
  // What was begun long ago and is not known as a task any more begins where it was.
  const again = useCommand(
    async () => {
      await api('POST /gatherings/{id}/go-on', { params: { id: view.id } });
      return undefined;
    },
    { touches: [['gatherings', view.id]], tells: true },
  );
  const first = view.items[0]?.itemId;
  const broken = task === null || task.state === 'failed' || task.state === 'stopped';
  if (view.state === 'working')
    return (
      <p role="status" className="flex items-center gap-3">
        <span>
          {view.broughtIn.toLocaleString('en')} of {counted(view.chosen, 'listing')} brought in
          {view.photosOpen ? `, photos of ${view.photosOpen.toLocaleString('en')} to be fetched` : ''}
          {task?.message ? <span className="text-warning"> – {task.message}</span> : null}
        </span>
        {broken ? (
          <button type="button" className="btn btn-sm" onClick={() => void (task ? goOn : again).run()}>
            Go on
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
      <p role="status">
        {counted(view.broughtIn, 'listing')} brought in: {counted(view.made, 'new item')}
        {view.joined ? `, ${counted(view.joined, 'item')} of yours linked further` : ''}. Nothing was sent.
      </p>
      {view.toLookThrough > 0 && first !== undefined ? (
        <Link className="btn btn-primary btn-sm ml-auto" href={`/items/${first}?sitting=${view.id}`}>
          Look through {view.toLookThrough.toLocaleString('en')} one by one
        </Link>
      ) : null}
    </>
  );
}
