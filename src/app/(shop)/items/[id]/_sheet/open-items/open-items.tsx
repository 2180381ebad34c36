'use client';

import { useQuery } from '@tanstack/react-query';
import { Copy, X } from 'lucide-react';
import type { OpenItem } from '@/services/items/find-open-items';
import { Link } from '@/ui/controls/link';
import { api, photoUrl } from '@/ui/data/api';

export const useOpenItemList = (ids: number[]) =>
  useQuery({
    queryKey: ['open-items', ids.join(',')],
    queryFn: () => api('GET /open-items', { query: { ids: ids.join(',') } }),
    enabled: ids.length > 0,
    refetchInterval: 5_000,
    placeholderData: (before) => before,
  });

type Props = {
  itemId: number;
  items: OpenItem[];
  drop: (id: number) => void;
  clear: () => void;
  takeOver: () => void;
};

/** The items of one sitting side by side: where something is unfinished, and the way from one to the next. */
export function OpenItems({ itemId, items, drop, clear, takeOver }: Props) {
  if (items.length < 2) return null;
  return (
    <nav
      aria-label="Items of this sitting"
      className="flex items-center gap-1 overflow-x-auto border-b border-base-300 bg-base-200 px-3 py-1"
    >
      <ul className="flex gap-1">
        {items.map((item) => (
          <li
            key={item.id}
            className={`flex max-w-64 items-center rounded border ${item.id === itemId ? 'border-base-content bg-base-100' : 'border-transparent hover:bg-base-100'}`}
          >
            <Link
              href={`/items/${item.id}`}
              aria-current={item.id === itemId ? 'page' : undefined}
              className="flex min-w-0 items-center gap-1.5 px-1.5 py-0.5"
            >
              {item.photo ? (
                <img src={photoUrl(item.photo, 'thumb')} alt="" className="h-5 w-5 rounded-sm object-cover" />
              ) : null}
              <span className="truncate">{item.title || item.sku}</span>
              <span
                className={`figures shrink-0 text-[11px] ${item.unfinished ? 'text-warning' : 'quiet'}`}
                title={`Ready on ${item.ready}, something is missing on ${item.unfinished}`}
              >
                {item.unfinished ? `${item.unfinished} open` : 'ready'}
              </span>
            </Link>
            {item.id === itemId ? null : (
              <button
                type="button"
                className="px-1"
                aria-label={`Put ${item.title || item.sku} away`}
                onClick={() => drop(item.id)}
              >
                <X size={11} aria-hidden="true" />
              </button>
            )}
          </li>
        ))}
      </ul>
      <span className="ml-auto flex shrink-0 gap-1">
        <button type="button" className="btn btn-xs" onClick={takeOver}>
          <Copy size={12} aria-hidden="true" /> Take over …
        </button>
        <button type="button" className="btn btn-ghost btn-xs" onClick={clear}>
          Put the others away
        </button>
      </span>
    </nav>
  );
}
