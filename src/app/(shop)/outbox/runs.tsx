import type { RunProgress } from '@/services/outbox/find-runs';
import { Link } from '@/ui/controls/link';
import { When } from '@/ui/controls/when';
import { kindWords } from './words';

/** What was started in one go: to look at alone, to stop, to take back. */
export function Runs({
  runs,
  chosen,
  choose,
  undo,
  back,
}: {
  runs: RunProgress[];
  chosen: number | null;
  choose: (id: number | null) => void;
  undo: (run: RunProgress) => void;
  /** What was sent: ends what was listed, lists again what was ended. */
  back: (run: RunProgress) => void;
}) {
  return (
    <>
      <ol>
        {runs.map((one) => (
          <li
            key={one.id}
            className={`border-b border-base-300/60 px-4 py-1.5 ${one.id === chosen ? 'bg-base-200' : ''}`}
          >
            <button
              type="button"
              className="block w-full text-left"
              onClick={() => choose(one.id === chosen ? null : one.id)}
            >
              <span className="block truncate">
                <span className="quiet">{kindWords[one.kind]}</span> {one.title}
              </span>
              <span className="quiet block text-[12px]">
                <When at={one.createdAt} />, {one.byName}
                {one.waiting + one.running > 0 ? `, ${one.waiting + one.running} to go` : ''}
                {one.held > 0 ? `, ${one.held} stopped` : ''}
              </span>
            </button>
            <span className="flex flex-wrap gap-x-2">
              {one.kind === 'edit' && !one.undoneBy && one.itemCount > 0 ? (
                <button type="button" className="text-[12px] underline" onClick={() => undo(one)}>
                  Take {one.itemCount.toLocaleString('en')} {one.itemCount === 1 ? 'item' : 'items'} back and send
                </button>
              ) : null}
              {((one.kind === 'publish' && one.listed > 0) || (one.kind === 'end' && one.ended > 0)) &&
              !one.undoneBy ? (
                <button type="button" className="text-[12px] underline" onClick={() => back(one)}>
                  {one.kind === 'publish' ? 'End what it listed' : 'List them again'}
                </button>
              ) : null}
              {['edit', 'undo', 'intake'].includes(one.kind) && one.itemCount > 0 ? (
                <Link className="text-[12px] underline" href={`/runs/${one.id}`}>
                  Item by item
                </Link>
              ) : null}
              {one.undoneBy ? <span className="quiet text-[12px]">taken back</span> : null}
            </span>
          </li>
        ))}
      </ol>
      {runs.length === 0 ? (
        <p className="quiet p-4">Changes of many and what is published will stand here; each can be taken back.</p>
      ) : null}
    </>
  );
}

/** How far a run is, and the way to stop it or let it go on. */
export function RunLine({ run, stop, resume }: { run: RunProgress; stop: () => void; resume: () => void }) {
  const total = run.waiting + run.running + run.held + run.done + run.failed;
  const over = run.done + run.failed;
  if (total === 0) return null;
  return (
    <div className="flex items-center gap-3 border-b border-base-300 bg-base-200 px-4 py-2">
      <progress className="progress w-64" value={over} max={total} aria-label="Progress of this run" />
      <span className="figures" role="status">
        {over} of {total} {over === total ? 'done' : 'sent'}
        {run.failed ? <span className="text-warning">, {run.failed} failed</span> : null}
        {run.held ? `, ${run.held} stopped` : ''}
      </span>
      {run.waiting > 0 ? (
        <button type="button" className="btn btn-xs" onClick={stop}>
          Stop the {run.waiting} that wait
        </button>
      ) : null}
      {run.held > 0 ? (
        <button type="button" className="btn btn-xs" onClick={resume}>
          Let {run.held} go on
        </button>
      ) : null}
    </div>
  );
}
