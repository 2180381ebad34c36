import type { RefusedAct } from './kept-acts';

type Props = { refused: RefusedAct[]; settle: (one: RefusedAct, isTried: boolean) => void };

/** Scans that were not taken, each with its reason: tried again, or thrown away. */
export function NotTaken({ refused, settle }: Props) {
  if (refused.length === 0) return null;
  return (
    <ul aria-label="Not taken">
      {refused.map((one) => (
        <li key={one.act.key} className="mb-1 flex items-center gap-3 rounded border border-error px-3 py-1.5">
          <span className="min-w-0 flex-1">
            <span className="mono">{one.act.text.trim()}</span> was not taken: {one.why}
          </span>
          <button type="button" className="btn btn-sm" onClick={() => settle(one, true)}>
            Try again
          </button>
          <button type="button" className="btn btn-sm btn-ghost" onClick={() => settle(one, false)}>
            Throw away
          </button>
        </li>
      ))}
    </ul>
  );
}
