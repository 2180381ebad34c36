'use client';

import type { Removed } from '@/services/records/removed/removed';
import { useCommand } from '../data/use-command';
import { When } from './when';

type Props = {
  removed: readonly Removed[];
  /** Has one back; what hangs on it is read again by `useCommand`. */
  back: (id: number) => Promise<unknown>;
};

/** What was removed lately, behind a line that stands there only if there is any; each can be had back. */
export function RemovedList({ removed, back }: Props) {
  const command = useCommand(
    async ({ id, name }: Removed) => {
      await back(id);
      return `“${name}” is there again`;
    },
    { tells: true },
  );
  if (removed.length === 0) return null;
  return (
    <details className="px-3 py-2 text-[13px]">
      <summary className="quiet cursor-pointer">Removed lately: {removed.length}</summary>
      <ul className="mt-1 space-y-1.5">
        {removed.map((one) => (
          <li key={one.id} className="flex items-baseline gap-2">
            <span className="min-w-0 flex-1">
              <span className="break-words">{one.name}</span>
              <span className="quiet block text-[12px]">
                {one.byName}, <When at={one.at} />
              </span>
            </span>
            <button
              type="button"
              className="btn btn-xs"
              aria-label={`Bring ${one.name} back`}
              disabled={command.busy}
              onClick={() => void command.run(one)}
            >
              Bring back
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}
