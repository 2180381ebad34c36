import type { Doubt } from './use-doubts';

type Props = { doubts: Doubt[]; settle: (id: string, isTwice: boolean) => void };

/** The same code came twice within a second: whether the piece is there twice, asked once each. */
export function Doubts({ doubts, settle }: Props) {
  if (doubts.length === 0) return null;
  return (
    <ul aria-label="Scanned twice">
      {doubts.map((one) => (
        <li key={one.id} className="mb-1 flex items-center gap-3 rounded border border-warning px-3 py-1.5">
          <span>
            <span className="mono">{one.text}</span> came twice within a second. Is it really there twice?
          </span>
          <button type="button" className="btn btn-sm ml-auto" onClick={() => settle(one.id, true)}>
            Yes, twice
          </button>
          <button type="button" className="btn btn-sm btn-ghost" onClick={() => settle(one.id, false)}>
            No, once
          </button>
        </li>
      ))}
    </ul>
  );
}
