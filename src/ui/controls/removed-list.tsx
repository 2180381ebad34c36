'use client';

import { useQuery } from '@tanstack/react-query';
import { api } from '../data/api';
import { bringBack, type RemovedKind } from '../data/bring-back';
import { useSells } from '../data/me';
import { useCommand } from '../data/use-command';
import { When } from './when';

/** What of a kind was removed lately, behind a line that stands there only if there is any; each can be had back. */
export function RemovedList({ kind }: { kind: RemovedKind }) {
  const enabled = useSells();
  const { data } = useQuery({
    queryKey: ['removed', kind],
    queryFn: () => api('GET /removed', { query: { kind } }),
    enabled,
  });
  const command = useCommand(
    async ({ id, name }: { id: number; name: string }) => {
      await bringBack(kind, id);
      return `“${name}” is there again`;
    },
    { tells: true },
  );
  if (!data?.removed.length) return null;
  return (
    <details className="max-w-xl px-3 py-2 text-[13px]">
      <summary className="quiet cursor-pointer">Removed lately: {data.removed.length}</summary>
      <ul className="mt-1 max-h-72 space-y-1.5 overflow-auto">
        {data.removed.map((one) => (
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
