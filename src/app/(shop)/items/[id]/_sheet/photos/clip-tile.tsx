import { Clapperboard, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Dialog } from '@/ui/controls/dialog';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

type Props = { itemId: number; clip: string; photos: number; changed: () => Promise<unknown> };

/** A short film of the item's photos: made, looked at, taken off. */
export function ClipTile({ itemId, clip, photos, changed }: Props) {
  const [open, setOpen] = useState(false);
  const [failed, setFailed] = useState('');
  const [isReady, setReady] = useState(false);
  /** The task that makes one just now. */
  const [taskId, setTask] = useState<number | null>(null);
  useEffect(() => {
    if (taskId === null) return;
    const look = setInterval(async () => {
      const answer = await api('GET /tasks').catch(() => null);
      if (!answer) return;
      const task = answer.tasks.find((one) => one.id === taskId);
      if (task?.state === 'waiting' || task?.state === 'running') return;
      setTask(null);
      if (task && task.state !== 'done') setFailed(task.message ?? 'No clip was made');
      await changed();
    }, 1_200);
    return () => clearInterval(look);
  }, [taskId, changed]);
  const edit = useCommand(
    async (step: { verb: 'clip-make'; photos: number; seconds: number } | { verb: 'clear' }) => {
      setFailed('');
      const begun = await api('POST /edits', {
        body: {
          selection: { kind: 'items', ids: [itemId] },
          steps: [{ field: 'clip', where: { on: 'item' }, do: step }],
          send: false,
          title: step.verb === 'clear' ? 'Clip taken off' : 'Clip made',
        },
      });
      setTask(begun.finished ? null : begun.taskId);
      await changed();
      return undefined;
    },
    { touches: [['sheet'], ['items']], tells: true },
  );
  const make = () => edit.run({ verb: 'clip-make', photos: 8, seconds: 15 });
  const isComing = taskId !== null;
  const tile = 'grid h-[84px] w-20 shrink-0 place-items-center rounded text-[12px]';
  if (!clip)
    return (
      <button
        type="button"
        className={`${tile} border border-dashed border-base-content/40 hover:bg-base-200`}
        disabled={edit.busy || isComing}
        title={`A film of ${Math.min(8, photos)} photos, 15 seconds at most`}
        onClick={() => void make()}
      >
        <span className="grid justify-items-center gap-1">
          <Clapperboard size={18} aria-hidden="true" />
          {isComing ? 'Being made …' : 'Make a clip'}
          {failed ? (
            <span role="alert" className="text-error">
              {failed}
            </span>
          ) : null}
        </span>
      </button>
    );
  return (
    <div className="relative shrink-0">
      <button
        type="button"
        className={`${tile} bg-base-200 hover:bg-base-300`}
        onClick={() => {
          setReady(false);
          setFailed('');
          setOpen(true);
        }}
      >
        <span className="grid justify-items-center gap-1">
          <Clapperboard size={18} aria-hidden="true" />
          {isComing ? 'Being made …' : 'Play the clip'}
        </span>
      </button>
      <button
        type="button"
        aria-label="Take the clip off"
        className="absolute top-1 right-1 rounded bg-base-100/90 p-[5px]"
        onClick={() => void edit.run({ verb: 'clear' })}
      >
        <X size={12} aria-hidden="true" />
      </button>
      {open ? (
        <Dialog title="The clip of this item" close={() => setOpen(false)}>
          <div className="space-y-2">
            <video
              src={`/api/clips/${clip}`}
              controls
              autoPlay
              muted
              playsInline
              className="max-h-[60vh] w-full rounded bg-base-200"
              onLoadedData={() => setReady(true)}
              onError={() =>
                void fetch(`/api/clips/${clip}`)
                  .then((answer) => answer.text())
                  .then((said) => setFailed(said || 'The clip cannot be played'))
              }
            />
            {failed ? (
              <p role="alert" className="text-error">
                {failed}
              </p>
            ) : (
              <p className="quiet text-[12px]" role="status">
                {isReady ? '' : 'It is being made; that takes some seconds.'}
              </p>
            )}
            <button
              type="button"
              className="btn btn-sm"
              disabled={edit.busy}
              onClick={() => {
                setOpen(false);
                void make();
              }}
            >
              Make it anew of the photos as they are
            </button>
          </div>
        </Dialog>
      ) : null}
    </div>
  );
}
