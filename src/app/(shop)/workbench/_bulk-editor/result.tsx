import type { AppliedEdit } from '@/services/changes/many/apply-edit';
import type { Undone } from '@/services/changes/undo/undo-run';
import { Link } from '@/ui/controls/link';
import { Empty } from '@/ui/controls/states';
import { countedAre } from '@/ui/data/counted';

export type Done = { applied: AppliedEdit; sent: boolean; at: string | null } | { undone: Undone; of: number };

type Props = { done: Done; undo: (runId: number) => void; busy: boolean; again: () => void };

/** What has come of the change, with the way back. */
export function Result({ done, undo, busy, again }: Props) {
  if ('undone' in done)
    return (
      <Empty title={`${countedAre(done.undone.items, 'item')} as ${done.undone.items === 1 ? 'it was' : 'they were'}`}>
        {done.undone.changedSince.length ? (
          <div className="text-left">
            <p>These were changed since and stay as they are now:</p>
            <ul className="list-disc pl-5">
              {done.undone.changedSince.slice(0, 20).map((one) => (
                <li key={one.change}>
                  <Link className="underline" href={`/items/${one.itemId}`}>
                    {one.title || one.sku}
                  </Link>
                  : {one.field.toLowerCase()} was {one.before || 'nothing'}, became {one.made || 'nothing'}, is{' '}
                  {one.now || 'nothing'} now
                </li>
              ))}
            </ul>
            <p>
              <Link className="underline" href={`/runs/${done.of}`}>
                Look at them, and take some back all the same
              </Link>
            </p>
          </div>
        ) : null}
        <Link className="btn btn-sm" href="/">
          To the inventory
        </Link>
      </Empty>
    );
  const { applied, sent, at } = done;
  if (at)
    return (
      <Empty title={`${countedAre(applied.total, 'item')} changed ${new Date(at).toLocaleString('en-GB')}`}>
        <p>By what they are then. Until it begins it can be called off in the outbox.</p>
        <Link className="btn btn-primary btn-sm" href="/outbox">
          To the outbox
        </Link>
      </Empty>
    );
  if (!applied.finished)
    return (
      <Empty title={`${countedAre(applied.total, 'item')} being changed`}>
        <p>
          {applied.items.toLocaleString('en')} are changed so far. It goes on by itself: the foot of every page tells
          how far it is, and you can leave this page.
        </p>
        <Link className="btn btn-primary btn-sm" href="/outbox">
          Watch it, stop it or take it back
        </Link>
      </Empty>
    );
  return (
    <Empty title={`${countedAre(applied.items, 'item')} changed`}>
      <p>
        {sent
          ? `${countedAre(applied.listings, 'listing')} on ${applied.listings === 1 ? 'its' : 'their'} way. You can leave this page.`
          : 'Saved only. Their listings show a notch until the change is sent.'}
      </p>
      {applied.refused ? (
        <p className="text-warning">{applied.refused} could not be changed this way and are as before.</p>
      ) : null}
      <div className="flex justify-center gap-2">
        <button type="button" className="btn btn-sm" disabled={busy} onClick={() => undo(applied.runId)}>
          Take the whole change back
        </button>
        <Link className="btn btn-sm" href={`/runs/${applied.runId}`}>
          Look at it item by item
        </Link>
        <button type="button" className="btn btn-sm" onClick={again}>
          Change something else
        </button>
        <Link className="btn btn-primary btn-sm" href={sent ? '/outbox' : '/'}>
          {sent ? 'Watch it being sent' : 'To the inventory'}
        </Link>
      </div>
    </Empty>
  );
}
